import type { PlanTask } from './types'

type Costs = Pick<PlanTask, 'due' | 'earlyCostPerDay' | 'lateCostPerDay' | 'costByDay'>

/**
 * What doing a task on a day costs by the day alone: life given up before its due day, risk from it on. A repeat
 * has the shape of the first, as far from its own due day.
 *
 * @param due the due day of this time; the task's own for the first
 */
export function dayCost(task: Costs, day: number, due: number = task.due): number {
  const known = task.costByDay?.[day - due + task.due]
  if (known !== undefined) return known
  return day < due ? task.earlyCostPerDay * (due - day) : task.lateCostPerDay * (day - due)
}

/** How many days before and after its due day a repeat may be done. */
export const reachOf = (task: Pick<PlanTask, 'due' | 'earliest' | 'latest' | 'earlyDays' | 'lateDays'>) => ({
  earlyDays: task.earlyDays ?? task.due - task.earliest,
  lateDays: task.lateDays ?? task.latest - task.due,
})

/** The due day of a repeat, and the days between which it may be done, after the time before it. */
export function repeatWindow(task: PlanTask, before: number): { due: number; from: number; to: number } {
  const due = before + task.repeatEveryDays!
  const { earlyDays, lateDays } = reachOf(task)
  return { due, from: Math.max(before + 1, due - earlyDays), to: due + lateDays }
}
