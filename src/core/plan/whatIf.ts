import { addDays, daysBetween, showDay, type Day } from '../calendar'
import { serviceId, type Fleet, type FleetVisit } from './fleet'
import { fleetProblem, frostBy, safeBy } from './fleetProblem'
import { checkFleet, fixedPlan } from './goingOn'
import {
  changedProblem,
  repairPlan,
  type PlanChange,
  type PlannedVisit,
  type PlanProblem,
  type Unplaced,
} from './planner'
import { problemToPropose, proposalsOf, type Proposal } from './proposals'
import { bookedPlan, violationWords } from './tryMove'

/** What may happen to the plan, as a coordinator says it. */
export type FleetChange =
  | { kind: 'away'; personId: string; from: Day; to: Day }
  | { kind: 'called'; machineId: string; from: Day; to: Day }
  | { kind: 'partsLate'; visitId: string; days: number }
  | { kind: 'bench'; yardId: string; places: number }
  | { kind: 'frost'; yardId: string; days: number }

export const changeNames: Record<FleetChange['kind'], string> = {
  away: 'A technician is away',
  called: 'A machine is called to a job',
  partsLate: 'The parts of a visit come late',
  bench: 'A yard has so many bench places',
  frost: 'Frost comes early to a yard',
}

export type WhatIfAnswer = {
  /** What of the booked visits would not hold, in words; what does not hold now comes last, and says so. */
  broken: { machine: string; says: string; isSo: boolean }[]
  /** The smallest repair, as changes to the present plan. */
  proposals: Proposal[]
  unplaced: Unplaced[]
}

/**
 * What a change would break of the booked visits, and the smallest repair: those of the next days stay, and each
 * that is moved costs what moving it costs. Nothing is stored.
 */
export async function whatIf(fleet: Fleet, change: FleetChange, currency: string): Promise<WhatIfAnswer> {
  const booked: Fleet = {
    ...fleet,
    services: fleet.services.filter(({ visitId }) => visitId !== null),
    winters: fleet.winters.filter(({ visitId }) => visitId !== null),
    ...(change.kind === 'frost' && { frosts: sooner(fleet.frosts, change) }),
    // The next days are left alone by the repair itself, where they can stay.
    terms: { ...fleet.terms, frozenDays: 0 },
  }
  const problem: PlanProblem = { ...fleetProblem(booked), fixed: [], present: [] }
  const visits = bookedPlan(booked, problem)
  const told = asChange(booked, change)
  const already = new Set(checkFleet(booked, problem, visits).map((each) => JSON.stringify(each)))
  const broken = checkFleet(withLeave(booked, change), changedProblem(problem, told), visits)
  // The repair, like any plan, puts nothing on what may not be changed.
  const repaired = await repairPlan(...settledApart(problemToPropose(booked), visits), told, {
    frozenDays: fleet.terms.frozenDays,
    moveCost: fleet.terms.moveCents,
  })
  const numberOf = new Map(fleet.machines.map(({ id, number, name }) => [id, `${number} ${name}`]))
  const lateAnyway = new Set(
    change.kind === 'frost'
      ? tooLate({ ...booked, frosts: fleet.frosts }, change.yardId).map(({ visit }) => visit.id)
      : [],
  )
  const said = new Set<string>()
  return {
    broken: [
      ...(change.kind === 'frost' ? tooLate(booked, change.yardId) : []).map(({ machine, visit, frost }) => ({
        machine: `${machine.number} ${machine.name}`,
        says: `Frost has come before its winter visit with ${Math.round(100 * frostBy(booked, frost, daysBetween(fleet.today, visit.day)))} % (${showDay(visit.day, fleet.today)})`,
        isSo: lateAnyway.has(visit.id),
      })),
      ...broken
        .filter(({ rule, task }) => rule !== 'helpers' && !task?.startsWith('winter '))
        .map((each) => {
          const day = each.day === undefined ? undefined : addDays(fleet.today, each.day)
          const machines = each.machine
            ? [each.machine]
            : visits
                .filter((visit) => visit.day === each.day && (!each.crew || visit.crew === each.crew))
                .map(({ machine }) => machine)
          return {
            machine: machines.map((id) => numberOf.get(id) ?? '').join(', '),
            says: `${violationWords(each, fleet)}${day === undefined ? '' : ` (${showDay(day, fleet.today)})`}`,
            isSo: already.has(JSON.stringify(each)),
          }
        })
        .filter(({ machine, says }) => !said.has(machine + says) && said.add(machine + says)),
    ].sort((a, b) => Number(a.isSo) - Number(b.isSo)),
    proposals: proposalsOf(booked, repaired.problem, repaired.visits, currency),
    unplaced: repaired.unplaced,
  }
}

