import { addDays, daysBetween, type Day } from '../calendar'
import { qualifications } from '../models'
import { answersTo } from '../tools'
import type { PlanTerms, Span } from './crewTerms'
import {
  firstDayFor,
  isPinned,
  isShut,
  serviceId,
  stays,
  type Fleet,
  type FleetService,
  type FleetVisit,
  type FleetWinter,
} from './fleet'
import { minutesOn } from './runsOver'
import { visitWork, type PlanProblem, type PlanTask } from './planner'

/** A failure costs so many times the planned renewal, and so many days of down-time. Ours. */
const failure = { times: 4, days: 2 }
/** The chance of failing that has come by the end of the late tolerance. Ours. */
const chanceAtEnd = 1 / 3

/**
 * The fleet as the planner is asked: its services with their windows and costs, who works when, what is booked.
 *
 * Costs (domain, planning visits): a day early gives up that share of the parts and of the work; a day late costs
 * what a failure costs above the planned renewal, by a chance that rises from the due day to a third at the end of
 * the late tolerance.
 */
export function fleetProblem(fleet: Fleet): PlanProblem {
  const { today, weeks, terms, crew, machines, services, visits } = fleet
  const horizonDays = weeks * 7
  const at = (day: Day) => daysBetween(today, day)
  const daysOf = (spans: readonly Span[]) =>
    spans.flatMap(({ from, to }) => span(Math.max(0, at(from)), Math.min(horizonDays - 1, at(to))))
  const closed = new Set(daysOf(terms.closed))
  const rate = terms.hourCents / 60
  const spells = new Map(machines.map(({ id, away }) => [id, away]))
  const byMachine = new Map<string, FleetService[]>()
  // What a visit of days past is still at is being done, and not planned.
  const inHand = new Set(
    visits.filter((visit) => visit.day < today && isPinned(visit, fleet)).map(({ id }) => id),
  )
  const safeDays = new Map(fleet.winters.flatMap((winter) => safeDayOf(fleet, winter, horizonDays) ?? []))
  for (const service of services)
    if (
      !standsThen(service, safeDays.get(service.machineId), at) &&
      !inHand.has(service.visitId ?? '') &&
      spells.has(service.machineId) &&
      (service.visitId !== null || at(service.due) < horizonDays)
    )
      byMachine.set(service.machineId, [...(byMachine.get(service.machineId) ?? []), service])
  const asked = [...byMachine.values()].flat()
  const share = 1 - terms.freePercent / 100
  const standing = visits.filter(
    ({ machineId, day }) => spells.has(machineId) && at(day) >= 0 && at(day) < horizonDays,
  )
  const tasksOf = (visit: FleetVisit) => asked.filter(({ visitId }) => visitId === visit.id).map(serviceId)
  const allOf = (visit: FleetVisit) => [
    ...tasksOf(visit),
    ...(visit.winter === '' ? [] : [`winter ${visit.id}`]),
  ]
  const members = crew.map((member) => {
    return {
      id: member.id,
      ...(member.yardId !== null && { yard: member.yardId }),
      skills: member.skills ?? [...qualifications],
      minutesByDay: Array.from({ length: horizonDays }, (_, day) =>
        Math.round(share * minutesOn(member, terms.closed, addDays(today, day))),
      ),
    }
  })
  const nobody = span(0, horizonDays - 1).filter((day) =>
    members.every(({ minutesByDay }) => minutesByDay[day] === 0),
  )
  const shutOf = new Map(
    machines.map(({ id, away }) => [id, new Set([...daysOf(away.filter(isShut)), ...closed, ...nobody])]),
  )
  const isMember = new Set(members.map(({ id }) => id))
  const winters = standing.filter(({ winter, movesWithFrost }) => winter !== '' && !movesWithFrost)
  return {
    horizonDays,
    labourRatePerMinute: rate,
    downtimeCostPerDay: terms.downtimeCents,
    crew: members,
    travelMinutes: Object.fromEntries(
      [...new Set(terms.travel.map(({ from }) => from))].map((from) => [
        from,
        Object.fromEntries(
          terms.travel.filter((each) => each.from === from).map(({ to, minutes }) => [to, minutes]),
        ),
      ]),
    ),
    benches: terms.benches.flatMap(({ yardId, places }) =>
      places === null ? [] : [{ yard: yardId, places }],
    ),
    tools: fleet.tools.map(({ id, count }) => ({ id, count })),
    stock: fleet.stock.map(({ part, byDay }) => ({ part, byDay })),
    machines: machines.map(({ id, yardId, away }) => ({
      id,
      yard: yardId,
      visitFixedCost: terms.visitCents,
      blockedDays: [...new Set([...daysOf(away.filter(isShut)), ...closed])],
      accessMinutes: accessOf(byMachine.get(id) ?? []),
    })),
    tasks: [
      ...asked.map((service) =>
        asTask(service, {
          horizonDays,
          at,
          rate,
          downtime: terms.downtimeCents,
          visits,
          tools: fleet.tools,
          shut: shutOf.get(service.machineId)!,
          safeDay: safeDays.get(service.machineId),
          firstDay: (day) => firstDayFor(fleet, spells.get(service.machineId)!, day),
        }),
      ),
      ...fleet.winters.flatMap((winter) => {
        const visit = standing.find(({ id }) => id === winter.visitId)
        if (!spells.has(winter.machineId) || (winter.visitId !== null && !visit)) return []
        return winterTask(fleet, winter, visit, byMachine.get(winter.machineId) ?? []) ?? []
      }),
      // What winter takes besides its services: a piece of work that stays where it is.
      ...winters.map((visit): PlanTask => {
        const own = asked.filter(({ visitId }) => visitId === visit.id)
        const rest = own.reduce((sum, { shape }) => sum + shape.minutes, 0)
        return {
          id: `winter ${visit.id}`,
          machine: visit.machineId,
          access: [],
          minutes: Math.max(0, visit.minutes - rest),
          earliest: 0,
          due: at(visit.day),
          latest: horizonDays - 1,
          earlyCostPerDay: 0,
          lateCostPerDay: 0,
        }
      }),
    ],
    fixed: standing
      .filter((visit) => stays(visit, fleet))
      .map((visit) => ({
        machine: visit.machineId,
        day: at(visit.day),
        crew: visit.leadId,
        ...(visit.helpers.length > 0 && { helpers: visit.helpers.filter((id) => isMember.has(id)) }),
        tasks: allOf(visit),
      })),
    present: standing
      .filter((visit) => !stays(visit, fleet))
      .map((visit) => ({
        machine: visit.machineId,
        day: at(visit.day),
        crew: visit.leadId,
        tasks: allOf(visit),
        moveCost: terms.moveCents,
      })),
  }
}

