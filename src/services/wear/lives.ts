import 'server-only'
import { daysBetween } from '@/core/calendar'
import { usageSinceTakeOver } from '@/core/hours'
import { visitNumber } from '@/core/plan'
import { notFound, check } from '@/core/problem'
import { instancesOf, positionName, splitInstance, type PumpModel } from '@/core/models'
import { endReasons, positionSchema, type LifeLine, type PositionLives } from '@/core/wear'
import { assemblies } from '@/db/fleet'
import { lives, type LifeRow } from '@/db/wear'
import { people } from '@/db/access'
import { pumpModelVersions } from '@/db/models'
import { sheets } from '@/db/sheets'
import { Op } from '@/db/house'
import { parts, stockLots } from '@/db/stores'
import { type Actor, now, ourCompany, present, dayOf } from '../house'
import { loadCounting } from './assemblyLoading'

/** Every part that ever sat at one position since records of it begin, newest first. */
export async function livesAt(
  _actor: Actor,
  input: { assemblyId: string; position: string },
): Promise<PositionLives> {
  const { assemblyId, position } = check(positionSchema, input)
  const row = await assemblies.byId(assemblyId)
  const version = row?.modelVersionId ? await pumpModelVersions.byId(row.modelVersionId) : null
  if (!row || !version) throw notFound('This position')
  const own = await lives.all({ assemblyId, position, status: 'active' }, [['startedAt', 'DESC']])
  const sheetIds = own.flatMap(({ sheetId, endSheetId }) => [sheetId, endSheetId]).filter((id) => id !== null)
  const lotIds = own.map(({ lotId }) => lotId).filter((id) => id !== null)
  const linked = await lives.all({
    [Op.or]: [
      { id: own.map((life) => life.continuesLifeId).filter((id) => id !== null) },
      { continuesLifeId: own.map((life) => life.id), status: 'active' },
    ],
  } as never)
  const [counting, sheetRows, lotRows, names, company] = await Promise.all([
    loadCounting([assemblyId]),
    sheets.all({ id: sheetIds }),
    stockLots.all({ id: lotIds }),
    people.every(),
    ourCompany(),
  ])
  const partRows = await parts.all({ id: lotRows.map((lot) => lot.partId) })
  const { stretches } = counting.of(assemblyId)
  const { today } = present(company)
  const usage = (at: string) => usageSinceTakeOver(stretches, at)
  const sheetOf = (id: string | null) => {
    const sheet = sheetRows.find((each) => each.id === id)
    return sheet ? { id: sheet.id, number: visitNumber(sheet.number) } : null
  }
  const nameOf = (life: LifeRow | undefined) => (life ? positionName(version.data, life.position) : null)
  return {
    name: positionName(version.data, position),
    unit: row.usageScale,
    others: sameKind(version.data, position).map((key) => ({ key, name: positionName(version.data, key) })),
    lives: own.map((life): LifeLine => {
      const from = dayOf(life.carriedFrom ?? life.startedAt, company.timeZone)
      const to = life.endedAt === null ? null : dayOf(life.endedAt, company.timeZone)
      const lot = lotRows.find((each) => each.id === life.lotId)
      const part = lot && partRows.find((each) => each.id === lot.partId)
      return {
        id: life.id,
        from,
        to,
        hours: usage(life.endedAt ?? now()) - usage(life.startedAt) + life.carriedUsage,
        days: daysBetween(from, to ?? today),
        assumed: life.assumed === 1,
        first: life.first === 1,
        endReason: endWords(life, nameOf(linked.find((each) => each.continuesLifeId === life.id))),
        cameFrom: nameOf(linked.find((each) => each.id === life.continuesLifeId)),
        wentTo:
          life.endReason === 'moved' ? nameOf(linked.find((each) => each.continuesLifeId === life.id)) : null,
        failed: life.endReason === 'failed',
        seenFailingOn: life.seenFailingOn,
        sheet: sheetOf(life.sheetId),
        endSheet: sheetOf(life.endSheetId),
        lot: lot ? [part?.number, `lot ${lot.number}`, lot.code].filter(Boolean).join(', ') : '',
        note: life.note,
        by: names.find((person) => person.id === life.recordedById)?.name ?? '',
      }
    }),
  }
}

function endWords(life: LifeRow, wentTo: string | null): string | null {
  if (life.endReason === '') return null
  if (life.endReason === 'moved') return `Moved to ${wentTo?.toLowerCase() ?? 'another bore'}`
  return endReasons[life.endReason]
}

/** Other bores that hold the same part. */
function sameKind(model: PumpModel, position: string): string[] {
  const own = model.positions.find((each) => each.key === splitInstance(position).key)
  if (!own) return []
  return model.positions
    .filter((each) => each.key === own.key || (own.part !== null && each.part === own.part))
    .flatMap((each) => instancesOf(model, each))
    .filter((key) => key !== position)
}
