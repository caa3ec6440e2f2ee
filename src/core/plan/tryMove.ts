import { daysBetween, type Day } from '../calendar'
import { checkFleet, type FleetViolation } from './goingOn'
import { awayOf, firstDayFor, serviceId, type Fleet, type FleetService } from './fleet'
import { fleetProblem } from './fleetProblem'
import { planCost, visitWork, type PlannedVisit, type PlanProblem } from './planner'

/** The visits that are booked, as the planner counts them; who helps is not booked. */
export function bookedPlan(fleet: Fleet, problem: PlanProblem): PlannedVisit[] {
  const machineOf = new Map(problem.machines.map((machine) => [machine.id, machine]))
  const members = new Set(problem.crew.map(({ id }) => id))
  const taskOf = new Map(problem.tasks.map((task) => [task.id, task]))
  return fleet.visits.flatMap((visit) => {
    const day = daysBetween(fleet.today, visit.day)
    const machine = machineOf.get(visit.machineId)
    if (!machine || day < 0 || day >= problem.horizonDays) return []
    const ids = fleet.services.filter(({ visitId }) => visitId === visit.id).map(serviceId)
    const tasks = [...ids, ...(visit.winter === '' ? [] : [`winter ${visit.id}`])].filter((id) =>
      taskOf.has(id),
    )
    const { minutes } = visitWork(
      machine,
      tasks.map((id) => taskOf.get(id)!),
    )
    return [
      {
        machine: visit.machineId,
        day,
        crew: visit.leadId,
        helpers: visit.helpers.filter((id) => members.has(id)),
        tasks,
        minutes,
      },
    ]
  })
}

export type MoveTrial = {
  /** What the plan would break that it does not break now. */
  breaks: FleetViolation[]
  /** What it would cost more, in cents; below zero for less. */
  cents: number
}

/** What moving a booked visit to another day, or to somebody else, would mean. Nothing is changed. */
export function tryMove(fleet: Fleet, visitId: string, to: { day: Day; leadId: string }): MoveTrial {
  const problem = fleetProblem(fleet)
  const before = bookedPlan(fleet, problem)
  const moved: Fleet = {
    ...fleet,
    visits: fleet.visits.map((visit) => (visit.id === visitId ? { ...visit, ...to } : visit)),
  }
  const after = bookedPlan(moved, problem)
  const plain: PlanProblem = { ...problem, fixed: [], present: [] }
  const known = new Set(checkFleet(fleet, plain, before).map((each) => JSON.stringify(each)))
  return {
    breaks: checkFleet(moved, plain, after).filter(
      (each) => each.rule !== 'helpers' && each.rule !== 'after' && !known.has(JSON.stringify(each)),
    ),
    cents: Math.round(planCost(plain, after).total - planCost(plain, before).total),
  }
}

const ruleWords: Partial<Record<FleetViolation['rule'], string>> = {
  minutes: 'has not the time for it',
  skill: 'is not qualified for it',
  blocked: 'The machine is away, or the company is closed, that day.',
  bench: 'There is no bench place left in its yard.',
  parts: 'Its parts are not there by then.',
  window: 'Outside its window',
  helpers: 'It wants a second person for some of it, who is not the technician.',
  once: 'The machine has another visit on that day: take both together instead.',
  horizon: 'That day is outside the plan.',
}

/** A broken rule as a coordinator reads it. */
export function violationWords(
  { rule, crew, task, tool, day, says, runsInto }: FleetViolation,
  fleet: Fleet,
): string {
  if (runsInto) return 'Another visit of the machine runs over that day.'
  const person = fleet.crew.find(({ id }) => id === crew)?.name
  const service = fleet.services.find((each) => serviceId(each) === task)
  const words = ruleWords[rule] ?? says
  if (rule === 'tool')
    return `${fleet.tools.find(({ id }) => id === tool)?.name ?? 'A special tool'} is wanted by more visits that day than there are.`
  if ((rule === 'minutes' || rule === 'skill') && person) return `${person} ${words}.`
  if (rule === 'window' && service && day !== undefined && isTooSoon(fleet, service, day))
    return day < fleet.noticeDays
      ? `Its crew wants to know ${fleet.noticeDays} days before.`
      : `Nothing is moved into the next ${fleet.terms.frozenDays} days.`
  return rule === 'window' && service
    ? `${words}: ${service.name}${service.where ? `, ${service.where}` : ''}.`
    : words
}

/** Whether it is not its window that a day is too early for, but those who are to be told. */
function isTooSoon(fleet: Fleet, { window, visitId, machineId }: FleetService, day: number): boolean {
  const visit = fleet.visits.find(({ id }) => id === visitId)
  const first = firstDayFor(
    fleet,
    awayOf(fleet, machineId),
    visit ? daysBetween(fleet.today, visit.day) : null,
  )
  return day < first && (window === null || daysBetween(fleet.today, window.from) <= day)
}