/** For so many days a machine that is made safe stands, and its hours with it. Ours. */
const winterDays = 120

/** The day by which a machine is safe: that of its visit, or the last that is accepted; none where no frost is near. */
function safeDayOf(
  fleet: Fleet,
  { machineId, visitId, frost }: FleetWinter,
  horizonDays: number,
): [string, number][] | null {
  const visit = fleet.visits.find(({ id }) => id === visitId)
  const day = visit ? daysBetween(fleet.today, visit.day) : safeBy(fleet, frost)
  return day === null || day >= horizonDays ? null : [[machineId, day]]
}

/** A service that would be due in the winter, while its machine stands, and cannot be done before. */
function standsThen(
  { visitId, window, due }: FleetService,
  safeDay: number | undefined,
  at: (day: Day) => number,
): boolean {
  if (visitId !== null || safeDay === undefined || window === null) return false
  return at(window.from) > safeDay && at(due) < safeDay + winterDays
}

/** What a day before it is needed costs a machine that is made safe, as a share of a day of down-time. Ours. */
const heldShare = 0.1

/** The last day on which frost before it is still an accepted risk, from today on; null where it never is more. */
export function safeBy(fleet: Pick<Fleet, 'frosts' | 'frostRisk'>, frost: string): number | null {
  const first = (fleet.frosts[frost] ?? []).findIndex((chance) => chance > fleet.frostRisk)
  return first < 0 ? null : Math.max(0, first - 1)
}

