import type { Fastener } from '../pump'
import { inUnit, quantity, showNumber } from '../units'

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
export function showTorque(torque: Fastener['torque'], stage: number | null = null): string {
  if (torque.state !== 'stated') return none[torque.state]
  const value = stage === null ? torque.value : (torque.stages[stage - 1] ?? torque.value)
  const { si } = quantity('torque', value, torque.unit)
  return ['N·m', 'in-lb', 'ft-lb']
    .map(
      (unit) =>
        `${showNumber(unit === torque.unit ? value : Number(inUnit('torque', si, unit).toPrecision(3)))}\u00a0${unit}`,
    )
    .join(' = ')
}
