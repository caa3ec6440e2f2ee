import { addDays, dayFromNumber, dayNumber, daysBetween, type Day } from '../calendar'
import type { CumulativePoint } from './cumulative'
import {
  dayNumberAt,
  evenPattern,
  isLaidUp,
  laidUpDays,
  laidUpTrace,
  type LaidUpDays,
  monthOf,
  patternOfUse,
  weekdayOf,
  type LayUp,
  type UsePattern,
} from './pattern'

/** A job the machine is booked for, and how many hours a day its meter is expected to run then. */
export type JobBooking = { from: Day; to: Day; hoursPerDay: number }

/** What is known of the days to come, and of lay-ups gone by. */
export type KnownAhead = {
  layUps: LayUp[]
  bookings: JobBooking[]
  /** How far the company's clocks are ahead of UTC, in days; 0 where not said. */
  offsetDays?: number
}

/** What a forecast is made from: the points of a cumulative line. */
export type UsedLine = { points: Pick<CumulativePoint, 'at' | 'hours' | 'source'>[] }

/** What is known of a meter's use to come. */
export type UsageForecast = {
  /** Hours in an average week, as the recent weeks have it. */
  weekly: number
  /** The readings and weeks that level rests on, the hours a week in them, and the newest reading's age in days. */
  rests: { readings: number; weeks: number; weekly: number; ageDays: number }
  pattern: UsePattern
  /** The newest reading's instant and day; everything is counted from it. */
  from: string
  fromDay: Day
  /** Mean and 10 to 90 % band of the hours added within so many days. */
  hoursWithin: (days: number) => { mean: number; low: number; high: number }
  /** The same by the end of a day; nothing is added on or before the newest reading's day. */
  hoursBy: (day: Day) => { mean: number; low: number; high: number }
  /** Days from the newest reading by which so many more hours are reached with this probability. */
  daysReaching: (extraHours: number, probability: number) => number | null
  /** The same as a calendar day. */
  dayReaching: (extraHours: number, probability: number) => Day | null
}

const week = 7
/** Level memories that are tried, in weeks; the one that missed least in the meter's own past is taken. */
const halfLives = [2, 4, 8, 16, 52, 300] as const
const horizons = [1, 2, 4, 8, 16] as const
/** No wider than this share of the squared mean: beyond it the middle of a gamma falls towards nothing. */
const widest = 1.5
/** How much the last year as a whole says beside the recent weeks. */
const yearShare = 0.1
/** A booked job runs its hours give or take this share. */
const bookedSpread = 0.25
/** Beyond this the answer is "not in sight". */
const farDays = 3650
const z10 = 1.2815515655446004

/**
 * Forecasts the use of a meter from its history and from what is known of the days to come.
 *
 * How use is spread over the week and the year is learned first (`patternOfUse`). History and future are
 * then measured in *even days*: a quiet January day counts less than one, a day laid up nothing. On
 * that scale hours are summed to weeks; the level is their exponentially weighted mean, with the memory
 * that missed least in this meter's own past, and nothing from before a marked change of level. How far such a level has missed the sum of the next 1, 2,
 * 4, 8 and 16 weeks is its variance at those horizons, blended with a plain assumption where there are
 * few; between them it is interpolated, beyond them it goes on at the slope of the last two, never
 * faster than a level that is simply wrong. So bursts of jobs and changes of level widen the band by as
 * much as they did before. On days of a booked job its own hours stand instead of the level. Hours
 * never fall, so the chance of having reached H by a day is the chance that the hours by then are H or
 * more; hours within so many days are taken as gamma distributed (Wilson and Hilferty's cube-root
 * approximation, 1931).
 *
 * @param line a meter's cumulative line, in hours or strokes
 * @param today the day it is asked on; only says how old the newest reading is
 * @param known lay-ups past and to come, and booked jobs
 * @returns null with less than two weeks of history or no use at all
 * @example
 * // 20 h a week, every week, for half a year: 100 h more are reached in about 35 days.
 * forecastUsage(line, today)!.daysReaching(100, 0.5) // 35
 * // laid up for the first 30 of them: in about 65
 */
