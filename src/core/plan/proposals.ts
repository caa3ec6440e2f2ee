import { addDays, daysBetween, showDay, type Day } from '../calendar'
import { showMoney } from '../units'
import { isPinned, serviceId, type Fleet, type FleetService, type FleetVisit } from './fleet'
import { fleetProblem, frostBy, givenUp } from './fleetProblem'
import { reserving } from './goingOn'
import { visitWork, type PlannedVisit, type PlanProblem } from './planner'
import type { TakeInput } from './taking'
import { showMinutes, visitNumber } from './visits'

export const proposalKinds = {
  new: 'New visit',
  moved: 'Moved',
  merged: 'Merged',
  changed: 'More on it',
  dropped: 'Dropped',
} as const

/** One change to today's plan, to be taken or left. */
export type Proposal = {
  key: string
  kind: keyof typeof proposalKinds
  machineId: string
  machine: string
  day: Day
  leadId: string
  lead: string
  /** Who helps, by the plan. */
  helpers: { id: string; name: string }[]
  minutes: number
  /** It makes the machine safe for winter besides, which nobody has booked yet. */
  winter: '' | 'lay'
  /** The booked visit that it becomes; null for a new one. */
  visit: { id: string; version: number; number: number; day: Day; leadId: string } | null
  /** Booked visits that go into it and are cancelled. */
  instead: { id: string; version: number; number: number }[]
  services: {
    assemblyId: string
    task: string
    positions: string[]
    name: string
    where: string
    pump: string
  }[]
  /** What its work has to mind, as its machine stands; blank for nothing. */
  minds: string
  /** Why, in words and figures. */
  reasons: string[]
}

/**
 * The fleet as it is asked for proposals: nothing is put on a visit that may not be changed, since the act that takes
 * the proposals would be refused as a whole.
 */
export function problemToPropose(fleet: Fleet): PlanProblem {
  const problem = reserving(fleet, fleetProblem(fleet))
  const shut = fleet.visits.filter(
    ({ state, hasSheet, isWhole, winter, movesWithFrost }) =>
      state !== 'booked' || hasSheet || !isWhole || (winter !== '' && !movesWithFrost),
  )
  return {
    ...problem,
    machines: problem.machines.map((machine) => ({
      ...machine,
      blockedDays: [
        ...machine.blockedDays,
        ...shut
          .filter(({ machineId }) => machineId === machine.id)
          .map(({ day }) => daysBetween(fleet.today, day))
          .filter((day) => day >= 0 && day < problem.horizonDays),
      ],
    })),
  }
}

/**
 * What a plan changes against the visits that are booked, each with its reason. Repeats to come are left for when
 * they are due.
 */
export function proposalsOf(
  fleet: Fleet,
  problem: PlanProblem,
  planned: readonly PlannedVisit[],
  currency: string,
): Proposal[] {
  const serviceOf = new Map(fleet.services.map((service) => [serviceId(service), service]))
  const visitOf = new Map(fleet.visits.map((visit) => [visit.id, visit]))
  const used = new Set<string>()
  const proposals: Proposal[] = []
  for (const each of planned) {
    const services = each.tasks.flatMap((id) => serviceOf.get(id) ?? [])
    const winterNew = each.tasks.includes(`winter new ${each.machine}`)
    const winterVisit = fleet.visits.find(
      ({ id, movesWithFrost }) => movesWithFrost && each.tasks.includes(`winter ${id}`),
    )
    if (services.length === 0 && !winterNew && !winterVisit) continue
    const day = addDays(fleet.today, each.day)
    const from = sourcesOf(services, visitOf, day)
    const there = fleet.visits.find(({ machineId, day: on }) => machineId === each.machine && on === day)
    const base =
      winterVisit ??
      (there && !used.has(there.id) ? there : undefined) ??
      from.find(({ id }) => !used.has(id))
    const pinned = base !== undefined && isPinned(base, fleet)
    if (base) used.add(base.id)
    const more = services.filter(({ visitId }) => visitId !== base?.id)
    // A visit of winter that lends its services still makes its machine safe.
    const instead = from.filter((visit) => visit !== base && visit.winter === '' && !isPinned(visit, fleet))
    const isSame = base !== undefined && base.day === day && (pinned || base.leadId === each.crew)
    if (isSame && more.length === 0 && !winterNew) continue
    const own = fleet.machines.find(({ id }) => id === each.machine)
    proposals.push({
      key: `${each.machine} ${day}`,
      kind: !base ? 'new' : instead.length > 0 ? 'merged' : isSame ? 'changed' : 'moved',
      machineId: each.machine,
      machine: own ? `${own.number} ${own.name}` : each.machine,
      day,
      leadId: each.crew,
      lead: nameOf(fleet, each.crew),
      helpers: each.helpers.map((id) => ({ id, name: nameOf(fleet, id) })),
      minutes: each.minutes,
      winter: winterNew ? 'lay' : '',
      visit: base
        ? { id: base.id, version: base.version, number: base.number, day: base.day, leadId: base.leadId }
        : null,
      instead: instead.map(({ id, version, number }) => ({ id, version, number })),
      services: services.map(({ assemblyId, task, positions, name, where, pump }) => ({
        ...{ assemblyId, task, positions, name, where, pump },
      })),
      minds: services.length > 0 ? (own?.held ?? '') : '',
      reasons: reasonsOf(fleet, problem, each, services, base, instead, currency),
    })
  }
  // A visit that lends its services to one proposal only goes with that one.
  const gone = new Set(proposals.flatMap(({ instead }) => instead.map(({ id }) => id)))
  return proposals.map((proposal) => ({
    ...proposal,
    instead: proposal.instead.filter(({ id }) => gone.delete(id) && !used.has(id)),
  }))
}

