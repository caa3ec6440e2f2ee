import { dimensions, inUnit, quantity, showNumber, type Dimension } from '../../units'

export type MeasureLimits = { unit: string; min: number | null; max: number | null }

/** What the bench measures at any time, besides what a step asks for; the unit it is told in, ours. */
export const benchMeasures = [
  { key: 'endPlay', what: 'end play', unit: 'mm' },
  { key: 'oilLevel', what: 'oil level against its mark', unit: 'mm' },
  { key: 'gasket', what: 'gasket thickness', unit: 'mm' },
  { key: 'spring', what: 'free length of the spring', unit: 'mm' },
  { key: 'drips', what: 'drip rate', unit: 'drips/min' },
  { key: 'flow', what: 'flow, nozzle off', unit: 'L/min' },
  { key: 'pressure', what: 'pressure', unit: 'bar' },
  { key: 'temperature', what: 'temperature', unit: '°C' },
  { key: 'other', what: '', unit: '' },
] as const

/** The dimension a unit belongs to; null for drips and what is only a word. */
export function dimensionOf(unit: string): Dimension | null {
  return (
    (Object.keys(dimensions) as Dimension[]).find((each) => Object.hasOwn(dimensions[each], unit)) ?? null
  )
}

/** Units that a measure can be typed in: those of its dimension, its own first. */
export function unitsFor(unit: string): string[] {
  const dimension = dimensionOf(unit)
  if (!dimension) return [unit]
  return [unit, ...Object.keys(dimensions[dimension]).filter((each) => each !== unit)]
}

/** A value as it would read in another unit of its dimension; itself where it has none. */
export function converted(value: number, from: string, to: string): number {
  const dimension = dimensionOf(from)
  if (from === to || !dimension || dimensionOf(to) !== dimension) return value
  return inUnit(dimension, quantity(dimension, value, from).si, to)
}

/**
 * A value against its limits, whichever unit of the dimension it was typed in.
 * @example offLimits({ unit: 'bar', min: 190, max: 210 }, 150) // '150 bar is below 190 bar.'
 */
export function offLimits({ unit, min, max }: MeasureLimits, value: number, typed = unit): string | null {
  const own = converted(value, typed, unit)
  const show = (amount: number, as = unit) => `${showNumber(Number(amount.toPrecision(6)))}\u00a0${as}`
  const is = typed === unit ? show(value) : `${show(value, typed)} (${show(Number(own.toPrecision(3)))})`
  const near = 1e-9 * Math.max(1, Math.abs(own))
  if (min !== null && own < min - near) return `${is} is below ${show(min)}.`
  if (max !== null && own > max + near) return `${is} is above ${show(max)}.`
  return null
}

/**
 * Flow by bucket and watch.
 * @param litres caught
 * @param seconds it took
 * @returns L/min, to three figures
 * @throws RangeError where either is not more than 0
 * @example bucketFlow(20, 63) // 19
 */
export function bucketFlow(litres: number, seconds: number): number {
  if (!(litres > 0) || !(seconds > 0))
    throw new RangeError('A bucket holds more than 0, and it takes time to fill.')
  return Number(((litres / seconds) * 60).toPrecision(3))
}

/**
 * The rate of drips counted against a watch.
 * @returns drips/min, to two figures; 0 where none fell
 * @throws RangeError for less than no drip, or no time
 * @example dripRate(7, 42) // 10
 */
export function dripRate(drips: number, seconds: number): number {
  if (!(drips >= 0) || !(seconds > 0))
    throw new RangeError('Drips are counted from 0 on, and over some time.')
  return Number(((drips / seconds) * 60).toPrecision(2))
}

/** An earlier value of the same measure at the same place, for its trend. */
export type EarlierMeasure = {
  assemblyId: string
  what: string
  where: string
  value: number
  unit: string
  how: string
  day: string
  sheet: string
}

/**
 * The earlier values that one can be compared with, oldest first: the same measure at the same place,
 * measured in the same way, in its unit.
 */
export function comparable(
  earlier: EarlierMeasure[],
  now: { assemblyId: string; what: string; where: string; unit: string; how: string },
): EarlierMeasure[] {
  return earlier
    .filter(
      (each) =>
        each.assemblyId === now.assemblyId &&
        each.what === now.what &&
        each.where === now.where &&
        each.how === now.how &&
        (each.unit === now.unit ||
          (dimensionOf(each.unit) !== null && dimensionOf(each.unit) === dimensionOf(now.unit))),
    )
    .map((each) => ({
      ...each,
      value: Number(converted(each.value, each.unit, now.unit).toPrecision(6)),
      unit: now.unit,
    }))
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
}

/** From so many earlier values on, a measure is held against its own past. */
const pastNeeded = 3

/**
 * What is to be said of a value that lies far from what the same measure was before; null where it does not
 * or too little is known. It says so and stops nothing: limits are the maker's, this is only a second look.
 * Far: beyond three robust deviations of its past (1.4826 times the median distance from the median), and
 * beyond a quarter of what is usual. Both bounds are ours.
 *
 * @param before earlier values in the unit of `now`, as `comparable` gives them
 */
export function unlikeBefore(before: { value: number; unit: string }[], now: number): string | null {
  if (before.length < pastNeeded) return null
  const values = before.map(({ value }) => value)
  const usual = median(values)
  const deviation = 1.4826 * median(values.map((value) => Math.abs(value - usual)))
  const far = Math.max(3 * deviation, Math.abs(usual) / 4)
  const near = 1e-9 * Math.max(1, Math.abs(usual))
  if (Math.abs(now - usual) <= far + near) return null
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const range = least === most ? showNumber(least) : `${showNumber(least)} to ${showNumber(most)}`
  return `Unlike before: ${range}\u00a0${before[0]!.unit} in ${values.length} earlier values. Measure again, or say why.`
}

function median(values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const middle = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}