/** The chance that frost has come to it by a day. */
export function frostBy(fleet: Pick<Fleet, 'frosts'>, frost: string, day: number): number {
  const chances = fleet.frosts[frost] ?? []
  return chances[Math.min(Math.max(0, day), chances.length - 1)] ?? 0
}

/**
 * Making a machine safe as a task. A day costs what freezing would, by the chance that frost comes first, and before
 * it is needed what a machine costs that stands ready and may not run.
 */
function winterTask(
  fleet: Fleet,
  winter: FleetWinter,
  visit: FleetVisit | undefined,
  services: readonly FleetService[],
): PlanTask | null {
  const { today, weeks, terms } = fleet
  const horizonDays = weeks * 7
  const due = safeBy(fleet, winter.frost)
  if (!visit && (due === null || due >= horizonDays)) return null
  const wanted = due ?? horizonDays - 1
  const own = services.filter(({ visitId }) => visitId === (visit?.id ?? null))
  const safe = accessOf(services).safe!
  const minutes = visit
    ? visit.minutes - workOf(own).together
    : winter.minutes - (services.length > 0 ? safe : 0)
  return {
    id: visit ? `winter ${visit.id}` : `winter new ${winter.machineId}`,
    machine: winter.machineId,
    access: services.length > 0 ? ['safe'] : [],
    minutes: Math.max(0, minutes),
    earliest: winter.from === null ? 0 : Math.max(0, daysBetween(today, winter.from)),
    due: Math.min(wanted, horizonDays - 1),
    latest: horizonDays - 1,
    earlyCostPerDay: 0,
    lateCostPerDay: 0,
    costByDay: Array.from(
      { length: horizonDays },
      (_, day) =>
        winter.valueCents * frostBy(fleet, winter.frost, day) +
        heldShare * terms.downtimeCents * Math.max(0, wanted - day),
    ),
  }
}

type Around = {
  horizonDays: number
  at: (day: Day) => number
  rate: number
  downtime: number
  visits: FleetVisit[]
  tools: Fleet['tools']
  /** Days on which the machine, or everybody, is away. */
  shut: ReadonlySet<number>
  /** The day by which it is safe for winter, and stands. */
  safeDay: number | undefined
  /** The first day to which it can be put, by the day on which it is booked. */
  firstDay: (day: number | null) => number
}

