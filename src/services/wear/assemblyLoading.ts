import 'server-only'
import { titleOf } from '@/core/models'
import type { AssemblyView, Stay } from '@/core/fleet'
import {
  assemblyUsage,
  countedStretches,
  cumulativeHours,
  usageSinceTakeOver,
  type CountedStretch,
  type CumulativeLine,
} from '@/core/hours'
import { derived, type RowOf } from '@/db/house'
import {
  assemblies,
  dutyShares,
  fittings,
  machines,
  yards,
  type AssemblyRow,
  type DutyShareRow,
  type FittingRow,
} from '@/db/fleet'
import { meters } from '@/db/hours'
import { pumpModels } from '@/db/models'
import { now, ourCompany, present, dayOf } from '../house'
import { linesOf } from '../hours'

/** The pumps on each machine now, without working out their hours. */
export async function pumpsByMachine(): Promise<
  Map<string, { number: string; title: string; serial: string }[]>
> {
  const [rows, fittingRows, modelRows] = await Promise.all([
    assemblies.all({ kind: 'pump', retiredOn: null }, [['number', 'ASC']]),
    fittings.all({ status: 'active' }, [['at', 'ASC']]),
    pumpModels.every(),
  ])
  const newest = new Map(fittingRows.map((fitting) => [fitting.assemblyId, fitting]))
  const titles = new Map(modelRows.map((model) => [model.id, `${model.maker} ${model.name}`]))
  const byMachine = new Map<string, { number: string; title: string; serial: string }[]>()
  for (const { id, number, name, modelId, serial } of rows) {
    const machineId = newest.get(id)?.machineId
    if (!machineId) continue
    const title = (modelId && titles.get(modelId)) || name
    byMachine.set(machineId, [...(byMachine.get(machineId) ?? []), { number, title, serial }])
  }
  return byMachine
}

export type Stretch = CountedStretch & { meterId: string; line: CumulativeLine }
type Counted = { moves: FittingRow[]; shares: DutyShareRow[]; stretches: Stretch[] }

/**
 * Where each assembly was when, and what counted it. All of them when none are named. Each one's is the
 * same object until one of its rows or lines is another one.
 */
export async function loadCounting(ids?: string[]) {
  const which = ids ?? (await assemblies.every()).map((row) => row.id)
  const [fittingsOf, sharesOf] = await Promise.all([fittings.everyOf(which), dutyShares.everyOf(which)])
  const meterIds = new Set<string>()
  for (const shares of sharesOf.values()) for (const share of shares) meterIds.add(share.meterId)
  const lines = await linesOf([...meterIds])
  const of = (assemblyId: string): Counted => {
    const fitted = fittingsOf.get(assemblyId) ?? none
    const shared = sharesOf.get(assemblyId) ?? none
    const counting = shared.map((share) => lines.get(share.meterId) ?? emptyLine())
    return derived(`counting ${assemblyId}`, [fitted, shared, ...counting], () => {
      const moves = standing(fitted)
      const shares = standing(shared)
      const stretches = countedStretches(moves, shares).map((stretch) => ({
        line: lines.get(stretch.meterId) ?? emptyLine(),
        ...stretch,
      }))
      return { moves, shares, stretches }
    })
  }
  return { lines, of }
}

const none: never[] = []

/** The rows that hold, in order of time. */
function standing<Row extends { status: string; at: string }>(rows: Row[]): Row[] {
  return rows
    .filter((row) => row.status === 'active')
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
}

/** Assemblies with every stay of each, oldest first. All of them when none are named. */
export async function loadAssemblies(ids?: string[]): Promise<(AssemblyView & { stays: Stay[] })[]> {
  const [rows, ...tables] = await Promise.all([
    ids ? assemblies.all({ id: ids }, [['number', 'ASC']]) : assemblies.every(),
    machines.every(),
    yards.every(),
    pumpModels.every(),
    meters.every(),
    ourCompany(),
  ])
  const counting = await loadCounting(ids)
  const { today } = present(tables[4])
  const viewOf = views(tables, now())
  // Of the whole fleet each is kept; those that are named come as fresh rows, which would push it out.
  if (ids) return rows.map((row) => viewOf(row, counting.of(row.id)))
  return [...rows]
    .sort((a, b) => (a.number < b.number ? -1 : 1))
    .map((row) => {
      const counted = counting.of(row.id)
      return derived(`assembly ${row.id}`, [row, counted, ...tables, today], () => viewOf(row, counted))
    })
}

type Tables = [
  machines: Known<typeof machines>,
  yards: Known<typeof yards>,
  models: Known<typeof pumpModels>,
  meters: Known<typeof meters>,
  company: { timeZone: string },
]
type Known<Of> = RowOf<Of>[]

function views([machineRows, yardRows, modelRows, meterRows, { timeZone }]: Tables, instant: string) {
  const find = <T extends { id: string }>(list: T[]) => new Map(list.map((item) => [item.id, item]))
  const known = {
    machines: find(machineRows),
    yards: find(yardRows),
    models: find(modelRows),
    meters: find(meterRows),
  }
  const dayAt = (at: string) => dayOf(at, timeZone)

  return (row: AssemblyRow, { moves, shares, stretches }: Counted): AssemblyView & { stays: Stay[] } => {
    const stays = moves.map((move, index): Stay => {
      const until = moves[index + 1]?.at ?? null
      const machine = move.machineId ? known.machines.get(move.machineId) : undefined
      const counted = stretches.filter(
        (stretch) => stretch.from >= move.at && (until === null || stretch.from < until),
      )
      return {
        id: move.id,
        at: move.at,
        day: dayAt(move.at),
        until,
        untilDay: until && dayAt(until),
        machineId: move.machineId,
        machineNumber: machine?.number ?? null,
        machineName: machine?.name ?? null,
        yardName: (move.yardId && known.yards.get(move.yardId)?.name) || null,
        slot: move.slot,
        reason: move.reason,
        used: usageSinceTakeOver(counted, instant),
      }
    })
    const place = stays.at(-1)
    if (!place) throw new Error(`Assembly ${row.number} has no place.`)
    const share = place.machineId ? shares.at(-1) : undefined
    const meter = share && known.meters.get(share.meterId)
    const model = row.modelId ? known.models.get(row.modelId) : undefined
    const { createdAt: _createdAt, ...values } = row
    return {
      takenOverOn: dayAt(row.takenOverAt),
      title: model ? [row.name, titleOf(model)].filter(Boolean).join(', ') : row.name,
      place,
      stays,
      usage: assemblyUsage({ kind: row.openingKind, usage: row.openingUsage }, stretches, instant),
      usedSinceTakeOver: usageSinceTakeOver(stretches, instant),
      countedBy:
        share && meter
          ? { meterId: meter.id, meterName: meter.name, share: share.share, basis: share.basis }
          : null,
      ...values,
    }
  }
}

const emptyLine = (): CumulativeLine => derived('empty line', [], () => cumulativeHours([], []))
