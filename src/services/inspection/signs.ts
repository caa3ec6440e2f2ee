import 'server-only'
import { addDays, showDay } from '@/core/calendar'
import {
  firstChecks,
  settleSignSchema,
  signOutcomes,
  signSchema,
  symptoms,
  type SettleSignInput,
  type SignInput,
  type SignView,
} from '@/core/inspection'
import { visitNumber } from '@/core/plan'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { positionsOf, whereWords } from '@/core/wear'
import { kept, write } from '@/db/house'
import { assemblies, fittings, type AssemblyRow, machines } from '@/db/fleet'
import { people } from '@/db/access'
import { pumpModelVersions } from '@/db/models'
import { sheets } from '@/db/sheets'
import { signs, type SignRow } from '@/db/inspection'
import { duties } from '@/db/wear'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  editRow,
  requireFresh,
  groupBy,
} from '../house'
import { figuresOf, seenWords } from './signsLoading'

/** A sign is seen to within this many days at most. */
const furthest = 365

/** Every open sign: what wants seeing to first comes first. */
export async function listOpenSigns(_actor: Actor): Promise<SignView[]> {
  return kept('open signs', async () => asViews(await signs.all({ status: 'open' }, [['by', 'ASC']])))
}

/** The signs of a machine with those of the pumps on it, or of one pump: open ones first, then the newest. */
export async function signsOf(
  _actor: Actor,
  of: { machineId: string } | { assemblyId: string },
): Promise<SignView[]> {
  const views = await asViews(await signs.all(of, [['recordedAt', 'DESC']]))
  return views.sort((a, b) => Number(a.settled !== null) - Number(b.settled !== null))
}

/** Puts down what somebody saw; where a service is named, it comes forward until the sign is settled. */
export async function reportSign(actor: Actor, input: SignInput): Promise<void> {
  requirePermission(actor, 'signs.report')
  const sign = check(signSchema, input)
  await write(async () => {
    if (await signs.byId(sign.id)) return
    const company = await ourCompany()
    const { today } = present(company)
    if (sign.seenOn > today) throw invalid({ seenOn: 'This day is still to come.' })
    if (sign.by < sign.seenOn) throw invalid({ by: 'It cannot be seen to before it was seen.' })
    if (sign.by > addDays(today, furthest))
      throw invalid({ by: 'Within a year: what can wait longer is no sign.' })
    const place = await placeOf(sign)
    const row: SignRow = {
      ...sign,
      machineId: place.machineId,
      status: 'open',
      outcome: '',
      settledWords: '',
      settledAt: null,
      settledById: null,
      settledSheetId: null,
      recordedAt: now(),
      recordedById: actor.id,
      version: 1,
    }
    await signs.insert(row)
    await recordChange(actor, {
      entity: 'sign',
      entityId: row.id,
      entityVersion: 1,
      machineId: row.machineId,
      assemblyId: row.assemblyId,
      action: 'reported',
      summary: `${seenWords(row)}${place.service ? `; brings forward: ${place.service}` : ''}, to be seen to by ${showDay(row.by, today)}`,
    })
  })
}

/** Where a sign belongs, and the service it brings forward in words. @throws `invalid`, `notFound` */
async function placeOf(sign: SignInput): Promise<{ machineId: string | null; service: string }> {
  if (sign.assemblyId === null) {
    const machine = sign.machineId ? await machines.byId(sign.machineId) : null
    if (!machine) throw notFound('This machine')
    if (sign.task) throw invalid({ task: 'Choose the pump that this service is done on.' })
    return { machineId: machine.id, service: '' }
  }
  const pump = await assemblies.byId(sign.assemblyId)
  if (!pump) throw notFound('This pump')
  const [place] = await fittings.all({ assemblyId: pump.id, status: 'active' }, [['at', 'DESC']], 1)
  if (!sign.task) return { machineId: place?.machineId ?? null, service: '' }
  const version = pump.modelVersionId ? await pumpModelVersions.byId(pump.modelVersionId) : null
  const task = version?.data.tasks.find((each) => each.key === sign.task)
  if (!version || !task) throw invalid({ task: `${pump.number} has no such service.` })
  const known = positionsOf(version.data, task)
  const unknown = sign.positions.find((position) => !known.includes(position))
  if (unknown) throw invalid({ positions: `“${task.name}” has no position “${unknown}”.` })
  const where = whereWords(version.data, sign.positions.length > 0 ? sign.positions : known)
  return { machineId: place?.machineId ?? null, service: [task.name, where].filter(Boolean).join(', ') }
}

/** Ends a sign with what came of it; what it brought forward goes back to its own limits. */
export async function settleSign(
  actor: Actor,
  input: SettleSignInput,
  sheetId: string | null = null,
): Promise<void> {
  requirePermission(actor, 'signs.report')
  const { id, version, outcome, words } = check(settleSignSchema, input)
  await write(async () => {
    const what = { entity: 'sign', name: 'this sign' }
    const row = await requireFresh(signs, what, { id, version })
    if (row.status !== 'open') throw conflict('This sign was settled meanwhile.')
    await editRow(
      actor,
      signs,
      what,
      { id, version },
      {
        status: 'settled',
        outcome,
        settledWords: words,
        settledAt: now(),
        settledById: actor.id,
        settledSheetId: sheetId,
      },
      {
        machineId: row.machineId,
        assemblyId: row.assemblyId,
        action: 'settled',
        summary: `Settled: ${symptoms[row.symptom].name.toLowerCase()}. ${signOutcomes[outcome]}: ${words}`,
      },
    )
  })
}