export function forecastUsage(
  line: UsedLine,
  today: Day,
  known: KnownAhead = { layUps: [], bookings: [] },
): UsageForecast | null {
  const first = line.points[0]
  const last = line.points.at(-1)
  if (!first || !last) return null
  const offset = known.offsetDays ?? 0
  if (dayNumberAt(last.at, offset) - dayNumberAt(first.at, offset) < 2 * week) return null
  const best = bestOf(line, known.layUps, offset)
  if (!best || best.levels.at(-1)! <= 0) return null
  const { pattern, weeks, levels, halfLife } = best
  const level = levels.at(-1)!
  const spreads = horizons.map((horizon) => spreadAt(weeks, levels, horizon))
  const start = dayNumberAt(last.at, offset)
  const future = daysAhead(start, pattern, known)
  const meanAt = ({ even, booked }: Ahead) => (level * even) / week + booked
  const varianceAtPoint = (ahead: Ahead) =>
    Math.min(varianceAt(spreads, ahead.even / week, level), widest * ((level * ahead.even) / week) ** 2) +
    (bookedSpread * ahead.booked) ** 2
  const within = (days: number) => {
    const ahead = future(days)
    const mean = meanAt(ahead)
    const variance = varianceAtPoint(ahead)
    return { mean, low: quantile(mean, variance, -z10), high: quantile(mean, variance, z10) }
  }
  const reached = (days: number, hours: number) => {
    const ahead = future(days)
    return chanceOfAtLeast(hours, meanAt(ahead), varianceAtPoint(ahead))
  }
  const daysReaching = (extraHours: number, probability: number) => {
    if (extraHours <= 0) return 0
    let low = 0
    let high = 1
    while (reached(high, extraHours) < probability) {
      if (high >= farDays) return null
      low = high
      high = Math.min(high * 2, farDays)
    }
    while (high - low > 0.25) {
      const middle = (low + high) / 2
      if (reached(middle, extraHours) < probability) low = middle
      else high = middle
    }
    return high
  }
  const fromDay = dayFromNumber(Math.floor(start))
  return {
    weekly: level,
    rests: { ...restsOn(line, halfLife, start, offset), ageDays: daysBetween(fromDay, today) },
    pattern,
    from: last.at,
    fromDay,
    hoursWithin: within,
    hoursBy: (day) => within(Math.max(0, dayNumber(day) + 1 - start)),
    daysReaching,
    dayReaching: (extraHours, probability) => {
      const days = daysReaching(extraHours, probability)
      return days === null ? null : addDays(fromDay, Math.round(days))
    },
  }
}

/** The calendar days by which so many more hours are reached: 10, 50 and 90 %; null where not in sight. */
export function dueDays(
  forecast: UsageForecast,
  extraHours: number,
): { early: Day | null; median: Day | null; late: Day | null } {
  const day = (probability: number) => forecast.dayReaching(extraHours, probability)
  return { early: day(0.1), median: day(0.5), late: day(0.9) }
}

/** `levels[n]` is what the weeks before week n say of the ones to come. */
type Fit = { pattern: UsePattern; weeks: number[]; levels: number[]; halfLife: number; miss: number }

/** The pattern and memory that missed least in the meter's own past: with weekdays and months, or without months. */
function bestOf(line: UsedLine, layUps: LayUp[], offset: number): Fit | null {
  const full = patternOfUse(line, layUps, offset)
  const standing = laidUpDays(layUps)
  const seasonal = full.months.some((factor) => Math.abs(factor - 1) > 0.02)
  const candidates = [{ ...full, months: evenPattern.months }, ...(seasonal ? [full] : [])]
  const fits = candidates.flatMap((pattern): Fit[] => {
    const weeks = evenWeeks(line, pattern, standing, offset)
    return weeks.length < 2 ? [] : [{ pattern, weeks, ...bestMemory(weeks) }]
  })
  const [plain, season] = fits
  if (!plain || !season) return plain ?? null
  return season.miss < plain.miss ? season : plain
}

/** How much of an average day a day is. */
function evenShare(day: number, pattern: UsePattern, standing: LaidUpDays, laidUp: number): number {
  if (standing.length > 0 && isLaidUp(standing, day)) return laidUp
  return pattern.weekdays[weekdayOf(day)]! * pattern.months[monthOf(day)]!
}

/** Hours of each whole week of even days back from the newest point, oldest first; at most three years. */
function evenWeeks(line: UsedLine, pattern: UsePattern, standing: LaidUpDays, offset: number): number[] {
  const end = dayNumberAt(line.points.at(-1)!.at, offset)
  const points = line.points.filter((point) => dayNumberAt(point.at, offset) >= end - 156 * week)
  const marks: { even: number; hours: number }[] = []
  let even = 0
  points.forEach((point, index) => {
    if (index > 0) {
      const to = dayNumberAt(point.at, offset)
      for (let from = dayNumberAt(points[index - 1]!.at, offset); from < to;) {
        const next = Math.min(Math.floor(from) + 1, to)
        even += (next - from) * evenShare(Math.floor(from), pattern, standing, laidUpTrace)
        from = next
      }
    }
    marks.push({ even, hours: point.hours })
  })
  const count = Math.floor(even / week)
  let at = 0
  const hoursOn = (wanted: number) => {
    while (at < marks.length - 2 && marks[at + 1]!.even <= wanted) at += 1
    const before = marks[at]!
    const after = marks[at + 1] ?? before
    const width = after.even - before.even
    const share = width <= 0 ? 1 : Math.min(1, Math.max(0, (wanted - before.even) / width))
    return before.hours + share * (after.hours - before.hours)
  }
  const hours = Array.from({ length: count + 1 }, (_, index) => hoursOn(even - (count - index) * week))
  return hours.slice(1).map((each, index) => Math.max(0, each - hours[index]!))
}

