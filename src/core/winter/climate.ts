import { addDays, dayFromNumber, dayNumber, daysBetween, type Day } from '../calendar'
import { invalid } from '../problem'
import { studentAt, studentBelow, normalBelow } from './chances'

/** A day of a winter, counted from 1 July: frost in November and frost in March lie on one line. */
export type WinterDay = number

/** What few values let one expect of the next: Student's t, or a normal curve where `freedom` is null. */
export type Expected = { mean: number; scale: number; freedom: number | null }

/** When frost comes to a place that stands so much: only of the winters that had any. */
export type Threshold = {
  standsC: number
  /** Share of winters with frost at all. */
  share: number
  /** Winters that had it. */
  frosty: number
  first: Expected | null
  last: Expected | null
}

/** One whole winter, July to June, kept so that frost of any hardness can be read off it. */
export type Winter = {
  /** The year of its July. */
  winter: number
  lowestC: number
  /** Each day that was colder than every day of the winter before it, [day of winter, minimum]. */
  falling: [WinterDay, number][]
  /** The same from the end: each day that was colder than every day after it. */
  rising: [WinterDay, number][]
}

export type FrostClimate = {
  winters: Winter[]
  /** Winters that days are missing of, with how many, so that they count nothing. */
  leftOut: { winter: number; missing: number }[]
  /** Days that are missing between the first and the last. */
  gaps: { from: Day; to: Day }[]
  /** Colder than this only in one winter of ten; null where no winter is known. */
  designLowC: number | null
  /** Typed instead of computed; empty where winters are known. */
  entered: Threshold[]
  /** For clear air (0 °C) and an unheated hall (-4 °C). */
  thresholds: Threshold[]
}

/** 0 °C is frost; an unheated hall freezes at -4 °C outside (ours, where nobody has entered better). */
export const usualThresholds = [0, -4] as const
/** From September to May a winter may miss so many days, and so many in a row, and still count. Ours. */
const mayMiss = { days: 18, inARow: 7 }
/** With one winter only, its spread is a guess: so many days, so many °C. Ours. */
const guessed = { days: 14, degrees: 4 }

/** The winter that a day is in: the year of its July. */
export const winterOf = (day: Day): number => Number(day.slice(0, 4)) - (day.slice(5) < '07-01' ? 1 : 0)
/** @example winterDay('2026-11-07') // 129 */
export const winterDay = (day: Day): WinterDay => daysBetween(`${winterOf(day)}-07-01`, day)
/** The day that a day of the winter is, in the winter that begins in a year. */
export const dayOfWinter = (winter: number, at: WinterDay): Day => addDays(`${winter}-07-01`, Math.round(at))

/** What values let one expect of the next of their kind: the predictive distribution of a normal sample. */
function expected(values: readonly number[], guess: number, floor: number): Expected | null {
  const n = values.length
  if (n === 0) return null
  const mean = values.reduce((sum, value) => sum + value, 0) / n
  if (n === 1) return { mean, scale: guess * Math.SQRT2, freedom: 2 }
  const spread = Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1))
  return { mean, scale: Math.max(spread, floor) * Math.sqrt(1 + 1 / n), freedom: n - 1 }
}

/** The chance that the next value is at or below one. */
export function expectedBelow(what: Expected, value: number): number {
  const z = (value - what.mean) / what.scale
  return what.freedom === null ? normalBelow(z) : studentBelow(z, what.freedom)
}

/** The value that the next is at or below with a chance. */
export function expectedAt(what: Expected, chance: number): number {
  // Thirty million degrees of freedom are a normal curve.
  return what.mean + what.scale * studentAt(chance, what.freedom ?? 3e7)
}

const firstAtOrBelow = (steps: readonly [WinterDay, number][], standsC: number) =>
  steps.find(([, minC]) => minC <= standsC)?.[0]

/**
 * When frost comes where something stands that freezes at a temperature outside.
 * @param standsC °C, at or below which it freezes
 */