/** Opens a settled sign again: it was not mended after all. */
export async function reopenSign(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'signs.report')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const what = { entity: 'sign', name: 'this sign' }
    const row = await requireFresh(signs, what, input)
    if (row.status === 'open') return
    await editRow(
      actor,
      signs,
      what,
      input,
      {
        status: 'open',
        outcome: '',
        settledWords: '',
        settledAt: null,
        settledById: null,
        settledSheetId: null,
      },
      {
        machineId: row.machineId,
        assemblyId: row.assemblyId,
        action: 'reopened',
        summary: `Opened again: ${seenWords(row)}`,
      },
    )
  })
}

/**
 * Settles the signs whose service a signed sheet has done on every position they named. Called inside
 * the signing's own transaction.
 */
export async function settleBySheet(
  actor: Actor,
  sheet: { id: string; number: number; workedAt: string },
  done: { assemblyId: string; task: string; positions: string[] }[],
): Promise<void> {
  const open = await signs.all({ status: 'open', assemblyId: done.map((each) => each.assemblyId) })
  const { timeZone } = await ourCompany()
  for (const row of open) {
    if (row.task === '' || row.seenOn > dayOf(sheet.workedAt, timeZone)) continue
    const own = done.filter((each) => each.assemblyId === row.assemblyId && each.task === row.task)
    const positions = own.flatMap((each) => each.positions)
    const wanted = row.positions.length > 0 ? row.positions : await everyPosition(row)
    if (wanted.length === 0 || !wanted.every((position) => positions.includes(position))) continue
    await settleSign(
      actor,
      {
        id: row.id,
        version: row.version,
        outcome: 'mended',
        words: `Done on sheet ${visitNumber(sheet.number)}`,
      },
      sheet.id,
    )
  }
}

/**
 * Opens the signs again that a sheet had settled by a service on a position where it was not done after
 * all. Called inside the correction's own transaction.
 */
export async function reopenBySheet(
  actor: Actor,
  sheetId: string,
  undone: { assemblyId: string; position: string },
): Promise<void> {
  const settled = await signs.all({
    settledSheetId: sheetId,
    assemblyId: undone.assemblyId,
    status: 'settled',
  })
  for (const row of settled) {
    const wanted = row.positions.length > 0 ? row.positions : await everyPosition(row)
    if (wanted.includes(undone.position)) await reopenSign(actor, { id: row.id, version: row.version })
  }
}

async function everyPosition(row: SignRow): Promise<string[]> {
  const pump = row.assemblyId ? await assemblies.byId(row.assemblyId) : null
  const version = pump?.modelVersionId ? await pumpModelVersions.byId(pump.modelVersionId) : null
  const task = version?.data.tasks.find((each) => each.key === row.task)
  return version && task ? positionsOf(version.data, task) : []
}

async function asViews(rows: SignRow[]): Promise<SignView[]> {
  if (rows.length === 0) return []
  const ids = (key: 'assemblyId' | 'sheetId') => [
    ...new Set(rows.map((row) => row[key]).filter((id) => id !== null)),
  ]
  const [machineRows, stays, pumps, sheetRows, dutyRows, names, company] = await Promise.all([
    machines.every(),
    fittings.all({ assemblyId: ids('assemblyId'), status: 'active' }, [['at', 'ASC']]),
    assemblies.all({ id: ids('assemblyId') }),
    sheets.all({ id: ids('sheetId') }),
    duties.all({ assemblyId: ids('assemblyId'), status: 'active' }),
    people.every(),
    ourCompany(),
  ])
  const versions = await pumpModelVersions.all({ id: versionIds(pumps) })
  const dutiesOf = groupBy(dutyRows, (duty) => duty.assemblyId)
  const nameOf = (id: string | null) => names.find((person) => person.id === id)?.name ?? ''
  return rows.map((row): SignView => {
    // While it is open it stands where its pump is now; after that, where it was seen.
    const place = stays.findLast((stay) => stay.assemblyId === row.assemblyId)
    const machineId = place && row.status === 'open' ? place.machineId : row.machineId
    const machine = machineRows.find((each) => each.id === machineId)
    const pump = pumps.find((each) => each.id === row.assemblyId)
    const model = versions.find((version) => version.id === pump?.modelVersionId)?.data ?? null
    const task = model?.tasks.find((each) => each.key === row.task)
    const sheet = sheetRows.find((each) => each.id === row.sheetId)
    const where =
      model && task
        ? whereWords(model, row.positions.length > 0 ? row.positions : positionsOf(model, task))
        : ''
    return {
      id: row.id,
      version: row.version,
      machineId,
      machineNumber: machine?.number ?? null,
      machineName: machine?.name ?? null,
      yardId: machine?.yardId ?? place?.yardId ?? null,
      assemblyId: row.assemblyId,
      pump: pump?.number ?? null,
      symptom: row.symptom,
      name: symptoms[row.symptom].name,
      seenOn: row.seenOn,
      words: row.words,
      figures: figuresOf(row),
      task: row.task,
      service: task ? [task.name, where].filter(Boolean).join(', ') : '',
      positions: row.positions,
      by: row.by,
      reportedBy: nameOf(row.recordedById),
      sheet: sheet ? { id: sheet.id, number: visitNumber(sheet.number) } : null,
      triage: firstChecks(
        row,
        model,
        (dutiesOf.get(row.assemblyId ?? '') ?? []).map((duty) => duty.key),
      ),
      settled:
        row.status === 'settled' && row.outcome !== ''
          ? {
              outcome: row.outcome,
              words: row.settledWords,
              by: nameOf(row.settledById),
              day: dayOf(row.settledAt!, company.timeZone),
            }
          : null,
    }
  })
}

const versionIds = (pumps: AssemblyRow[]) =>
  pumps.map((pump) => pump.modelVersionId).filter((id) => id !== null)
