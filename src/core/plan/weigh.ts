import { addDays, daysBetween, type Day } from '../calendar'
import { awayOf, firstDayFor, serviceId, type Fleet, type FleetService } from './fleet'
import { fleetProblem, workOf } from './fleetProblem'
import { checkFleet, reserving, runningOfPlanned } from './goingOn'
import { planCost, planVisits, visitWork, type PlannedVisit, type PlanProblem } from './planner'
import { reasonWords } from './reasonWords'
import type { Running } from './runsOver'
import { bookedPlan, violationWords } from './tryMove'

/** A visit that is being decided: services of one machine, and where it is to be. */
export type Deciding = {
  machineId: string
  services: FleetService[]
  /** The booked visit that it becomes; null for a new one. */
  visitId: string | null
  /** What is chosen so far; null asks for the best. */
  day: Day | null
  leadId: string | null
  /** Who helps, where it wants a second person. */
  helperId: string | null
}

type Place = { day: Day; leadId: string; helperId: string | null }

/** A day and a technician, with what it would break, and cost more than the best. */
export type WeighedPlace = Place & { breaks: string[]; cents: number; running: Running }

export type Weighed = {
  minutes: number
  minutesAlone: number
  /** Of the work, how many want a second person. */
  helperMinutes: number
  /** The cheapest place where everything is there; null where there is none. */
  best: Place | null
  /** Why there is none. */
  why: string
  /** The place that was asked for, or the best. */
  place: WeighedPlace | null
  /** Without what waits for its parts it could be sooner. */
  waits: { keys: string[]; names: string[]; until: Day; sooner: Day } | null
}

/**
 * What some services on one visit would take and cost, and the best day and technician for it beside everything
 * that is booked: the machine is there, somebody who may do it has the time, a bench is free, the parts have come.
 * Nothing is changed, and no other visit is moved.
 */
export async function weighVisit(fleet: Fleet, deciding: Deciding): Promise<Weighed> {
  const { machineId, services, visitId } = deciding
  const { together, alone } = workOf(services)
  const asked = services.map((service) => ({ ...service, visitId: null }))
  const keys = new Set(asked.map(serviceId))
  const moved = fleet.visits.find(({ id }) => id === visitId)
  const earliest = firstDayFor(
    fleet,
    awayOf(fleet, machineId),
    moved ? daysBetween(fleet.today, moved.day) : null,
  )
  const around: Fleet = {
    ...fleet,
    // Those whose visit is of the next days know of it.
    noticeDays: Math.min(fleet.noticeDays, earliest),
    visits: fleet.visits.filter(({ id }) => id !== visitId),
    // What nobody has booked yet is no visit's business.
    winters: fleet.winters.filter((winter) => winter.visitId !== null && winter.visitId !== visitId),
    services: [
      // Of services that are on a visit that one gives them away.
      ...fleet.services.filter(
        (service) =>
          service.visitId !== null &&
          service.visitId !== visitId &&
          !(service.machineId === machineId && overlaps(service, asked)),
      ),
      ...asked,
    ],
  }
  const placed = await bestOf(around, machineId, keys, earliest)
  const best = placed.visit
    ? {
        day: addDays(fleet.today, placed.visit.day),
        leadId: placed.visit.crew,
        helperId: placed.visit.helpers[0] ?? null,
      }
    : null
  const chosen = {
    day: deciding.day ?? best?.day ?? null,
    leadId: deciding.leadId ?? best?.leadId ?? null,
    helperId: deciding.helperId ?? (deciding.leadId === null ? (best?.helperId ?? null) : null),
  }
  const place =
    chosen.day !== null && chosen.leadId !== null
      ? weighed(around, machineId, keys, { ...chosen, day: chosen.day, leadId: chosen.leadId }, best)
      : null
  return {
    minutes: together,
    minutesAlone: alone,
    helperMinutes: services.reduce((sum, { shape }) => sum + shape.helperMinutes, 0),
    best,
    why: placed.why && reasonWords(placed.why, fleet),
    place,
    waits: await whatWaits(fleet, around, machineId, asked, { earliest, best: best?.day ?? null }),
  }
}

const overlaps = (one: FleetService, many: readonly FleetService[]) =>
  many.some(
    ({ assemblyId, task, positions }) =>
      assemblyId === one.assemblyId &&
      task === one.task &&
      positions.some((position) => one.positions.includes(position)),
  )

