import { daysBetween, type Day } from '../calendar'

/**
 * How likely a limit is reached by a day, read off its 10, 50 and 90 % days: straight lines between
 * them, 0 well before the first and 1 well after the last.
 *
 * @param due its median day and band
 * @returns 0 to 1
 * @example chanceBy({ dueDay: '2026-11-03', band: { early: '2026-10-30', late: '2026-11-07' } }, '2026-11-01') // 0.3
 */
export function chanceBy(
  due: { dueDay: Day | null; band: { early: Day; late: Day | null } | null },
  day: Day,
): number {
  if (due.band === null || due.dueDay === null) return 0
  const { early, late } = due.band
  const at = (from: Day) => daysBetween(from, day)
  if (at(early) < 0) return 0
  if (at(due.dueDay) < 0) return 0.1 + (0.4 * at(early)) / Math.max(1, daysBetween(early, due.dueDay))
  if (late === null) return 0.5
  if (at(late) < 0) return 0.5 + (0.4 * at(due.dueDay)) / Math.max(1, daysBetween(due.dueDay, late))
  return 1
}
