/**
 * Units a user reads and types, by dimension, with the factor to SI; a temperature also with its zero.
 * Source of the factors: 1 lbf = 4.4482216152605 N, 1 in = 0.0254 m, 1 kgf = 9.80665 N, 1 lb = 0.45359237 kg,
 * 1 US gal = 3.785411784 L = 4 qt = 8 pt = 128 fl oz, 1 psi = 6894.757293168 Pa, 1 kgf/cm² = 98066.5 Pa,
 * 0 °C = 273.15 K = 32 °F (exact by definition or to the digits shown).
 */
const lbfInNewton = 4.4482216152605
const inchInMetre = 0.0254
const kgfInNewton = 9.80665
const usGallonInCubicMetre = 3.785411784e-3
const poundInKilogram = 0.45359237
/** A scale whose zero is not that of SI: SI is factor x (value + zero). */
type Scale = { factor: number; zero: number }

export const dimensions = {
  torque: {
    'N·m': 1,
    'in-lb': lbfInNewton * inchInMetre,
    'ft-lb': lbfInNewton * inchInMetre * 12,
    'kgf·m': kgfInNewton,
    'kgf·cm': kgfInNewton / 100,
  },
  pressure: { bar: 1e5, psi: 6894.757293168, MPa: 1e6, kPa: 1e3, Pa: 1, 'kgf/cm²': kgfInNewton * 1e4 },
  flow: {
    'L/min': 1e-3 / 60,
    'gal/min': usGallonInCubicMetre / 60,
    'm³/h': 1 / 3600,
    'L/h': 1e-3 / 3600,
  },
  volume: {
    L: 1e-3,
    mL: 1e-6,
    'US gal': usGallonInCubicMetre,
    'US qt': usGallonInCubicMetre / 4,
    'US pt': usGallonInCubicMetre / 8,
    'US fl oz': usGallonInCubicMetre / 128,
  },
  length: { m: 1, mm: 1e-3, ft: 12 * inchInMetre, in: inchInMetre },
  power: { kW: 1000, hp: 745.6998715822702 },
  mass: { kg: 1, g: 1e-3, lb: poundInKilogram, oz: poundInKilogram / 16 },
  temperature: {
    '°C': { factor: 1, zero: 273.15 },
    '°F': { factor: 5 / 9, zero: 459.67 },
    K: 1,
  },
} as const

export type Dimension = keyof typeof dimensions
export type UnitOf<D extends Dimension> = keyof (typeof dimensions)[D] & string

/** A quantity as stored: SI for computing, and what was typed, in the unit it was typed in. */
export type Quantity = { si: number; value: number; unit: string }

export function unitsOf(dimension: Dimension): string[] {
  return Object.keys(dimensions[dimension])
}

function scale(dimension: Dimension, unit: string): Scale {
  const units = dimensions[dimension] as Record<string, number | Scale>
  const known = Object.hasOwn(units, unit) ? units[unit] : undefined
  if (known === undefined) throw new RangeError(`${unit} is not a unit of ${dimension}.`)
  return typeof known === 'number' ? { factor: known, zero: 0 } : known
}

/**
 * A quantity from what was typed.
 * @throws RangeError for a unit the dimension does not have
 * @example quantity('torque', 15, 'ft-lb').si // 20.337 N·m
 */
export function quantity(dimension: Dimension, value: number, unit: string): Quantity {
  const { factor, zero } = scale(dimension, unit)
  return { si: (value + zero) * factor, value, unit }
}

/** The SI amount `si` of a dimension, in `unit`. */
export function inUnit(dimension: Dimension, si: number, unit: string): number {
  const { factor, zero } = scale(dimension, unit)
  return si / factor - zero
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
