import 'server-only'
import { addDays, daysBetween } from '@/core/calendar'
import { notOnVisit, type FleetService, type VisitLine } from '@/core/plan'
import { stockedFor } from '@/core/stores'
import type { ClockView, WearView } from '@/core/wear'
import { derived } from '@/db/house'
import { pumpModelVersions, type PumpModelVersionRow } from '@/db/models'
import { parts } from '@/db/stores'
import { composedServiceOf, unitFacts } from '../composing'
import { companyPractices } from '../practices'
import { loadBook } from '../stores'

/** A service of some positions, with what planning counts of it; null where it has no day in sight. */
export type ServiceReader = {
  /** All that the figures rest on besides the clocks: another one of these, and they are others. */
  basis: unknown[]
  /** Every service of a pump: what is on a visit, visit by visit, and what is left. */
  all: (view: WearView, machineId: string, visits: VisitLine[], today: string) => FleetService[]
  /** Only what is on a visit. */
  booked: (view: WearView, machineId: string, visits: VisitLine[], today: string) => FleetService[]
  /** What is on no visit of one service; null where nothing is left. */
  left: (
    view: WearView,
    clock: ClockView,
    machineId: string,
    visits: VisitLine[],
    today: string,
  ) => FleetService | null
  /** One service, on just these positions. */
  one: (
    view: WearView,
    clock: ClockView,
    machineId: string,
    positions: string[],
    today: string,
  ) => FleetService | null
}

/** Reads services as planning counts them; of a pump about which nothing is new the answer is kept. */
export async function readServices(): Promise<ServiceReader> {
  const [versions, practices, facts, book, partRows] = await Promise.all([
    pumpModelVersions.every(),
    companyPractices(),
    unitFacts(),
    loadBook(),
    parts.every(),
  ])
  const versionOf = derived(
    'versions by id',
    [versions],
    () => new Map(versions.map((version) => [version.id, version])),
  )
  const cents = new Map(partRows.map(({ id, priceCents }) => [id, priceCents]))
  // What a piece costs follows from the parts alone, not from what lies in the bins.
  const prices = derived(
    'prices of positions',
    [partRows],
    () => new Map<string, { id: string; cents: number } | null>(),
  )
  const stockedAs = (modelId: string, part: string) => {
    const key = `${modelId} ${part}`
    const before = prices.get(key)
    if (before !== undefined) return before
    const stocked = stockedFor(book.parts.values(), { modelId, part })
    const found = stocked ? { id: stocked.id, cents: cents.get(stocked.id) ?? 0 } : null
    prices.set(key, found)
    return found
  }
  const serviceOf = (
    view: WearView,
    version: PumpModelVersionRow,
    clock: ClockView,
    machineId: string,
    positions: string[],
    visitId: string | null,
    today: string,
  ): FleetService => {
    const own = facts.get(view.assemblyId)
    const { parts: needs, shape } = composedServiceOf(version, clock.task, positions, practices, own)
    return {
      assemblyId: view.assemblyId,
      pump: view.number,
      task: clock.task,
      name: clock.name,
      where:
        positions.length === clock.positions.length
          ? clock.where
          : positions.map((position) => view.positionNames[position] ?? position).join('; '),
      positions,
      machineId,
      due: clock.aboutDay!,
      band: clock.band,
      window: clock.window,
      isOver: clock.state === 'over' || clock.state === 'overdue',
      lifeDays: Math.max(1, daysBetween(clock.since.day, clock.aboutDay!)),
      parts: needs.flatMap((need) => {
        const stocked = stockedAs(version.modelId, need.part)
        return stocked ? [{ part: stocked.id, quantity: need.quantity }] : []
      }),
      comesAgain: clock.kind !== 'adjust',
      partsCents: Math.round(
        needs.reduce(
          (sum, need) => sum + (stockedAs(version.modelId, need.part)?.cents ?? 0) * need.quantity,
          0,
        ),
      ),
      partsFrom:
        clock.leadTime.days > 0 && clock.leadTime.parts.length > 0
          ? addDays(today, clock.leadTime.days)
          : null,
      shape,
      visitId,
    }
  }
  const versionFor = (view: WearView) => (view.started ? versionOf.get(view.modelVersionId) : undefined)
  const keptFor = (
    name: string,
    view: WearView,
    machineId: string,
    visits: VisitLine[],
    today: string,
    make: (version: PumpModelVersionRow, own: VisitLine[]) => FleetService[],
  ): FleetService[] => {
    const version = versionFor(view)
    if (!version) return []
    const own = visitsOf(view.assemblyId, visits)
    const on = own.map(({ id, services }) => `${id} ${JSON.stringify(services)}`).join()
    const from = [view, machineId, version, practices, facts.get(view.assemblyId), partRows, on, today]
    return derived(`services to plan ${name} ${view.assemblyId}`, from, () => make(version, own))
  }
  const booked: ServiceReader['booked'] = (view, machineId, visits, today) => {
    if (visitsOf(view.assemblyId, visits).length === 0) return []
    return keptFor('booked', view, machineId, visits, today, (version, own) =>
      own.flatMap((visit) =>
        view.clocks
          .filter(({ aboutDay }) => aboutDay !== null)
          .flatMap((clock) => {
            const positions = visit.services
              .filter(({ assemblyId, task }) => assemblyId === view.assemblyId && task === clock.task)
              .flatMap((service) => service.positions)
              .filter((position) => clock.positions.includes(position))
            return positions.length === 0
              ? []
              : [serviceOf(view, version, clock, machineId, positions, visit.id, today)]
          }),
      ),
    )
  }
  const left: ServiceReader['left'] = (view, clock, machineId, visits, today) => {
    if (clock.aboutDay === null) return null
    const name = `${clock.task} ${clock.positions.join(' ')}`
    const [only] = keptFor(name, view, machineId, visits, today, (version, own) => {
      const positions = notOnVisit(view.assemblyId, clock, own)
      return positions.length === 0
        ? []
        : [serviceOf(view, version, clock, machineId, positions, null, today)]
    })
    return only ?? null
  }
  return {
    basis: [versions, practices, facts, partRows],
    booked,
    left,
    all: (view, machineId, visits, today) => [
      ...booked(view, machineId, visits, today),
      ...keptFor('left', view, machineId, visits, today, (version, own) =>
        view.clocks
          .filter(({ aboutDay }) => aboutDay !== null)
          .flatMap((clock) => {
            const positions = notOnVisit(view.assemblyId, clock, own)
            return positions.length === 0
              ? []
              : [serviceOf(view, version, clock, machineId, positions, null, today)]
          }),
      ),
    ],
    one: (view, clock, machineId, positions, today) => {
      const version = versionFor(view)
      return version && clock.aboutDay !== null
        ? serviceOf(view, version, clock, machineId, positions, null, today)
        : null
    },
  }
}

function visitsOf(assemblyId: string, visits: VisitLine[]): VisitLine[] {
  const all = derived('open visits by pump', [visits], () => {
    const by = new Map<string, VisitLine[]>()
    for (const visit of visits)
      for (const id of new Set(visit.services.map((service) => service.assemblyId)))
        by.set(id, [...(by.get(id) ?? []), visit])
    return by
  })
  return all.get(assemblyId) ?? []
}
