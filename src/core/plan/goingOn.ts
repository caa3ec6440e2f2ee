import { addDays, daysBetween } from '../calendar'
import { awayOf, runningOf, serviceId, type Fleet } from './fleet'
import {
  checkPlan,
  toolsOf,
  travelBoth,
  visitWork,
  type PlannedVisit,
  type PlanProblem,
  type PlanTask,
  type PlanViolation,
} from './planner'
import { minutesOn, runsOver, type Running } from './runsOver'

/** A broken rule; `runsInto` where a visit of the machine that has begun before runs over that day. */
export type FleetViolation = PlanViolation & { runsInto?: boolean }

/** A plan with what goes on after its first day as a visit a day. */
type Spread = {
  problem: PlanProblem
  visits: PlannedVisit[]
  /** By machine: later days on which it is worked on, or waits until something has cured. */
  later: Map<string, number[]>
}

/** The days over which a visit that is planned runs. */
export function runningOfPlanned(
  fleet: Fleet,
  { day, crew, tasks, minutes }: Pick<PlannedVisit, 'day' | 'crew' | 'tasks' | 'minutes'>,
  cures = curesOf(fleet),
): Running {
  const member = fleet.crew.find(({ id }) => id === crew)
  const cureMinutes = tasks.reduce((most, id) => Math.max(most, cures.get(id) ?? 0), 0)
  return runsOver({ day: addDays(fleet.today, day), minutes, cureMinutes }, (on) =>
    minutesOn(member, fleet.terms.closed, on),
  )
}

/** What cures before pressure, by service. */
const curesOf = ({ services }: Fleet) =>
  new Map(
    services.flatMap((service) =>
      service.shape.cureMinutes > 0 ? [[serviceId(service), service.shape.cureMinutes] as const] : [],
    ),
  )

/** Visits of days past that are still being worked on. */
function inHand(fleet: Fleet, { machines }: PlanProblem): { visit: PlannedVisit; running: Running }[] {
  return fleet.visits
    .filter(({ day, hasSheet, machineId }) => {
      return hasSheet && day < fleet.today && machines.some(({ id }) => id === machineId)
    })
    .map((visit) => ({
      visit: {
        ...{ machine: visit.machineId, day: daysBetween(fleet.today, visit.day), crew: visit.leadId },
        ...{ helpers: [], tasks: [], minutes: visit.minutes },
      },
      running: runningOf(fleet, visit),
    }))
}

/**
 * A plan whose visits use up all the days over which they run: each later day is a visit with a piece of work of its
 * own, which takes its technician, its bench and its special tools. A piece is as long as the day that the plan has
 * for it, where that is less than is worked.
 *
 * @param visits of the days from today on; those that are in hand since before are added
 */
export function spreadOut(fleet: Fleet, problem: PlanProblem, visits: readonly PlannedVisit[]): Spread {
  const cures = curesOf(fleet)
  const runs = [
    ...visits.map((visit) => ({ visit, running: runningOfPlanned(fleet, visit, cures) })),
    ...inHand(fleet, problem),
  ]
  const at = (day: string) => daysBetween(fleet.today, day)
  const taskOf = new Map(problem.tasks.map((task) => [task.id, task]))
  const spread: Spread = { problem, visits: [], later: new Map() }
  const bare = new Set<string>()
  const pieces: PlanTask[] = []
  for (const { visit, running } of runs) {
    const { machine, crew } = visit
    const last = at(running.days.at(-1)!.day)
    const waits = Array.from({ length: Math.max(0, at(running.backOn) - last - 1) }, (_, on) => last + 1 + on)
    const later = [...running.days.slice(1).map(({ day }) => at(day)), ...waits].filter((day) => day >= 0)
    if (later.length > 0) spread.later.set(machine, [...(spread.later.get(machine) ?? []), ...later])
    if (running.days.length === 1) {
      if (visit.day >= 0) spread.visits.push(visit)
      continue
    }
    const moreTools = [...new Set(visit.tasks.flatMap((id) => toolsOf(taskOf.get(id) ?? {})))]
    for (const id of visit.tasks) bare.add(id)
    for (const [index, { day: on, minutes: worked }] of running.days.entries()) {
      const day = at(on)
      if (day < 0 || day >= problem.horizonDays) continue
      // Two visits of one machine may begin on one day.
      const id = `goes on ${pieces.length}`
      const minutes = Math.min(worked, roomOf(problem, crew, machine, day))
      pieces.push({
        ...{ id, machine, access: [], minutes, moreTools, earliest: day, due: day, latest: day },
        ...{ earlyCostPerDay: 0, lateCostPerDay: 0 },
      })
      const isFirst = index === 0
      spread.visits.push({
        ...{ machine, day, crew, minutes },
        helpers: isFirst ? visit.helpers : [],
        tasks: isFirst ? [...visit.tasks, id] : [id],
      })
    }
  }
  if (pieces.length > 0)
    spread.problem = {
      ...problem,
      // The work itself is in the pieces.
      tasks: [
        ...problem.tasks.map((task) => (bare.has(task.id) ? { ...task, access: [], minutes: 0 } : task)),
        ...pieces,
      ],
    }
  return spread
}

