import 'server-only'
import { endOldSchema, keepOldSchema, type KeepOldInput, type OldPartLine } from '@/core/stores'
import { visitNumber } from '@/core/plan'
import { check, conflict, notFound } from '@/core/problem'
import { write } from '@/db/house'
import { oldParts } from '@/db/stores'
import { sheets } from '@/db/sheets'
import { dayOf, now, ourCompany, present, recordChange, requirePermission, type Actor } from '../house'

/** Old parts that lie about with a label: those of one sheet, or all that are kept still. */
export async function listOldParts(_actor: Actor, sheetId?: string): Promise<OldPartLine[]> {
  const [rows, company] = await Promise.all([
    oldParts.all(sheetId === undefined ? { endedOn: null } : { sheetId }, [['number', 'ASC']]),
    ourCompany(),
  ])
  const sheetRows = await sheets.all({ id: [...new Set(rows.map((row) => row.sheetId))] })
  return rows.map((row) => {
    const sheet = sheetRows.find((each) => each.id === row.sheetId)
    const { id, number, name, place, quantity, until, reason, endedOn, ending } = row
    return {
      ...{ id, number, name, place, quantity, until, reason, endedOn, ending },
      sheetId: row.sheetId,
      sheetNumber: sheet?.number ?? 0,
      sheetOpen: sheet?.state === 'open',
      since: dayOf(row.recordedAt, company.timeZone),
    }
  })
}

/** An old part goes into a bag with a label: kept until the job is closed, or until a claim is settled. */
export async function keepOldPart(actor: Actor, input: KeepOldInput): Promise<{ number: number }> {
  requirePermission(actor, 'sheets.work')
  const old = check(keepOldSchema, input)
  return write(async () => {
    const known = await oldParts.byId(old.id)
    if (known) return { number: known.number }
    const sheet = await sheets.byId(old.sheetId)
    if (!sheet) throw notFound('This sheet')
    if (sheet.state === 'abandoned') throw conflict('This sheet was given up.')
    const [last] = await oldParts.all({}, [['number', 'DESC']], 1)
    const number = (last?.number ?? 0) + 1
    await oldParts.insert({
      ...old,
      number,
      endedOn: null,
      ending: '',
      recordedAt: now(),
      recordedById: actor.id,
    })
    await recordChange(actor, {
      entity: 'sheet',
      entityId: sheet.id,
      action: 'oldPart',
      summary: `Old ${old.name} of sheet ${visitNumber(sheet.number)} kept in bag ${number}, until ${
        old.until === 'job' ? 'the job is closed' : 'the claim is settled'
      }`,
      reason: old.reason,
    })
    return { number }
  })
}

/** It need not be kept any longer. One of a job is not thrown away while its sheet is open. */
export async function endOldPart(actor: Actor, input: { id: string; ending: string }): Promise<void> {
  requirePermission(actor, 'stores.count')
  const { id, ending } = check(endOldSchema, input)
  await write(async () => {
    const row = await oldParts.byId(id)
    if (!row) throw notFound('This old part')
    if (row.endedOn !== null) return
    const sheet = await sheets.byId(row.sheetId)
    if (sheet?.state === 'open')
      throw conflict(`Sheet ${visitNumber(sheet.number)} is open still: keep it until the job is closed.`)
    const { today } = present(await ourCompany())
    await oldParts.update({ id }, { endedOn: today, ending })
    await recordChange(actor, {
      entity: 'sheet',
      entityId: row.sheetId,
      action: 'oldPart',
      summary: `Bag ${row.number}, old ${row.name}: not kept any longer`,
      reason: ending,
    })
  })
}