type Ahead = { even: number; booked: number }

/** Even days and booked hours within so many days from an instant; worked out as far as it is asked. */
function daysAhead(start: number, pattern: UsePattern, known: KnownAhead): (days: number) => Ahead {
  const firstDay = Math.floor(start)
  const standing = laidUpDays(known.layUps)
  const jobs = known.bookings.map((job) => ({ ...job, first: dayNumber(job.from), last: dayNumber(job.to) }))
  // What each day adds is summed up to its end; the first day counts only for what is left of it.
  const sums: Ahead[] = []
  const sumTo = (index: number): Ahead => {
    while (sums.length <= index) {
      const day = firstDay + sums.length
      const before = sums.at(-1) ?? { even: 0, booked: 0 }
      const left = sums.length === 0 ? firstDay + 1 - start : 1
      const job = jobs.find((each) => day >= each.first && day <= each.last)
      sums.push(
        job && !isLaidUp(standing, day)
          ? { even: before.even, booked: before.booked + left * job.hoursPerDay }
          : { even: before.even + left * evenShare(day, pattern, standing, 0), booked: before.booked },
      )
    }
    return sums[index]!
  }
  return (days) => {
    const end = start + Math.min(days, farDays)
    const index = Math.floor(end) - firstDay
    const after = sumTo(index)
    const before = index === 0 ? { even: 0, booked: 0 } : sumTo(index - 1)
    const width = index === 0 ? firstDay + 1 - start : 1
    const share = width <= 0 ? 1 : (end - Math.max(start, firstDay + index)) / width
    return {
      even: before.even + share * (after.even - before.even),
      booked: before.booked + share * (after.booked - before.booked),
    }
  }
}

/** The readings and weeks that carry nearly all of a level's weight: three half-lives of it. */
function restsOn(line: UsedLine, halfLife: number, end: number, offset: number) {
  const reach = end - Math.max(3 * halfLife, 8) * week
  const own = line.points.filter(
    (point) => point.source === 'reading' && dayNumberAt(point.at, offset) >= reach,
  )
  const [oldest, newest] = [own[0], line.points.at(-1)]
  const weeks = oldest ? (end - dayNumberAt(oldest.at, offset)) / week : 0
  return {
    readings: own.length,
    weeks: Math.max(1, Math.round(weeks)),
    weekly: oldest && newest && weeks > 0 ? (newest.hours - oldest.hours) / weeks : 0,
  }
}

/** The memory whose level missed the next four and twelve weeks least, in this meter's own past; eight weeks at first. */
function bestMemory(weeks: number[]): Pick<Fit, 'levels' | 'halfLife' | 'miss'> {
  const sums = sumsOf(weeks)
  const starts = changesIn(weeks, sums)
  const tried = halfLives.map((halfLife) => {
    const levels = levelsOf(weeks, sums, starts, halfLife)
    let miss = 0
    let looks = 0
    for (const horizon of [4, 12])
      for (let at = 6; at + horizon <= weeks.length; at += 1) {
        miss += Math.abs((sums[at + horizon]! - sums[at]!) / horizon - levels[at]!)
        looks += 1
      }
    return { levels, halfLife, miss: looks < 8 ? Infinity : miss / looks }
  })
  const least = Math.min(...tried.map(({ miss }) => miss))
  if (least === Infinity) return tried.find(({ halfLife }) => halfLife === 8)!
  // Of memories that missed about alike the longest is the calmest.
  return { ...tried.findLast(({ miss }) => miss <= least * 1.05 + 1e-6)!, miss: least }
}

/** `sums[n]` is the sum of the first n of a list. */
function sumsOf(list: number[]): number[] {
  const sums = [0]
  for (const each of list) sums.push(sums.at(-1)! + each)
  return sums
}

/**
 * For each week the week from which on the machine is used at another level than before it: the split
 * of its last 60 weeks whose means differ most for their scatter (Student's t), where that is past 4;
 * else 0.
 */