/** Minutes that the plan has of a member on a day, the way there and back taken off. */
function roomOf(problem: PlanProblem, crew: string, machineId: string, day: number): number {
  const member = problem.crew.find(({ id }) => id === crew)
  const yard = problem.machines.find(({ id }) => id === machineId)?.yard
  return Math.max(0, (member?.minutesByDay[day] ?? 0) - travelBoth(problem.travelMinutes, member?.yard, yard))
}

/** Which rules a plan of the fleet breaks, its visits on all the days over which they run. */
export function checkFleet(
  fleet: Fleet,
  problem: PlanProblem,
  visits: readonly PlannedVisit[],
): FleetViolation[] {
  const spread = spreadOut(fleet, problem, visits)
  const key = (machine: string, day: number) => `${machine} ${day}`
  const later = new Set([...spread.later].flatMap(([machine, days]) => days.map((day) => key(machine, day))))
  const found = checkPlan(spread.problem, spread.visits).map((each): FleetViolation => {
    const { rule, task, machine, day } = each
    const isTwo = rule === 'once' && task === undefined && machine !== undefined && day !== undefined
    return isTwo && later.has(key(machine, day)) ? { ...each, runsInto: true } : each
  })
  const returns = returnsOf(fleet, visits)
  const told = new Set(found.flatMap(({ runsInto, machine, day }) => (runsInto ? [key(machine!, day!)] : [])))
  // While something cures nobody is there, and no other visit either.
  for (const { machine, day } of visits)
    if (later.has(key(machine, day)) && !told.has(key(machine, day)))
      found.push({ rule: 'once', says: `${machine} waits on day ${day}.`, machine, day, runsInto: true })
  // A machine is fetched out of its winter while it is laid up.
  return found.filter(
    ({ rule, machine, day }) => rule !== 'blocked' || !returns.has(key(machine ?? '', day ?? -1)),
  )
}

/** Where machines are brought back from winter on days on which nothing but their lay-up shuts them. */
function returnsOf(fleet: Fleet, visits: readonly PlannedVisit[]): Set<string> {
  const back = new Set(
    fleet.visits.flatMap(({ id, winter }) => (winter === 'return' ? [`winter ${id}`] : [])),
  )
  return new Set(
    visits
      .filter(({ tasks }) => tasks.some((id) => back.has(id)))
      .filter(({ machine, day }) => {
        const on = addDays(fleet.today, day)
        const others = [...awayOf(fleet, machine).filter(({ kind }) => kind === 'job'), ...fleet.terms.closed]
        return !others.some(({ from, to }) => from <= on && on <= to)
      })
      .map(({ machine, day }) => `${machine} ${day}`),
  )
}

/** The fixed visits of a problem, with what they take. */
export function fixedPlan({ machines, tasks, fixed = [] }: PlanProblem): PlannedVisit[] {
  const machineOf = new Map(machines.map((machine) => [machine.id, machine]))
  const taskOf = new Map(tasks.map((task) => [task.id, task]))
  return fixed.flatMap((visit) => {
    const machine = machineOf.get(visit.machine)
    const own = visit.tasks.flatMap((id) => taskOf.get(id) ?? [])
    return machine
      ? [{ ...visit, helpers: visit.helpers ?? [], minutes: visitWork(machine, own).minutes }]
      : []
  })
}

/** What is booked for good takes all the days over which it runs, and nothing else is put onto its machine then. */
export function reserving(fleet: Fleet, problem: PlanProblem): PlanProblem {
  const spread = spreadOut(fleet, problem, fixedPlan(problem))
  return {
    ...spread.problem,
    machines: problem.machines.map((machine) => {
      const later = spread.later.get(machine.id)
      return later ? { ...machine, blockedDays: [...machine.blockedDays, ...later] } : machine
    }),
    fixed: spread.visits.map(({ minutes: _, helpers, ...visit }) => ({
      ...visit,
      ...(helpers.length > 0 && { helpers }),
    })),
  }
}
