import { daysBetweenInstants } from '../calendar'
import { hoursAt, type CumulativeLine } from './cumulative'
import type { Standing } from './types'

/** How hard a machine has been used: mean use a day and the variance of one day's use. */
export type DailyUse = { meanPerDay: number; variancePerDay: number; gaps: number }

/** The use that would be plausible over a gap: expected, and the 99 % band around it. */
export type UseBand = { expected: number; low: number; high: number }

const halfLifeDays = 42
const windowDays = 182
// Until a machine has a history of its own it is taken for one that runs about 3 h a day, give or take 3 h.
const prior = { meanPerDay: 3, variancePerDay: 9, days: 2, gaps: 1 }
// The mean itself drifts from one stretch to the next; a long gap must not look better known than it is.
const driftShare = 0.15
const z99 = 2.576
// A machine that stands is moved about the yard and started to see that it does: so much of a day's use.
const standingShare = 0.02

/**
 * Use a day from the gaps between readings of the last half year, recent ones weighing more
 * (half-life six weeks), shrunk towards a plain prior where there are few.
 * The variance is that of whole gaps scaled to a day, so bursts of jobs with idle weeks between
 * them give a wide band. Days on which the machine was laid up are left out. A default of ours, tuned
 * against invented histories.
 *
 * @param line a meter's cumulative line
 * @param before only gaps that end at or before this instant count
 * @param standing when the machine was or is laid up
 */
export function dailyUse(line: CumulativeLine, before: string, standing: Standing[] = []): DailyUse {
  let weightedUse = prior.meanPerDay * prior.days
  let weightedDays = prior.days
  const gaps: { use: number; days: number; weight: number }[] = []
  for (let index = 1; index < line.points.length; index += 1) {
    const from = line.points[index - 1]!
    const to = line.points[index]!
    const days = workingDays(from.at, to.at, standing)
    const age = daysBetweenInstants(to.at, before)
    if (age < 0 || age > windowDays || days < 0.25) continue
    const weight = 2 ** (-age / halfLifeDays)
    gaps.push({ use: to.hours - from.hours, days, weight })
    weightedUse += weight * (to.hours - from.hours)
    weightedDays += weight * days
  }
  const meanPerDay = weightedUse / weightedDays
  let squares = prior.variancePerDay * prior.gaps
  let weights = prior.gaps
  for (const gap of gaps) {
    squares += (gap.weight * (gap.use - meanPerDay * gap.days) ** 2) / gap.days
    weights += gap.weight
  }
  return { meanPerDay, variancePerDay: squares / weights, gaps: gaps.length }
}

/** Days of a stretch laid up, with fractions. Stretches of standing do not overlap. */
export function standingDays(from: string, to: string, standing: Standing[]): number {
  return standing.reduce((sum, each) => {
    const start = each.from > from ? each.from : from
    const end = each.to !== null && each.to < to ? each.to : to
    return end > start ? sum + daysBetweenInstants(start, end) : sum
  }, 0)
}

/** How many days of use a stretch has: a day laid up is next to none. */
export function workingDays(from: string, to: string, standing: Standing[]): number {
  return daysBetweenInstants(from, to) - (1 - standingShare) * standingDays(from, to, standing)
}

/**
 * The use that would be plausible over `days` days: mean and 99 % band, never below zero and,
 * for an hour meter, never above 24 h a day.
 */
export function plausibleUse(use: DailyUse, days: number, unit: 'h' | 'strokes'): UseBand {
  const expected = use.meanPerDay * days
  const spread = z99 * Math.sqrt(use.variancePerDay * days + (driftShare * expected) ** 2)
  const ceiling = unit === 'h' ? 24 * days : Infinity
  return {
    expected: Math.min(expected, ceiling),
    low: Math.max(0, expected - spread),
    high: Math.min(ceiling, expected + spread),
  }
}

/**
 * Mean use a week over the `weeks` up to the newest point, or null where less than a week is known.
 * @example weeklyUse(line, 6) // 46.2, in hours a week
 */
export function weeklyUse(line: CumulativeLine, weeks: number): number | null {
  const first = line.points[0]
  const last = line.points.at(-1)
  if (!first || !last) return null
  const from = new Date(Date.parse(last.at) - weeks * 7 * 86_400_000).toISOString()
  const start = first.at > from ? first.at : from
  const days = daysBetweenInstants(start, last.at)
  if (days < 7) return null
  return ((last.hours - (hoursAt(line, start) ?? last.hours)) / days) * 7
}