function changesIn(weeks: number[], sums: number[]): number[] {
  const squares = sumsOf(weeks.map((each) => each ** 2))
  return Array.from({ length: weeks.length + 1 }, (_, until) => {
    const oldest = Math.max(0, until - 60)
    let best = { at: 0, t: 4 }
    for (let at = until - 3; at >= oldest + 4; at -= 1) {
      const from = Math.max(oldest, at - 26)
      const [before, after] = [at - from, until - at]
      const [was, is] = [(sums[at]! - sums[from]!) / before, (sums[until]! - sums[at]!) / after]
      const scatter = squares[until]! - squares[from]! - before * was ** 2 - after * is ** 2
      // Weeks that are all alike would make any difference look certain.
      const variance = Math.max(0, scatter) / (before + after - 2) + (0.05 * (was + is)) ** 2
      const t = Math.abs(is - was) / Math.sqrt(variance * (1 / before + 1 / after))
      if (t > best.t) best = { at, t }
    }
    return best.at
  })
}

/** The level before each week: exponentially weighted, recent weeks more, none before a change of level. */
function levelsOf(weeks: number[], sums: number[], starts: number[], halfLife: number): number[] {
  const weights = weeks.map((_, index) => 2 ** (-index / halfLife))
  return Array.from({ length: weeks.length + 1 }, (_, until) => {
    if (until === 0) return 0
    const start = starts[until]!
    let sum = 0
    let all = 0
    for (let index = start; index < until; index += 1) {
      const weight = weights[until - 1 - index]!
      sum += weight * weeks[index]!
      all += weight
    }
    // What stands still today is not laid up for ever: the year as a whole keeps a say.
    const from = Math.max(start, until - 52)
    const year = (sums[until]! - sums[from]!) / (until - from)
    return (1 - yearShare) * (sum / all) + yearShare * year
  })
}

/**
 * The mean squared miss of the level against the sum of the next `horizon` weeks in the meter's own
 * past, blended with an assumption worth four such looks.
 */
function spreadAt(weeks: number[], levels: number[], horizon: number): number {
  const level = levels.at(-1)!
  const assumed = (0.45 * level) ** 2 * horizon + (0.2 * level * horizon) ** 2
  const sums = sumsOf(weeks)
  let squares = 4 * assumed
  let looks = 4
  for (let at = 4; at + horizon <= weeks.length; at += 1) {
    const sum = sums[at + horizon]! - sums[at]!
    // Looks that overlap say less each.
    const weight = 1 / Math.sqrt(horizon)
    squares += weight * (sum - horizon * levels[at]!) ** 2
    looks += weight
  }
  return squares / looks
}

function varianceAt(spreads: number[], horizonWeeks: number, level: number): number {
  if (horizonWeeks <= 0) return 0
  const first = spreads[0]!
  if (horizonWeeks <= 1) return first * horizonWeeks
  const at = horizons.findIndex((horizon) => horizon >= horizonWeeks)
  const upper = at === -1 ? horizons.length - 1 : at
  const [h0, h1] = [horizons[upper - 1]!, horizons[upper]!]
  const [v0, v1] = [spreads[upper - 1]!, spreads[upper]!]
  // Sums of independent weeks grow as the horizon, a wrong level as its square; nothing outside that.
  const slope = Math.min(2, Math.max(1, Math.log(v1 / v0) / Math.log(h1 / h0)))
  return at === -1
    ? v1 * (horizonWeeks / h1) ** slope
    : Math.min(v0 * (horizonWeeks / h0) ** slope, Math.max(v1, v0), (level * horizonWeeks * 1.5) ** 2 + v0)
}

/** P(X >= x) for a gamma variable of this mean and variance, by Wilson and Hilferty's cube root. */
function chanceOfAtLeast(x: number, mean: number, variance: number): number {
  if (mean <= 0) return x <= 0 ? 1 : 0
  if (variance <= 0) return mean >= x ? 1 : 0
  const c = variance / mean ** 2 / 9
  return 1 - normalBelow((Math.cbrt(x / mean) - (1 - c)) / Math.sqrt(c))
}

function quantile(mean: number, variance: number, z: number): number {
  if (mean <= 0 || variance <= 0) return Math.max(0, mean)
  const c = variance / mean ** 2 / 9
  return mean * Math.max(0, 1 - c + z * Math.sqrt(c)) ** 3
}

/** The normal distribution function; Abramowitz and Stegun 26.2.17, error below 7.5e-8. */
function normalBelow(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z))
  const tail =
    Math.exp((-z * z) / 2) *
    0.3989422804014327 *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return z >= 0 ? 1 - tail : tail
}