export function thresholdOf(climate: FrostClimate, standsC: number): Threshold {
  const { winters, entered } = climate
  if (winters.length === 0) {
    // Typed for clear air only, a colder frost is taken to come as early: too soon rather than too late.
    const sorted = [...entered].sort((a, b) => a.standsC - b.standsC)
    const near = sorted.find((one) => one.standsC >= standsC) ?? sorted.at(-1)
    return near ? { ...near, standsC } : { standsC, share: 0, frosty: 0, first: null, last: null }
  }
  const firsts = winters.flatMap(({ falling }) => firstAtOrBelow(falling, standsC) ?? [])
  const lasts = winters.flatMap(({ rising }) => firstAtOrBelow(rising, standsC) ?? [])
  return {
    standsC,
    share: firsts.length / winters.length,
    frosty: firsts.length,
    first: expected(firsts, guessed.days, 1),
    last: expected(lasts, guessed.days, 1),
  }
}

/**
 * The frost of a place, from its daily minima.
 *
 * @param dailyMinima in any order, a day once; °C
 * @returns first and last frost over whole winters (July to June) as what they let one expect of the next,
 *   which is the wider the fewer winters there are, with winters without frost counted apart; the design low;
 *   and what was missing
 * @throws invalid input where a day is given twice with two values, or a value is no temperature of a yard
 */
export function frostClimate(dailyMinima: readonly { day: Day; minC: number }[]): FrostClimate {
  const minima = new Map<number, number>()
  for (const { day, minC } of dailyMinima) {
    if (!Number.isFinite(minC) || minC < -75 || minC > 50)
      throw invalid({ [day]: `${minC} is no minimum in °C.` })
    const number = dayNumber(day)
    const known = minima.get(number)
    if (known !== undefined && known !== minC)
      throw invalid({ [day]: `${day} is given twice, with ${known} and ${minC} °C.` })
    minima.set(number, minC)
  }
  const numbers = [...minima.keys()].sort((a, b) => a - b)
  const gaps = numbers.flatMap((number, at) => {
    const before = numbers[at - 1]
    return before !== undefined && number - before > 1
      ? [{ from: dayFromNumber(before + 1), to: dayFromNumber(number - 1) }]
      : []
  })
  const years = [...new Set(numbers.map((number) => winterOf(dayFromNumber(number))))]
  const winters: Winter[] = []
  const leftOut: FrostClimate['leftOut'] = []
  for (const winter of years) {
    const { missing, inARow } = missingFrost(minima, winter)
    if (missing > mayMiss.days || inARow > mayMiss.inARow) leftOut.push({ winter, missing })
    else winters.push(winterFrom(minima, winter))
  }
  const lows = expected(
    winters.map(({ lowestC }) => lowestC),
    guessed.degrees,
    0.5,
  )
  const climate: FrostClimate = {
    winters,
    leftOut,
    gaps,
    designLowC: lows === null ? null : Math.round(expectedAt(lows, 0.1) * 10) / 10,
    entered: [],
    thresholds: [],
  }
  climate.thresholds = usualThresholds.map((standsC) => thresholdOf(climate, standsC))
  return climate
}

/** How many days from September to May are missing, and how many of them in a row. */
function missingFrost(minima: ReadonlyMap<number, number>, winter: number) {
  let missing = 0
  let row = 0
  let inARow = 0
  for (let day = dayNumber(`${winter}-09-01`); day <= dayNumber(`${winter + 1}-05-31`); day++) {
    row = minima.has(day) ? 0 : row + 1
    if (row > 0) missing++
    inARow = Math.max(inARow, row)
  }
  return { missing, inARow }
}

function winterFrom(minima: ReadonlyMap<number, number>, winter: number): Winter {
  const start = dayNumber(`${winter}-07-01`)
  const days: [WinterDay, number][] = []
  for (let day = start; day <= dayNumber(`${winter + 1}-06-30`); day++) {
    const minC = minima.get(day)
    if (minC !== undefined) days.push([day - start, minC])
  }
  const steps = (list: readonly [WinterDay, number][]) => {
    let lowest = Infinity
    return list.filter(([, minC]) => minC < lowest && ((lowest = minC), true))
  }
  return {
    winter,
    lowestC: Math.min(...days.map(([, minC]) => minC)),
    falling: steps(days),
    rising: steps([...days].reverse()),
  }
}

/**
 * A climate as somebody knows it by heart, where no minima are at hand.
 *
 * @param thresholds for what stands so much (0 °C is clear air): first and last frost as a day of any winter
 *   and how many days either way two winters of three lie
 */
