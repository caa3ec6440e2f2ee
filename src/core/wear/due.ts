import { addDays, daysBetween, type Day } from '../calendar'
import type { Clock } from './clock'

/** The use to come of what a clock counts, in its own hours (or strokes). */
export type ComingUse = {
  /** The day by which so many more hours are reached with this probability; null where not in sight. */
  dayReaching: (hours: number, probability: number) => Day | null
  /** Hours in an average day, to say how long ago a passed limit was passed. */
  perDay: number
}

/** The four terms of a clock, as days. */
export type Due = {
  /** The median day on which the limit is reached, by hours or by days, whichever comes first. */
  dueDay: Day | null
  /** Which gets there first; a sign that was seen can be before both. */
  firstBy: 'hours' | 'days' | 'sign' | null
  /** The days by which it is reached with 10 and with 90 %; no end where it may never be. */
  band: { early: Day; late: Day | null } | null
  /** From the median day of (1 - early) x limit to the 10 % day of (1 + late) x limit. */
  window: { from: Day; to: Day } | null
  /** The 10 % day of the limit less the parts' lead time less the crew's notice. */
  lastResponsibleDay: Day | null
}

/**
 * Due day, band, allowed window and last responsible day of a clock, from its hours by the forecast and
 * from its days by the calendar, whichever comes first at each.
 *
 * What is behind is dated too: a limit passed by hours was passed about as many days ago as the hours
 * beyond it take at the present use, so that what waits longest comes first.
 *
 * @param clock used hours and days, and limits; from `clockOf`
 * @param tolerance shares of the limit
 * @param use null while nothing counts it (on the shelf): then only its days run
 * @param leadDays until the parts that are missing for it can be here; 0 where the stores have them
 * @param noticeDays that the crew needs beforehand
 * @example
 * // 700 of 800 h at 5 h a day, steadily: due in 20 days; parts take 21, the crew wants 2: overdue to act
 * dueOf(clock, { early: 0.1, late: 0.1 }, today, use, 21, 2).lastResponsibleDay // three days ago
 */
export function dueOf(
  clock: Clock,
  tolerance: { early: number; late: number },
  today: Day,
  use: ComingUse | null,
  leadDays: number,
  noticeDays: number,
): Due {
  const byHours = (share: number, probability: number): Day | null => {
    if (clock.hoursLimit === null) return null
    const left = share * clock.hoursLimit - clock.hoursUsed
    if (left > 0) return use ? use.dayReaching(left, probability) : null
    return use && use.perDay > 0 ? addDays(today, Math.round(left / use.perDay)) : today
  }
  const byDays = (share: number): Day | null =>
    clock.daysLimit === null ? null : addDays(today, Math.round(share * clock.daysLimit) - clock.daysUsed)
  const first = (share: number, probability: number) => earlier(byHours(share, probability), byDays(share))
  const dueDay = first(1, 0.5)
  const early = first(1, 0.1)
  const from = first(1 - tolerance.early, 0.5)
  const to = first(1 + tolerance.late, 0.1)
  return {
    dueDay,
    firstBy: dueDay === null ? null : dueDay === byDays(1) ? 'days' : 'hours',
    band: early === null ? null : { early, late: first(1, 0.9) },
    window: from === null || to === null ? null : { from, to: to < from ? from : to },
    lastResponsibleDay: early === null ? null : addDays(early, -leadDays - noticeDays),
  }
}

function earlier(a: Day | null, b: Day | null): Day | null {
  if (a === null || b === null) return a ?? b
  return daysBetween(a, b) < 0 ? b : a
}