function asTask(
  service: FleetService,
  { horizonDays, at, rate, downtime, visits, tools, shut, safeDay, firstDay }: Around,
): PlanTask {
  const { shape, window, isOver, lifeDays, partsCents, partsFrom, visitId } = service
  // What is booked is to be done, also where it is due only after the plan's end.
  const due = service.visitId === null ? at(service.due) : Math.min(at(service.due), horizonDays - 1)
  const renewal = partsCents + rate * shape.minutes
  const early = window === null ? 7 : Math.max(0, due - at(window.from))
  const late = window === null ? 7 : Math.max(1, at(window.to) - due)
  const earlyCostPerDay = renewal / Math.max(1, lifeDays)
  const visit = visitId === null ? undefined : visits.find(({ id }) => id === visitId)
  // What is booked far from its window stays possible where it is booked.
  const booked = visit ? at(visit.day) : due
  const opens = Math.max(due - early, firstDay(visit ? booked : null))
  const skill = shape.qualifications[0]
  const [tool, ...moreTools] = tools
    .filter((each) => shape.specialTools.some((name) => answersTo(each, name)))
    .map(({ id }) => id)
  const latest = Math.max(due + late, booked, 0)
  // Where its window holds no day on which it can be done, it is late rather than left out.
  const from = Math.max(0, opens, partsFrom === null || visitId !== null ? 0 : at(partsFrom))
  const canBe = Array.from(
    { length: Math.max(0, Math.min(latest, horizonDays - 1) - from + 1) },
    (_, on) => on + from,
  )
  const isShut = canBe.every((day) => shut.has(day))
  const comesAgain = service.comesAgain && lifeDays >= 7 && lifeDays < horizonDays
  return {
    id: serviceId(service),
    machine: service.machineId,
    ...taskWork(service),
    earliest: visit && booked >= 0 ? Math.min(opens, booked) : opens,
    due,
    // What can be done before its machine is made safe is: after it nothing is run any more.
    latest:
      isOver || isShut
        ? horizonDays - 1
        : visitId === null && safeDay !== undefined && due > safeDay
          ? Math.max(from, safeDay)
          : latest,
    earlyCostPerDay,
    lateCostPerDay: (((failure.times - 1) * renewal + failure.days * downtime) * chanceAtEnd) / late,
    ...(skill !== undefined && { skill }),
    ...(tool !== undefined && { tool }),
    ...(moreTools.length > 0 && { moreTools }),
    ...(partsFrom !== null && visitId === null && { partsFromDay: at(partsFrom) }),
    // What is booked has its parts reserved: they are not free any more.
    ...(visitId === null && service.parts !== undefined && { parts: service.parts }),
    ...(comesAgain && {
      repeatEveryDays: Math.round(lifeDays),
      earlyDays: early,
      lateDays: late,
      endCostPerDay: earlyCostPerDay,
    }),
  }
}

type Working = Pick<FleetService, 'assemblyId' | 'shape'>

/** What a service takes, as a task of the planner. */
const taskWork = ({ assemblyId, shape }: Working) => ({
  access: ['safe', ...shape.openings.map(({ node }) => `${assemblyId} ${node}`)],
  minutes: shape.minutes,
  ...(shape.helperMinutes > 0 && { people: 2, helperMinutes: shape.helperMinutes }),
})

/**
 * Minutes of some services of one machine on one visit, the shared way in counted once, and on a visit each.
 *
 * @example workOf([seals, valves]) // { together: 175, alone: 230 }
 */
export function workOf(services: readonly Working[]): { together: number; alone: number } {
  const machine = { accessMinutes: accessOf(services) }
  const minutes = (some: readonly Working[]) => visitWork(machine, some.map(taskWork)).minutes
  return {
    together: minutes(services),
    alone: services.reduce((sum, service) => {
      const own = { accessMinutes: accessOf([service]) }
      return sum + visitWork(own, [taskWork(service)]).minutes
    }, 0),
  }
}

/** What a service gives up of its parts and its work where it is done some days before it is due, in cents. */
export function givenUp(
  { lifeDays, partsCents, shape }: Pick<FleetService, 'lifeDays' | 'partsCents' | 'shape'>,
  daysEarly: number,
  { hourCents }: Pick<PlanTerms, 'hourCents'>,
): number {
  return (Math.max(0, daysEarly) / Math.max(1, lifeDays)) * (partsCents + (hourCents / 60) * shape.minutes)
}

/** Minutes of each opening of a machine; making safe and proving is one for all its pumps, the longest of theirs. */
function accessOf(services: readonly Working[]): Record<string, number> {
  const minutes: Record<string, number> = { safe: 0 }
  for (const { assemblyId, shape } of services) {
    minutes.safe = Math.max(minutes.safe!, shape.aroundMinutes)
    for (const opening of shape.openings) minutes[`${assemblyId} ${opening.node}`] = opening.minutes
  }
  return minutes
}

const span = (from: number, to: number) =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, at) => from + at)