export function enteredClimate(
  thresholds: readonly {
    standsC: number
    first: { day: Day; spreadDays: number }
    last: { day: Day; spreadDays: number }
  }[],
  designLowC: number,
): FrostClimate {
  const typed = thresholds.map(({ standsC, first, last }) => ({
    standsC,
    share: 1,
    frosty: 0,
    first: { mean: winterDay(first.day), scale: Math.max(1, first.spreadDays), freedom: null },
    last: { mean: winterDay(last.day), scale: Math.max(1, last.spreadDays), freedom: null },
  }))
  const climate: FrostClimate = {
    winters: [],
    leftOut: [],
    gaps: [],
    designLowC,
    entered: typed,
    thresholds: [],
  }
  climate.thresholds = usualThresholds.map((standsC) => thresholdOf(climate, standsC))
  return climate
}

/** One day of an outlook: the minimum that is expected, and how far it may be off. */
export type OutlookDay = { day: Day; minC: number; sdC?: number | null }

/** How far an outlook's minimum is off, by how many days ahead it looks: 1.5 °C today, more each day. Ours. */
const usualSdC = (ahead: number) => 1.5 + 0.25 * ahead

/** The chance that one night of an outlook is at or below a temperature. */
export function nightChance(night: OutlookDay, ahead: number, standsC: number): number {
  const sdC = night.sdC ?? usualSdC(Math.max(0, ahead))
  if (sdC <= 0) return night.minC <= standsC ? 1 : 0
  return normalBelow((standsC - night.minC) / sdC)
}

/**
 * The chance that frost comes in a stretch of days, given that none came in this winter before it.
 *
 * @param input.climate of the yard
 * @param input.standsC what freezes at or below how many °C outside; null never does
 * @param input.outlook nights that the forecast knows: they take the place of the climate's
 * @param input.from first day, and `input.to` last day; both count
 * @returns 0 to 1; 0 where `to` is before `from`
 */
export function frostProbability(input: {
  climate: FrostClimate
  standsC: number | null
  outlook?: readonly OutlookDay[] | null
  from: Day
  to: Day
}): number {
  return frostCurve(input).at(-1)?.chance ?? 0
}

/** The same for each day from the first to the last: the chance that frost has come by then. */
export function frostCurve(input: {
  climate: FrostClimate
  standsC: number | null
  outlook?: readonly OutlookDay[] | null
  from: Day
  to: Day
}): { day: Day; chance: number }[] {
  const { climate, standsC, outlook, from, to } = input
  const length = daysBetween(from, to) + 1
  if (!(length > 0)) return []
  if (standsC === null) return Array.from({ length }, (_, at) => ({ day: addDays(from, at), chance: 0 }))
  const { share, first } = thresholdOf(climate, standsC)
  const come = (at: WinterDay) => (first === null ? 0 : share * expectedBelow(first, at))
  const nights = new Map((outlook ?? []).map((night) => [night.day, night]))
  const begins = outlook?.[0]?.day ?? from
  let spared = 1
  return Array.from({ length }, (_, ahead) => {
    const day = addDays(from, ahead)
    const night = nights.get(day)
    if (night) spared *= 1 - nightChance(night, daysBetween(begins, day), standsC)
    else {
      const at = winterDay(day)
      const before = 1 - come(at - 1)
      spared *= before <= 1e-12 ? 0 : (1 - come(at)) / before
    }
    return { day, chance: 1 - spared }
  })
}

/** The chance that frost comes once more in this winter, on a day or after it. */
export function anotherFrost(climate: FrostClimate, standsC: number | null, from: Day): number {
  if (standsC === null) return 0
  const { share, last } = thresholdOf(climate, standsC)
  return last === null ? 0 : share * (1 - expectedBelow(last, winterDay(from) - 1))
}

/** From which day on the chance of another frost in this winter is under a risk. */
export function safeFrom(climate: FrostClimate, standsC: number | null, from: Day, risk: number): Day {
  let day = from
  // The next July begins a new winter.
  while (winterDay(addDays(day, 1)) !== 0 && anotherFrost(climate, standsC, day) >= risk)
    day = addDays(day, 1)
  return day
}
