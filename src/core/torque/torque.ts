import { inUnit, quantity, showNumber } from '../units'

/** A torque as stated, or in plain words why there is none. Nothing is ever blank or zero. */
export type Torque =
  | { state: 'stated'; value: number; unit: string; stages: number[]; source: string; verified: boolean }
  | { state: 'handTight' | 'byFeel' | 'notGiven'; source: string }

const none = {
  handTight: 'hand tight',
  byFeel: 'by feel with a bar',
  notGiven: 'no value given: from the maker’s manual',
} as const

/**
 * A torque in N·m, in-lb and ft-lb together, as stated in its own unit and to three figures in the
 * others: the classic bench accident is one unit read as another. Where there is no value, the words
 * that say so.
 *
 * @param torque a fastener's torque
 * @param stage the stage, from 1; null for the final value
 * @example showTorque({ state: 'stated', value: 40, unit: 'N·m', stages: [20, 40], … }, 1)
 * // '20 N·m = 177 in-lb = 14.8 ft-lb'
 */
export function showTorque(torque: Torque, stage: number | null = null): string {
  if (torque.state !== 'stated') return none[torque.state]
  const value = stage === null ? torque.value : (torque.stages[stage - 1] ?? torque.value)
  return torqueIn({ value, unit: torque.unit })
    .map((each) => `${showNumber(each.value)}\u00a0${each.unit}`)
    .join(' = ')
}

/**
 * A torque in N·m, in-lb and ft-lb: as stated in its own unit, to three figures in the others.
 * @example torqueIn({ value: 20, unit: 'N·m' }) // 20 N·m, 177 in-lb, 14.8 ft-lb
 */
export function torqueIn(stated: { value: number; unit: string }): { value: number; unit: string }[] {
  const { si } = quantity('torque', stated.value, stated.unit)
  return ['N·m', 'in-lb', 'ft-lb'].map((unit) => ({
    unit,
    value: unit === stated.unit ? stated.value : Number(inUnit('torque', si, unit).toPrecision(3)),
  }))
}

const units = ['N·m', 'in-lb', 'ft-lb', 'kgf·m', 'kgf·cm'] as const

/**
 * The unit in which an entered torque would fit, where it does not fit in its own: the classic slip.
 *
 * @param entered value and unit as entered
 * @param spec value and unit as stated
 * @param tolerance share of the stated value
 * @returns null where it fits as it is, or in no unit
 * @example detectUnitSlip({ value: 110, unit: 'ft-lb' }, { value: 110, unit: 'in-lb' }) // 'in-lb'
 */
export function detectUnitSlip(
  entered: { value: number; unit: string },
  spec: { value: number; unit: string },
  tolerance = 0.05,
): string | null {
  const wanted = quantity('torque', spec.value, spec.unit).si
  const fits = (unit: string) =>
    Math.abs(quantity('torque', entered.value, unit).si / wanted - 1) <= tolerance + 1e-9
  if (fits(entered.unit)) return null
  return units.find((unit) => unit !== entered.unit && fits(unit)) ?? null
}

/** Whether what was pulled is what was stated; if not, how far off, and which unit was likely misread. */
export type TorqueVerdict = {
  fits: boolean
  /** The unit it would fit in. */ slip: string | null
  words: string
}

/**
 * Judges a pulled torque against the stated one. Outside tolerance, a value that would be right in
 * another unit is named as the slip it looks like.
 *
 * @param stated value and unit, of the stage that is pulled
 * @param pulled value and unit as entered
 * @param tolerance share of the stated value; 0.05 is ours, a wrench's own is usually 0.04
 * @example
 * judgeTorque({ value: 15, unit: 'N·m' }, { value: 15, unit: 'ft-lb' })
 * // { fits: false, slip: 'N·m', words: '15 ft-lb is 20.3 N·m, 36 % too tight. It would fit in N·m: was the unit misread?' }
 */
export function judgeTorque(
  stated: { value: number; unit: string },
  pulled: { value: number; unit: string },
  tolerance = 0.05,
): TorqueVerdict {
  const wanted = quantity('torque', stated.value, stated.unit).si
  const share = (value: number, unit: string) => quantity('torque', value, unit).si / wanted - 1
  const inside = (unit: string) => Math.abs(share(pulled.value, unit)) <= tolerance + 1e-9
  if (inside(pulled.unit)) return { fits: true, slip: null, words: '' }
  const off = share(pulled.value, pulled.unit)
  const asStated = Number(
    inUnit('torque', quantity('torque', pulled.value, pulled.unit).si, stated.unit).toPrecision(3),
  )
  const is = pulled.unit === stated.unit ? '' : ` is ${showNumber(asStated)}\u00a0${stated.unit},`
  const far =
    off > 1.5
      ? `${showNumber(Number((off + 1).toPrecision(2)))} times too tight`
      : `${Math.round(Math.abs(off) * 100)}\u00a0% too ${off > 0 ? 'tight' : 'loose'}`
  const slip = detectUnitSlip(pulled, stated, tolerance)
  const looks = slip ? ` It would fit in ${slip}: was the unit misread?` : ''
  return {
    fits: false,
    slip,
    words: `${showNumber(pulled.value)}\u00a0${pulled.unit}${is || ' is'} ${far}.${looks}`,
  }
}
