import { addDays, dayFromNumber, dayNumber, daysBetween, type Day } from '../calendar'
import type { CumulativePoint } from './cumulative'
import { chanceOfAtLeast, quantile } from './gamma'
import { bestMemory, sumsOf, type Memory } from './level'
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
const horizons = [1, 2, 4, 8, 16] as const
/** No wider than this share of the squared mean: beyond it the middle of a gamma falls towards nothing. */
const widest = 1.5
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
  const fit = fitUsage(line, known)
  return fit && forecastBy(fit, today, known)
}

/** What was learned from a meter's history: plain figures, so that they can be kept. */
export type UsageFit = {
  pattern: UsePattern
  /** Hours in an average week. */
  level: number
  /** Squared misses of the level over 1, 2, 4, 8 and 16 weeks. */
  spreads: number[]
  rests: Omit<UsageForecast['rests'], 'ageDays'>
  from: string
}

/**
 * The costly half of a forecast: how use is spread, its level and how well that foretold its own past.
 * Null where the history is shorter than two weeks or nothing runs.
 */
export function fitUsage(
  line: UsedLine,
  { layUps, offsetDays: offset = 0 }: Pick<KnownAhead, 'layUps' | 'offsetDays'>,
): UsageFit | null {
  const first = line.points[0]
  const last = line.points.at(-1)
  if (!first || !last) return null
  if (dayNumberAt(last.at, offset) - dayNumberAt(first.at, offset) < 2 * week) return null
  const best = bestOf(line, layUps, offset)
  if (!best || best.levels.at(-1)! <= 0) return null
  const { pattern, weeks, levels, halfLife } = best
  return {
    pattern,
    level: levels.at(-1)!,
    spreads: horizons.map((horizon) => spreadAt(weeks, levels, horizon)),
    rests: restsOn(line, halfLife, dayNumberAt(last.at, offset), offset),
    from: last.at,
  }
}

/** The other half: what was learned, looking ahead from a day with what is known of the days to come. */
export function forecastBy(fit: UsageFit, today: Day, known: KnownAhead): UsageForecast {
  const { pattern, level, spreads } = fit
  const start = dayNumberAt(fit.from, known.offsetDays ?? 0)
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
    rests: { ...fit.rests, ageDays: daysBetween(fromDay, today) },
    pattern,
    from: fit.from,
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

type Fit = Memory & { pattern: UsePattern; weeks: number[] }

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
  // Plain numbers, since a fleet keeps hundreds of thousands of them.
  let even = new Float64Array(128)
  let booked = new Float64Array(128)
  let count = 0
  const sumTo = (index: number): Ahead => {
    if (index >= even.length) {
      even = longer(even, index)
      booked = longer(booked, index)
    }
    for (; count <= index; count += 1) {
      const day = firstDay + count
      const left = count === 0 ? firstDay + 1 - start : 1
      const job = jobs.find((each) => day >= each.first && day <= each.last)
      const onJob = job !== undefined && !isLaidUp(standing, day)
      const evenBefore = count === 0 ? 0 : even[count - 1]!
      const bookedBefore = count === 0 ? 0 : booked[count - 1]!
      even[count] = onJob ? evenBefore : evenBefore + left * evenShare(day, pattern, standing, 0)
      booked[count] = onJob ? bookedBefore + left * job.hoursPerDay : bookedBefore
    }
    return { even: even[index]!, booked: booked[index]! }
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

function longer(values: Float64Array<ArrayBuffer>, index: number): Float64Array<ArrayBuffer> {
  const grown = new Float64Array(Math.max(2 * values.length, index + 1))
  grown.set(values)
  return grown
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
