import type { Limit } from '../models'

export type ClockState = 'healthy' | 'dueSoon' | 'over' | 'overdue'

/** How far a life or a task is towards its limit, by hours and by days. */
export type Clock = {
  state: ClockState
  /** Used share of the limit, by whichever of hours and days is further: 1 is the limit. */
  share: number
  /** Which of the two is further. */
  by: 'hours' | 'days'
  hoursUsed: number
  daysUsed: number
  hoursLimit: number | null
  daysLimit: number | null
  /** What is left until the limit; negative once it is passed. Null where there is no such limit. */
  hoursLeft: number | null
  daysLeft: number | null
}

/**
 * The clock of a life or task: whichever of hours and days comes first.
 *
 * Healthy until inside the early tolerance, then due soon; over past the limit, inside the late
 * tolerance; overdue beyond it. A first interval, where the limit has one, holds for the first life or
 * the first time the task falls due. Calendar clocks run through a lay-up; hours do not, since nothing
 * is read then.
 *
 * @param used hours (or strokes) and days since it was fitted or last done
 * @param limit hours, days or both
 * @param tolerance shares of the limit
 * @param first whether this is the first interval after fitting
 * @example
 * clockOf({ hours: 846, days: 120 }, { hours: 800, days: 730, firstHours: null, firstDays: null }, { early: 0.1, late: 0.1 })
 * // { state: 'over', share: 1.0575, by: 'hours', hoursLeft: -46, daysLeft: 610, … }
 */
export function clockOf(
  used: { hours: number; days: number },
  limit: Limit,
  tolerance: { early: number; late: number },
  first = false,
): Clock {
  const hoursLimit = first ? (limit.firstHours ?? limit.hours) : limit.hours
  const daysLimit = first ? (limit.firstDays ?? limit.days) : limit.days
  const hoursShare = hoursLimit === null ? 0 : used.hours / hoursLimit
  const daysShare = daysLimit === null ? 0 : used.days / daysLimit
  const byHours = hoursLimit !== null && (daysLimit === null || hoursShare >= daysShare)
  const share = Math.max(hoursShare, daysShare)
  return {
    state: stateOf(share, tolerance),
    share,
    by: byHours ? 'hours' : 'days',
    hoursUsed: used.hours,
    daysUsed: used.days,
    hoursLimit,
    daysLimit,
    hoursLeft: hoursLimit === null ? null : hoursLimit - used.hours,
    daysLeft: daysLimit === null ? null : daysLimit - used.days,
  }
}

function stateOf(share: number, tolerance: { early: number; late: number }): ClockState {
  if (share > 1 + tolerance.late) return 'overdue'
  if (share > 1) return 'over'
  // Floating point must not push 0.9 of a limit out of a tenth of tolerance.
  return share >= 1 - tolerance.early - 1e-9 ? 'dueSoon' : 'healthy'
}

/** How bad a state is. */
export const stateRank: Record<ClockState, number> = { overdue: 3, over: 2, dueSoon: 1, healthy: 0 }

/** Worst first: by state, then by used share. */
export function worseClock(a: Clock, b: Clock): number {
  return stateRank[b.state] - stateRank[a.state] || b.share - a.share
}