/** Who is away goes on with work longer than a day once they are back. */
const withLeave = (fleet: Fleet, change: FleetChange): Fleet =>
  change.kind !== 'away'
    ? fleet
    : {
        ...fleet,
        crew: fleet.crew.map((member) =>
          member.id === change.personId ? { ...member, leave: [...member.leave, change] } : member,
        ),
      }

/** A problem, and its plan: what is fixed as the problem has it, the others as they are booked. */
function settledApart(problem: PlanProblem, visits: readonly PlannedVisit[]): [PlanProblem, PlannedVisit[]] {
  const fixed = fixedPlan(problem)
  const isFixed = ({ machine, day }: PlannedVisit) =>
    fixed.some((each) => each.machine === machine && each.day === day)
  return [problem, [...fixed, ...visits.filter((visit) => !isFixed(visit))]]
}

/** The chance of frost in one yard as it is so many days later. */
function sooner(
  frosts: Fleet['frosts'],
  { yardId, days }: Extract<FleetChange, { kind: 'frost' }>,
): Fleet['frosts'] {
  return Object.fromEntries(
    Object.entries(frosts).map(([key, chances]) => [
      key,
      key.startsWith(`${yardId} `)
        ? chances.map((_, at) => chances[Math.min(at + days, chances.length - 1)]!)
        : chances,
    ]),
  )
}

/** Winter visits of a yard that come later than the accepted chance of frost. */
function tooLate(
  fleet: Fleet,
  yardId: string,
): { machine: Fleet['machines'][number]; visit: FleetVisit; frost: string }[] {
  const machineOf = new Map(fleet.machines.map((machine) => [machine.id, machine]))
  return fleet.winters.flatMap(({ machineId, visitId, frost }) => {
    const visit = fleet.visits.find(({ id }) => id === visitId)
    const machine = machineOf.get(machineId)
    if (!visit || machine?.yardId !== yardId) return []
    const chance = frostBy(fleet, frost, daysBetween(fleet.today, visit.day))
    return chance > fleet.frostRisk ? [{ machine, visit, frost }] : []
  })
}

function asChange(fleet: Fleet, change: FleetChange): PlanChange {
  const end = fleet.weeks * 7 - 1
  const days = (from: Day, to: Day) => {
    const first = Math.max(0, daysBetween(fleet.today, from))
    const last = Math.min(end, daysBetween(fleet.today, to))
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, at) => first + at)
  }
  switch (change.kind) {
    case 'away':
      return { kind: 'away', crew: change.personId, days: days(change.from, change.to) }
    case 'called':
      return { kind: 'called', machine: change.machineId, days: days(change.from, change.to) }
    // The problem is made of the colder days already; what is too late has to be sooner.
    case 'frost':
      return {
        kind: 'tasks',
        tasks: tooLate(fleet, change.yardId).map(({ visit, frost }) => ({
          id: `winter ${visit.id}`,
          latest: Math.max(safeBy(fleet, frost) ?? end, daysBetween(fleet.today, visit.day) - 1),
        })),
      }
    case 'bench':
      return { kind: 'benches', yard: change.yardId, places: change.places }
    case 'partsLate': {
      const visit = fleet.visits.find(({ id }) => id === change.visitId)
      const from = visit ? daysBetween(fleet.today, visit.day) + change.days : 0
      return {
        kind: 'tasks',
        tasks: fleet.services
          .filter(({ visitId }) => visitId === change.visitId)
          // What waits for its parts is late rather than left out.
          .map((service) => ({ id: serviceId(service), partsFromDay: from, latest: end })),
      }
    }
  }
}
