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
import { derived } from '@/db/house'
import {
  assemblies,
  dutyShares,
  fittings,
  machines,
  yards,
  type DutyShareRow,
  type FittingRow,
} from '@/db/fleet'
import { meters } from '@/db/hours'
import { pumpModels } from '@/db/models'
import { now, ourCompany, dayOf } from '../house'
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
        ...stretch,
        line: lines.get(stretch.meterId) ?? emptyLine(),
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
  const [rows, machineRows, yardRows, modelRows, meterRows, counting, { timeZone }] = await Promise.all([
    assemblies.all(ids ? { id: ids } : {}, [['number', 'ASC']]),
    machines.every(),
    yards.every(),
    pumpModels.every(),
    meters.every(),
    loadCounting(ids),
    ourCompany(),
  ])
  const find = <T extends { id: string }>(list: T[]) => new Map(list.map((item) => [item.id, item]))
  const known = {
    machines: find(machineRows),
    yards: find(yardRows),
    models: find(modelRows),
    meters: find(meterRows),
  }
  const instant = now()
  const dayAt = (at: string) => dayOf(at, timeZone)

  return rows.map((row) => {
    const { moves, shares, stretches } = counting.of(row.id)
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
      ...values,
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
    }
  })
}

const emptyLine = (): CumulativeLine => derived('empty line', [], () => cumulativeHours([], []))