/** The fleet with every booked visit fixed, and some services of one machine to be done on one visit. */
function problemFor(
  around: Fleet,
  machineId: string,
  keys: ReadonlySet<string>,
  earliest: number,
  without: readonly PlannedVisit[],
): PlanProblem {
  const problem = fleetProblem(around)
  const booked = bookedPlan(around, problem)
  const ring = [...keys]
  const asked = around.services.filter((service) => keys.has(serviceId(service)))
  // Longer than anybody's day it takes a whole one, and goes on after it.
  const longest = Math.max(0, ...problem.crew.flatMap(({ minutesByDay }) => minutesByDay))
  const share = Math.min(1, longest / Math.max(1, workOf(asked).together))
  return reserving(around, {
    ...problem,
    crew: problem.crew.map((member) => ({
      ...member,
      minutesByDay: member.minutesByDay.map((minutes, day) =>
        without.some(({ crew, day: on }) => crew === member.id && on === day) ? 0 : minutes,
      ),
    })),
    machines: problem.machines.map((machine) =>
      machine.id === machineId
        ? {
            ...machine,
            accessMinutes: Object.fromEntries(
              Object.entries(machine.accessMinutes).map(([node, minutes]) => [node, share * minutes]),
            ),
            // On the day of another visit of its own it would be part of that one.
            blockedDays: [
              ...machine.blockedDays,
              ...booked.filter((visit) => visit.machine === machineId).map(({ day }) => day),
            ],
          }
        : machine,
    ),
    tasks: problem.tasks.map((task) =>
      keys.has(task.id)
        ? {
            ...task,
            minutes: share * task.minutes,
            ...(task.helperMinutes !== undefined && { helperMinutes: share * task.helperMinutes }),
            implies: ring.filter((id) => id !== task.id),
            // What waits for something is late rather than impossible; it is done once here.
            ...{
              earliest,
              latest: problem.horizonDays - 1,
              due: Math.min(task.due, problem.horizonDays - 1),
            },
            ...{ repeatEveryDays: undefined, endCostPerDay: undefined },
          }
        : task,
    ),
    fixed: booked
      .filter(({ tasks }) => tasks.length > 0)
      .map(({ machine, day, crew, tasks }) => ({ machine, day, crew, tasks })),
    present: [],
  })
}

/** So often another day is looked for where the best one runs into something. Ours. */
const mostTries = 20

type Found = { visit: PlannedVisit | null; why: string }

/** The cheapest day and technician; of work longer than a day one whose later days are free as well, where there is. */
async function bestOf(
  around: Fleet,
  machineId: string,
  keys: ReadonlySet<string>,
  earliest: number,
): Promise<Found> {
  const minutes = workOf(around.services.filter((service) => keys.has(serviceId(service)))).together
  const tried: PlannedVisit[] = []
  let first: Found | null = null
  while (tried.length < mostTries) {
    const problem = problemFor(around, machineId, keys, earliest, tried)
    const { visits, unplaced } = await planVisits(problem, { seed: 1, effort: 0.02 })
    const visit = visits.find(({ tasks }) => tasks.some((id) => keys.has(id))) ?? null
    if (!visit) return first ?? { visit, why: unplaced.find(({ task }) => keys.has(task))?.reason ?? '' }
    const found = { visit, why: '' }
    if (runningOfPlanned(around, { ...visit, minutes }).days.length === 1) return found
    const place = { day: addDays(around.today, visit.day), leadId: visit.crew }
    const helperId = visit.helpers[0] ?? null
    if (weighed(around, machineId, keys, { ...place, helperId }, null).breaks.length === 0) return found
    first ??= found
    tried.push(visit)
  }
  return first!
}

/** What a place breaks that nothing breaks without it, and what it costs above the best. */
function weighed(
  around: Fleet,
  machineId: string,
  keys: ReadonlySet<string>,
  place: Place,
  best: Place | null,
): WeighedPlace {
  // Its own windows and days, without what was added to look for the best.
  const plain: PlanProblem = { ...fleetProblem(around), fixed: [], present: [] }
  const booked = bookedPlan(around, plain)
  const machine = plain.machines.find(({ id }) => id === machineId)!
  const tasks = plain.tasks.filter(({ id }) => keys.has(id))
  const withIt = ({ day, leadId, helperId }: Place): PlannedVisit[] => [
    ...booked,
    {
      ...{ machine: machineId, day: daysBetween(around.today, day), crew: leadId },
      helpers: helperId === null ? [] : [helperId],
      tasks: tasks.map(({ id }) => id),
      minutes: visitWork(machine, tasks).minutes,
    },
  ]
  const said = (visits: PlannedVisit[]) =>
    checkFleet(around, plain, visits)
      .filter(({ rule, machine: of }) => rule !== 'after' && (rule !== 'helpers' || of === machineId))
      .map((each) => ({
        key: JSON.stringify([each.rule, each.crew, each.day, each.machine, each.task]),
        each,
      }))
  const before = new Set(said(booked).map(({ key }) => key))
  const own = withIt(place)
  const breaks = said(own).filter(({ key }) => !before.has(key))
  return {
    ...place,
    running: runningOfPlanned(around, own.at(-1)!),
    breaks: [...new Set(breaks.map(({ each }) => violationWords(each, around)))],
    cents: best ? Math.round(planCost(plain, own).total - planCost(plain, withIt(best)).total) : 0,
  }
}

/** What holds the others up because its parts are not there. */
async function whatWaits(
  fleet: Fleet,
  around: Fleet,
  machineId: string,
  asked: readonly FleetService[],
  { earliest, best }: { earliest: number; best: Day | null },
): Promise<Weighed['waits']> {
  const waiting = asked.filter(({ partsFrom }) => partsFrom !== null && partsFrom > fleet.today)
  if (waiting.length === 0 || waiting.length === asked.length) return null
  const rest = asked.filter((service) => !waiting.includes(service))
  const keys = new Set(rest.map(serviceId))
  const without: Fleet = {
    ...around,
    services: around.services.filter((each) => !waiting.includes(each as never)),
  }
  const { visit } = await bestOf(without, machineId, keys, earliest)
  if (!visit) return null
  const sooner = addDays(fleet.today, visit.day)
  if (best !== null && sooner >= best) return null
  return {
    keys: waiting.map(serviceId),
    names: waiting.map(({ name, where }) => (where ? `${name}, ${where}` : name)),
    until: waiting.reduce((last, { partsFrom }) => (partsFrom! > last ? partsFrom! : last), fleet.today),
    sooner,
  }
}