const nameOf = ({ crew }: Fleet, id: string) => crew.find((member) => member.id === id)?.name ?? ''

/** The booked visits that services come from: the one of that day first, then the one that gives most. */
function sourcesOf(services: FleetService[], visitOf: Map<string, FleetVisit>, day: Day): FleetVisit[] {
  const counts = new Map<FleetVisit, number>()
  for (const { visitId } of services) {
    const visit = visitId === null ? undefined : visitOf.get(visitId)
    if (visit) counts.set(visit, (counts.get(visit) ?? 0) + 1)
  }
  return [...counts.keys()].sort(
    (a, b) => Number(b.day === day) - Number(a.day === day) || counts.get(b)! - counts.get(a)!,
  )
}

function reasonsOf(
  fleet: Fleet,
  problem: PlanProblem,
  planned: PlannedVisit,
  services: FleetService[],
  base: FleetVisit | undefined,
  instead: FleetVisit[],
  currency: string,
): string[] {
  const { today, terms, crew } = fleet
  const reasons: string[] = []
  const machine = problem.machines.find(({ id }) => id === planned.machine)!
  const tasks = services.flatMap((service) => problem.tasks.find(({ id }) => id === serviceId(service)) ?? [])
  const alone = tasks.reduce((sum, task) => sum + visitWork(machine, [task]).minutes, 0)
  const together = visitWork(machine, tasks).minutes
  if (tasks.length > 1)
    reasons.push(
      `Together ${showMinutes(together)}, one by one ${showMinutes(alone)}: saves ${showMinutes(alone - together)}.`,
    )
  for (const service of services) {
    const early = daysBetween(addDays(today, planned.day), service.due)
    const what = service.where ? `${service.name}, ${service.where}` : service.name
    if (early > 1) {
      const share = Math.round((100 * early) / Math.max(1, service.lifeDays))
      const cents = Math.round(givenUp(service, early, terms))
      reasons.push(
        `${what}: ${early} days early, gives up ${share < 1 ? 'under 1' : share} % of its life, ${showMoney(cents, currency)}.`,
      )
    } else if (early < -1)
      reasons.push(
        service.isOver
          ? `${what}: ${-early} days past its due day already.`
          : `${what}: ${-early} days after its due day.`,
      )
  }
  if (base && base.day !== addDays(today, planned.day))
    reasons.push(`Visit ${visitNumber(base.number)} was for ${showDay(base.day, today)}.`)
  if (base && base.leadId !== planned.crew)
    reasons.push(`${crew.find(({ id }) => id === base.leadId)?.name ?? 'Its technician'} would have done it.`)
  const winter = fleet.winters.find(
    ({ machineId, visitId }) =>
      machineId === planned.machine &&
      planned.tasks.includes(visitId === null ? `winter new ${machineId}` : `winter ${visitId}`),
  )
  if (winter) {
    const chance = (day: number) => `${(100 * frostBy(fleet, winter.frost, day)).toFixed(1)} %`
    reasons.push(
      `Made safe for winter: frost has come before with ${chance(planned.day)}, a week later with ${chance(planned.day + 7)}.`,
    )
  }
  for (const visit of instead)
    reasons.push(`Visit ${visitNumber(visit.number)} of ${showDay(visit.day, today)} goes into it.`)
  return reasons
}

/**
 * Chosen proposals as one act to send. A visit keeps what nobody chosen takes from it; one that is left with nothing is
 * cancelled.
 */
export function takeOf(id: string, chosen: readonly Proposal[], fleet: Fleet): TakeInput {
  const asItem = ({
    assemblyId,
    task,
    positions,
  }: Pick<FleetService, 'assemblyId' | 'task' | 'positions'>) => ({
    ...{ assemblyId, task, positions },
  })
  const taken = new Set(chosen.flatMap(({ services }) => services.map(serviceId)))
  const staysOn = (visitId: string) =>
    fleet.services.filter((service) => service.visitId === visitId && !taken.has(serviceId(service)))
  const becomes = new Set(chosen.flatMap(({ visit }) => visit?.id ?? []))
  const losing = fleet.visits.filter(
    (visit) =>
      !becomes.has(visit.id) &&
      fleet.services.some((service) => service.visitId === visit.id && taken.has(serviceId(service))),
  )
  return {
    id,
    visits: [
      ...chosen.map(({ visit, day, leadId, helpers, services, winter, machineId }) => ({
        visitId: visit?.id ?? null,
        version: visit?.version ?? null,
        ...{ day, leadId, helpers: helpers.map(({ id }) => id) },
        ...(winter === 'lay' && { winter, machineId }),
        items: [...services.map(asItem), ...(visit ? staysOn(visit.id).map(asItem) : [])],
      })),
      ...losing.flatMap((visit) => {
        const items = staysOn(visit.id).map(asItem)
        const { id: visitId, version, day, leadId } = visit
        return items.length === 0 && visit.winter === '' ? [] : [{ visitId, version, day, leadId, items }]
      }),
    ],
    cancel: losing
      .filter((visit) => visit.winter === '' && staysOn(visit.id).length === 0)
      .map(({ id: visitId, version }) => ({ id: visitId, version })),
    restore: [],
  }
}
