import { addDays, daysBetweenInstants } from '../calendar'
import { hoursAt, type CumulativeLine } from './cumulative'

/** What is known of a meter's use to come. Days are counted from its newest reading. */
export type UsageForecast = {
  /** Hours a week, as the recent weeks have it. */
  weekly: number
  /** How many weeks it rests on. */
  weeks: number
  /** The newest reading's instant; everything is counted from it. */
  from: string
  /** Mean and 10 to 90 % band of the hours added within so many days. */
  hoursWithin: (days: number) => { mean: number; low: number; high: number }
  /** The day, counted from the newest reading, by which so many more hours are reached with this probability. */
  daysReaching: (extraHours: number, probability: number) => number | null
}

const week = 7
/** Level memories that are tried; the one that missed least in the meter's own past is taken. */
const halfLives = [2, 4, 8, 16, 52] as const
const horizons = [1, 2, 4, 8, 16] as const
/** No wider than this share of the squared mean: beyond it the middle of a gamma falls towards nothing. */
const widest = 1.5
/** How much the last year as a whole says beside the recent weeks. */
const yearShare = 0.1
/** Beyond this the answer is "not in sight". */
const farDays = 3650
const z10 = 1.2815515655446004

/**
 * Forecasts the use of a meter from its history.
 *
 * Each gap's hours are spread evenly over its days and summed to weeks. The level is the mean of the
 * weeks weighted exponentially (half-life eight weeks). How far such a level has missed the sum of the
 * next 1, 2, 4, 8 and 16 weeks in this meter's own past is its variance at those horizons, blended with
 * a plain assumption where there are few; between them it is interpolated, beyond them it goes on at
 * the slope of the last two, never faster than a level that is simply wrong. So bursts of jobs, seasons
 * and changes of level widen the band by as much as they did before. Hours never fall, so the chance of
 * having reached H by a day is the chance that the hours by then are H or more; hours within so many
 * days are taken as gamma distributed (Wilson and Hilferty's cube-root approximation, 1931).
 *
 * @param line a meter's cumulative line
 * @returns null with less than two weeks of history or no use at all
 * @example
 * // 20 h a week, every week, for half a year: 100 h more are reached in about 35 days.
 * forecastUsage(line)!.daysReaching(100, 0.5) // 35
 */
export function forecastUsage(line: CumulativeLine): UsageForecast | null {
  const last = line.points.at(-1)
  const weeks = weeklySums(line)
  if (!last || weeks.length < 2) return null
  const halfLife = bestHalfLife(weeks)
  const level = levelAt(weeks, weeks.length, halfLife)
  if (level <= 0) return null
  const spreads = horizons.map((horizon) => spreadAt(weeks, horizon, level, halfLife))
  const meanWithin = (days: number) => (level * days) / week
  const varianceWithin = (days: number) =>
    Math.min(varianceAt(spreads, days / week, level), widest * meanWithin(days) ** 2)
  const reached = (days: number, hours: number) => {
    const mean = meanWithin(days)
    return chanceOfAtLeast(hours, mean, varianceWithin(days))
  }
  return {
    weekly: level,
    weeks: weeks.length,
    from: last.at,
    hoursWithin: (days) => {
      const mean = meanWithin(days)
      const variance = varianceWithin(days)
      return { mean, low: quantile(mean, variance, -z10), high: quantile(mean, variance, z10) }
    },
    daysReaching: (extraHours, probability) => {
      if (extraHours <= 0) return 0
      if (reached(farDays, extraHours) < probability) return null
      let low = 0
      let high = 1
      while (reached(high, extraHours) < probability) {
        low = high
        high = Math.min(high * 2, farDays)
      }
      while (high - low > 0.25) {
        const middle = (low + high) / 2
        if (reached(middle, extraHours) < probability) low = middle
        else high = middle
      }
      return high
    },
  }
}

/** The calendar days by which so many more hours are reached: 10, 50 and 90 %; null where not in sight. */
export function dueDays(
  forecast: UsageForecast,
  fromDay: string,
  extraHours: number,
): { early: string | null; median: string | null; late: string | null } {
  const day = (probability: number) => {
    const days = forecast.daysReaching(extraHours, probability)
    return days === null ? null : addDays(fromDay, Math.round(days))
  }
  return { early: day(0.1), median: day(0.5), late: day(0.9) }
}

/** Hours of each whole week back from the newest point, oldest first; at most three years. */
function weeklySums(line: CumulativeLine): number[] {
  const first = line.points[0]
  const last = line.points.at(-1)
  if (!first || !last) return []
  const count = Math.min(156, Math.floor(daysBetweenInstants(first.at, last.at) / week))
  const at = (weeksAgo: number) =>
    hoursAt(line, new Date(Date.parse(last.at) - weeksAgo * week * 86_400_000).toISOString()) ?? first.hours
  const marks = Array.from({ length: count + 1 }, (_, index) => at(count - index))
  return marks.slice(1).map((mark, index) => Math.max(0, mark - marks[index]!))
}

/** The memory whose level missed the next four and twelve weeks least, in this meter's own past; eight weeks at first. */
function bestHalfLife(weeks: number[]): number {
  const misses = halfLives.map((halfLife) => {
    let sum = 0
    let looks = 0
    for (const horizon of [4, 12])
      for (let at = 6; at + horizon <= weeks.length; at += 1) {
        const then = levelAt(weeks, at, halfLife)
        let hours = 0
        for (let index = at; index < at + horizon; index += 1) hours += weeks[index]!
        sum += Math.abs(hours / horizon - then)
        looks += 1
      }
    return looks < 8 ? Infinity : sum / looks
  })
  const least = Math.min(...misses)
  return least === Infinity ? 8 : halfLives[misses.indexOf(least)]!
}

/** The level before week `until`: exponentially weighted, recent weeks more. */
function levelAt(weeks: number[], until: number, halfLifeWeeks: number): number {
  let sum = 0
  let weights = 0
  for (let index = 0; index < until; index += 1) {
    const weight = 2 ** (-(until - 1 - index) / halfLifeWeeks)
    sum += weight * weeks[index]!
    weights += weight
  }
  if (weights === 0) return 0
  // What stands still today is not laid up for ever: the year as a whole keeps a say.
  const year = weeks.slice(Math.max(0, until - 52), until)
  const whole = year.reduce((total, each) => total + each, 0) / year.length
  return (1 - yearShare) * (sum / weights) + yearShare * whole
}

/**
 * The mean squared miss of the level against the sum of the next `horizon` weeks in the meter's own
 * past, relative to the level of the time, blended with an assumption worth four such looks.
 */
function spreadAt(weeks: number[], horizon: number, level: number, halfLife: number): number {
  const assumed = (0.45 * level) ** 2 * horizon + (0.2 * level * horizon) ** 2
  let squares = 4 * assumed
  let looks = 4
  for (let at = 4; at + horizon <= weeks.length; at += 1) {
    const then = levelAt(weeks, at, halfLife)
    let sum = 0
    for (let index = at; index < at + horizon; index += 1) sum += weeks[index]!
    // Looks that overlap say less each.
    const weight = 1 / Math.sqrt(horizon)
    squares += weight * (sum - horizon * then) ** 2
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
