import { addDays, daysBetween, showDay, type Day } from '../calendar'
import { runningOf, serviceId, type Fleet, type FleetService, type FleetVisit } from './fleet'
import { fleetProblem, frostBy } from './fleetProblem'
import { checkFleet } from './goingOn'
import { toolsOf } from './planner'
import { bookedPlan, violationWords } from './tryMove'

/** Days from today in which what is overdue may wait for its visit. Ours. */
const soonEnough = 7

/** A booked visit that no longer fits, and why, in words. */
export type Slip = {
  visitId: string
  says: string[]
  /** What each is about, the same while it is about the same: a day that shifts is nothing new. */
  grounds: string[]
  by: Day
}

/**
 * The booked visits that no longer fit: readings moved a window, so that a service of theirs runs past it; the
 * technician is away or full, the machine at a job, the bench taken, the parts too late. Those of the days on which
 * nothing is moved are left alone where it is only a window; whose day has passed is told elsewhere.
 */
export function slipsOf(fleet: Fleet): Slip[] {
  const { today, terms, visits, services } = fleet
  // The share of a day that is kept free is for planning: a visit that uses it still fits.
  const problem = fleetProblem({ ...fleet, terms: { ...terms, freePercent: 0 } })
  const broken = checkFleet(fleet, { ...problem, fixed: [], present: [] }, bookedPlan(fleet, problem))
  const toolsFor = new Map(problem.tasks.map((task) => [task.id, toolsOf(task)]))
  const yardOf = new Map(problem.machines.map(({ id, yard }) => [id, yard]))
  const firstMoved = addDays(today, terms.frozenDays)
  const onVisit = new Map<string, FleetService[]>()
  for (const service of services)
    if (service.visitId !== null)
      onVisit.set(service.visitId, [...(onVisit.get(service.visitId) ?? []), service])
  return visits
    .filter(({ day, hasSheet }) => day >= today && !hasSheet)
    .flatMap((visit): Slip[] => {
      const own = onVisit.get(visit.id) ?? []
      // Before its parts are there no day is better.
      const parts = own.reduce(
        (last, { partsFrom }) => (partsFrom && partsFrom > last ? partsFrom : last),
        today,
      )
      const late =
        visit.day < firstMoved || visit.day <= parts
          ? []
          : own.filter((service) => runsPast(service, visit, today))
      const at = daysBetween(today, visit.day)
      const on = new Set(runningOf(fleet, visit).days.map(({ day }) => daysBetween(today, day)))
      const faults = broken.filter(
        ({ rule, machine, day, crew, tool, yard, runsInto }) =>
          (runsInto || !['helpers', 'after', 'once', 'horizon', 'unknown', 'crew'].includes(rule)) &&
          day !== undefined &&
          (runsInto ? day === at : on.has(day)) &&
          (machine === undefined || machine === visit.machineId) &&
          (yard === undefined || yardOf.get(visit.machineId) === yard) &&
          (tool === undefined || own.some((service) => toolsFor.get(serviceId(service))?.includes(tool))) &&
          (crew === undefined || crew === visit.leadId || visit.helpers.includes(crew)),
      )
      const says = [
        ...late.map(
          ({ name, where, window, isOver }) =>
            `${where ? `${name}, ${where}` : name}: ${isOver ? 'is past its limit already' : `is best by ${showDay(window!.to, today)}`}.`,
        ),
        ...new Set(faults.map((each) => violationWords(each, fleet))),
      ]
      const winter = fleet.winters.find(({ visitId }) => visitId === visit.id)
      const chance = winter ? frostBy(fleet, winter.frost, at) : 0
      const frost = winter !== undefined && chance > fleet.frostRisk && at > soonEnough
      if (frost) says.push(`Frost has come by then with ${Math.round(100 * chance)} %.`)
      if (says.length === 0) return []
      const by = late.reduce((first, { window }) => (window!.to < first ? window!.to : first), visit.day)
      const grounds = [
        ...late.map(({ assemblyId, task }) => `${task}@${assemblyId}`.slice(0, 80)),
        ...new Set(faults.map(({ rule }) => `rule ${rule}`)),
        ...(frost ? ['frost'] : []),
      ]
      return [{ visitId: visit.id, says, grounds, by: by < today ? today : by }]
    })
}

/**
 * A service whose window is over before its visit. For what is past its window already a visit within a week is as
 * soon as can be asked.
 */
const runsPast = ({ window }: FleetService, { day }: FleetVisit, today: Day) =>
  window !== null && window.to < day && (window.to >= today || addDays(today, soonEnough) < day)
