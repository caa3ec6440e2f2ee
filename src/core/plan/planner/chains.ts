import { dayCost, reachOf } from './dayCost'
import type { Task } from './linked'

const { max, min } = Math
const endless = Infinity

/** The days' costs of a task's times, and what is charged from its last day to the end of the horizon. */
export function chainCost(task: Task, days: readonly number[], horizon: number): number {
  let cost = 0
  let due = task.due
  for (const day of days) {
    cost += dayCost(task, day, due)
    due = day + (task.repeatEveryDays ?? 0)
  }
  if (task.repeatEveryDays !== undefined && task.endCostPerDay)
    cost += task.endCostPerDay * (horizon - days[days.length - 1]!)
  return cost
}

/** Whether the next time of a task is due inside the horizon and is not done. */
export const isBroken = (task: Task, days: readonly number[], horizon: number): boolean =>
  task.repeatEveryDays !== undefined && days[days.length - 1]! + task.repeatEveryDays < horizon

/** For each day the least that follows a time on it, that day itself not counted; and the next day, -1 for none. */
export type Tails = { cost: Float64Array; next: Int16Array }

/** How the times of a task follow each other for least, asked again and again while visits come and go. */
export class Chains {
  /** Nothing follows what does not come again. */
  private readonly once: Tails

  /**
   * @param missingWeighs what a time that finds no day weighs
   * @param addCost what it adds to the cost to do tasks on a day; Infinity where a rule forbids it
   */
  constructor(
    private readonly horizon: number,
    private readonly missingWeighs: number,
    private readonly addCost: (tasks: readonly Task[], day: number) => number,
  ) {
    this.once = { cost: new Float64Array(horizon), next: new Int16Array(horizon).fill(-1) }
  }

  /**
   * @param from the first day on which the time before may lie
   * @param allowed the days on which repeats may lie; null for all
   */
  tails(task: Task, from: number, allowed: ReadonlySet<number> | null): Tails {
    const { horizon } = this
    const every = task.repeatEveryDays
    if (every === undefined) return this.once
    const cost = new Float64Array(horizon)
    const next = new Int16Array(horizon).fill(-1)
    const end = task.endCostPerDay ?? 0
    const { earlyDays, lateDays } = reachOf(task)
    const { alone, laterCosts } = task
    const visit = new Float64Array(horizon).fill(-1)
    for (let day = horizon - 1; day >= from; day--) {
      const stop = end * (horizon - day)
      if (day + every >= horizon) {
        cost[day] = stop
        continue
      }
      let best = stop + this.missingWeighs
      let to = -1
      const due = day + every
      const last = min(due + lateDays, horizon - 1)
      const shift = earlyDays - due
      for (let later = max(day + 1, due - earlyDays, 0); later <= last; later++) {
        if (allowed && !allowed.has(later)) continue
        if (visit[later] === -1) visit[later] = this.addCost(alone, later)
        const add = visit[later]!
        if (add === endless) continue
        const sum = add + laterCosts[later + shift]! + cost[later]!
        if (sum < best) {
          best = sum
          to = later
        }
      }
      cost[day] = best
      next[day] = to
    }
    return { cost, next }
  }
}
