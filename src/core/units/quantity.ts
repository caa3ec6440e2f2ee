/**
 * Units a user reads and types, by dimension, with the factor to SI.
 * Source of the factors: 1 lbf = 4.4482216152605 N, 1 in = 0.0254 m, 1 kgf = 9.80665 N,
 * 1 US gal = 3.785411784 L, 1 psi = 6894.757293168 Pa (exact by definition or to the digits shown).
 */
const lbfInNewton = 4.4482216152605
const inchInMetre = 0.0254
const usGallonInCubicMetre = 3.785411784e-3

export const dimensions = {
  torque: {
    'N·m': 1,
    'in-lb': lbfInNewton * inchInMetre,
    'ft-lb': lbfInNewton * inchInMetre * 12,
    'kgf·m': 9.80665,
  },
  pressure: { bar: 1e5, psi: 6894.757293168, MPa: 1e6, kPa: 1e3 },
  flow: { 'L/min': 1e-3 / 60, 'gal/min': usGallonInCubicMetre / 60 },
  volume: { L: 1e-3, mL: 1e-6, 'US gal': usGallonInCubicMetre },
  length: { m: 1, mm: 1e-3, ft: 12 * inchInMetre, in: inchInMetre },
  power: { kW: 1000, hp: 745.6998715822702 },
} as const

export type Dimension = keyof typeof dimensions
export type UnitOf<D extends Dimension> = keyof (typeof dimensions)[D] & string

/** A quantity as stored: SI for computing, and what was typed, in the unit it was typed in. */
export type Quantity = { si: number; value: number; unit: string }

export function unitsOf(dimension: Dimension): string[] {
  return Object.keys(dimensions[dimension])
}

function factor(dimension: Dimension, unit: string): number {
  const known = (dimensions[dimension] as Record<string, number>)[unit]
  if (known === undefined) throw new RangeError(`${unit} is not a unit of ${dimension}.`)
  return known
}

/**
 * A quantity from what was typed.
 * @throws RangeError for a unit the dimension does not have
 * @example quantity('torque', 15, 'ft-lb').si // 20.337 N·m
 */
export function quantity(dimension: Dimension, value: number, unit: string): Quantity {
  return { si: value * factor(dimension, unit), value, unit }
}

/** The SI amount `si` of a dimension, in `unit`. */
export function inUnit(dimension: Dimension, si: number, unit: string): number {
  return si / factor(dimension, unit)
}

/**
 * A quantity in the unit its reader prefers: as typed where it was typed in that unit,
 * otherwise converted and rounded to three significant figures.
 * @example showQuantity('pressure', quantity('pressure', 3000, 'psi'), 'bar') // '207 bar'
 */
export function showQuantity(dimension: Dimension, amount: Quantity, unit: string): string {
  const number =
    amount.unit === unit ? amount.value : Number(inUnit(dimension, amount.si, unit).toPrecision(3))
  return `${showNumber(number)}\u00a0${unit}`
}

/** A number with no-break spaces between thousands and no needless zeros: `1 148`, `0.5`. */
export function showNumber(value: number, decimals?: number): string {
  const text = decimals === undefined ? String(Number(value.toPrecision(12))) : value.toFixed(decimals)
  const [whole = '', fraction] = text.split('.')
  const sign = whole.startsWith('-') ? '\u2212' : ''
  const digits = whole.replace('-', '').replace(/\B(?=(\d{3})+(?!\d))/g, '\u00a0')
  return fraction === undefined ? sign + digits : `${sign}${digits}.${fraction}`
}
