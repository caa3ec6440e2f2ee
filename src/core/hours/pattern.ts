import { dayNumber, daysBetweenInstants } from '../calendar'
import type { CumulativePoint } from './cumulative'

/** Days on which a machine is known to stand; `to` null means until further notice. Both ends stand. */
export type LayUp = { from: string; to: string | null }

/**
 * How use is spread over the week and the year: 1 is an average day. Weekdays from Monday, months from
 * January.
 */
export type UsePattern = { weekdays: number[]; months: number[] }

export const evenPattern: UsePattern = { weekdays: Array(7).fill(1), months: Array(12).fill(1) }

/** Three years back are plenty: older use says little of what comes. */
const longestDays = 1096
/** A lay-up that was told of and still counted some hours keeps a trace, so that no hour is lost. */
export const laidUpTrace = 0.02
/** As many average weeks as are taken to have been seen before a weekday is believed. */
const weekdayDoubt = 1
/** As many average months, before a month is believed. */
const monthDoubt = 0.2
/** Months are learned once nearly a year was seen: before that they cannot be told from a change of level. */
const wholeYearDays = 350
const rounds = 12

/** Monday is 0; 1970-01-01, day number 0, was a Thursday. */
export const weekdayOf = (dayNumber: number) => (((dayNumber + 3) % 7) + 7) % 7

/** January is 0. Days are counted from 1 March of year 0, so that the leap day ends a year (a date object costs far more). */
export function monthOf(dayNumber: number): number {
  const day = dayNumber + 719_468
  const inEra = day - Math.floor(day / 146_097) * 146_097
  const year = Math.floor(
    (inEra - Math.floor(inEra / 1460) + Math.floor(inEra / 36_524) - Math.floor(inEra / 146_096)) / 365,
  )
  const inYear = inEra - (365 * year + Math.floor(year / 4) - Math.floor(year / 100))
  const fromMarch = Math.floor((5 * inYear + 2) / 153)
  return (fromMarch + 2) % 12
}

export const dayNumberAt = (at: string, offsetDays: number) => Date.parse(at) / 86_400_000 + offsetDays

/** Lay-ups as day numbers, first and last; asked for every day of a history, they are read once. */
export type LaidUpDays = { first: number; last: number }[]

export function laidUpDays(layUps: LayUp[]): LaidUpDays {
  return layUps.map(({ from, to }) => ({
    first: dayNumber(from),
    last: to === null ? Infinity : dayNumber(to),
  }))
}

export const isLaidUp = (days: LaidUpDays, day: number) =>
  days.some(({ first, last }) => day >= first && day <= last)

/**
 * Learns how use is spread over weekdays and months from readings that lie one or more days apart.
 *
 * Each gap's hours are shared out over its days in proportion to what the pattern so far expects of
 * them; weekdays and months are then what was shared out to them over what was expected of them; a few
 * rounds of this settle (expectation-maximisation for sums of counts). Each factor is shrunk towards 1
 * by pretended average weeks and months, so that little evidence moves little; months are smoothed with
 * their neighbours and left at 1 until a year was seen. Days of a told lay-up teach nothing.
 *
 * @param line a meter's cumulative line
 * @param layUps known lay-ups of its machine
 * @param offsetDays how far the company's clocks are ahead of UTC, in days
 */
export function patternOfUse(
  line: { points: Pick<CumulativePoint, 'at' | 'hours'>[] },
  layUps: LayUp[],
  offsetDays = 0,
): UsePattern {
  const last = line.points.at(-1)
  const points = last
    ? line.points.filter((point) => daysBetweenInstants(point.at, last.at) <= longestDays)
    : []
  if (points.length < 4) return evenPattern
  const times = points.map((point) => dayNumberAt(point.at, offsetDays))
  const firstDay = Math.floor(times[0]!)
  const count = Math.floor(times.at(-1)!) - firstDay + 1
  const weekday = Array.from({ length: count }, (_, index) => weekdayOf(firstDay + index))
  const month = Array.from({ length: count }, (_, index) => monthOf(firstDay + index))
  const standing = laidUpDays(layUps)
  const open = Array.from({ length: count }, (_, index) => (isLaidUp(standing, firstDay + index) ? 0 : 1))
  const openDays = open.reduce((sum: number, each) => sum + each, 0)
  const total = points.at(-1)!.hours - points[0]!.hours
  if (total <= 0 || openDays < 14) return evenPattern
  const rate = total / openDays
  const learnsMonths = times.at(-1)! - times[0]! >= wholeYearDays
  // Each gap's open days and how much of each lies in it, laid out once for all rounds.
  const at: number[] = []
  const widths: number[] = []
  const gaps: { used: number; start: number; end: number }[] = []
  for (let index = 1; index < points.length; index += 1) {
    const [from, to] = [times[index - 1]!, times[index]!]
    const start = at.length
    for (let day = Math.floor(from); day < to; day += 1) {
      const width = Math.min(day + 1, to) - Math.max(day, from)
      if (width <= 0 || !open[day - firstDay]) continue
      at.push(day - firstDay)
      widths.push(width)
    }
    if (at.length > start)
      gaps.push({ used: points[index]!.hours - points[index - 1]!.hours, start, end: at.length })
  }
  let weekdays: number[] = Array(7).fill(1)
  let months: number[] = Array(12).fill(1)
  for (let round = 0; round < rounds; round += 1) {
    const weekdayGot = Array(7).fill(0)
    const weekdayExpected = Array(7).fill(0)
    const monthGot = Array(12).fill(0)
    const monthExpected = Array(12).fill(0)
    for (const { used, start, end } of gaps) {
      let expected = 0
      for (let index = start; index < end; index += 1)
        expected += widths[index]! * weekdays[weekday[at[index]!]!]! * months[month[at[index]!]!]!
      const perExpected = used / expected
      for (let index = start; index < end; index += 1) {
        const d = weekday[at[index]!]!
        const m = month[at[index]!]!
        const share = perExpected * widths[index]! * weekdays[d]! * months[m]!
        weekdayGot[d] += share
        weekdayExpected[d] += rate * widths[index]! * months[m]!
        monthGot[m] += share
        monthExpected[m] += rate * widths[index]! * weekdays[d]!
      }
    }
    const believed = (got: number, expected: number, doubt: number) => (got + doubt) / (expected + doubt)
    weekdays = evened(
      weekdays.map((_, d) => believed(weekdayGot[d], weekdayExpected[d], rate * weekdayDoubt)),
    )
    if (!learnsMonths) continue
    const raw = months.map((_, m) => believed(monthGot[m], monthExpected[m], rate * monthDoubt * 30))
    months = evened(raw.map((_, m) => (raw[(m + 11) % 12]! + 2 * raw[m]! + raw[(m + 1) % 12]!) / 4))
  }
  return { weekdays, months }
}

function evened(factors: number[]): number[] {
  const mean = factors.reduce((sum, each) => sum + each, 0) / factors.length
  return factors.map((each) => each / mean)
}
