import type { PlanProblem } from './types'

/**
 * Looks whether a problem can be read: names that are there once, numbers that are numbers, days that are whole.
 * What can be read but not done (a window that has closed, a skill that nobody has) is no fault: the plan says so.
 *
 * @throws RangeError with what is wrong and where
 */
export function readProblem(problem: PlanProblem): void {
  const fail = (says: string): never => {
    throw new RangeError(says)
  }
  const number = (value: unknown, what: string, least = -Infinity) => {
    if (typeof value !== 'number' || !Number.isFinite(value)) fail(`${what} is no number.`)
    if ((value as number) < least) fail(`${what} is below ${least}.`)
  }
  const whole = (value: unknown, what: string) => {
    if (!Number.isInteger(value)) fail(`${what} is no whole day.`)
  }
  const once = (ids: string[], what: string) => {
    const seen = new Set<string>()
    for (const id of ids) {
      if (typeof id !== 'string' || id === '') fail(`A ${what} has no id.`)
      if (seen.has(id)) fail(`There are two ${what}s ${id}.`)
      seen.add(id)
    }
    return seen
  }
  const { horizonDays, crew, machines, tasks } = problem
  if (!Number.isInteger(horizonDays) || horizonDays < 1 || horizonDays > 3660)
    fail('The horizon is a whole number of days, from 1 to ten years.')
  number(problem.labourRatePerMinute, 'The labour rate', 0)
  number(problem.downtimeCostPerDay ?? 0, 'The cost of down-time', 0)
  once(
    crew.map(({ id }) => id),
    'member',
  )
  for (const { id, minutesByDay } of crew)
    for (const [day, minutes] of minutesByDay.entries()) number(minutes, `${id}'s time on day ${day}`, 0)
  const machineIds = once(
    machines.map(({ id }) => id),
    'machine',
  )
  for (const { id, visitFixedCost, accessMinutes, blockedDays } of machines) {
    number(visitFixedCost, `What a visit to ${id} costs`, 0)
    for (const [node, minutes] of Object.entries(accessMinutes)) number(minutes, `${node} of ${id}`, 0)
    for (const day of blockedDays) whole(day, `A day on which ${id} is blocked`)
  }
  for (const [from, ways] of Object.entries(problem.travelMinutes ?? {}))
    for (const [to, minutes] of Object.entries(ways)) number(minutes, `The way from ${from} to ${to}`, 0)
  for (const { yard, places } of problem.benches ?? []) number(places, `The places of ${yard}`, 0)
  for (const { id, count } of problem.tools ?? []) number(count, `The count of ${id}`, 0)
  for (const { part, byDay } of problem.stock ?? [])
    for (const [day, free] of byDay.entries()) number(free, `What is free of ${part} on day ${day}`)
  once(
    tasks.map(({ id }) => id),
    'task',
  )
  for (const task of tasks) {
    const { id } = task
    if (!machineIds.has(task.machine)) fail(`Task ${id} is on machine ${task.machine}, which is not there.`)
    number(task.minutes, `The minutes of ${id}`, 0)
    whole(task.earliest, `The earliest day of ${id}`)
    whole(task.due, `The due day of ${id}`)
    whole(task.latest, `The latest day of ${id}`)
    number(task.earlyCostPerDay, `What ${id} costs early`)
    number(task.lateCostPerDay, `What ${id} costs late`)
    for (const cost of task.costByDay ?? []) number(cost, `A day's cost of ${id}`)
    if (task.people !== undefined && (!Number.isInteger(task.people) || task.people < 1))
      fail(`The people of ${id} are a whole number from 1.`)
    if (task.helperMinutes !== undefined) number(task.helperMinutes, `The helpers' minutes of ${id}`, 0)
    if (task.partsFromDay !== undefined) number(task.partsFromDay, `The day of the parts of ${id}`)
    for (const { part, quantity } of task.parts ?? []) number(quantity, `How many of ${part} ${id} takes`, 0)
    if (
      task.repeatEveryDays !== undefined &&
      (!Number.isInteger(task.repeatEveryDays) || task.repeatEveryDays < 1)
    )
      fail(`${id} comes again after a whole number of days, from 1.`)
    if (task.earlyDays !== undefined) whole(task.earlyDays, `The early days of ${id}`)
    if (task.lateDays !== undefined) whole(task.lateDays, `The late days of ${id}`)
    if (task.endCostPerDay !== undefined) number(task.endCostPerDay, `What ${id} costs to the end`)
  }
  for (const { machine, day } of problem.fixed ?? []) whole(day, `The day of a booked visit to ${machine}`)
  for (const { machine, day, moveCost } of problem.present ?? []) {
    whole(day, `The day of a planned visit to ${machine}`)
    number(moveCost, `What moving a visit to ${machine} costs`, 0)
  }
}
