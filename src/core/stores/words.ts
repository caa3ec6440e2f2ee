import { showNumber } from '../units'

/** @example showAmount(3, 'piece') // '3' ; showAmount(1.2, 'L') // '1.2 L' */
export function showAmount(quantity: number, unit: string): string {
  return unit === 'piece' ? showNumber(quantity) : `${showNumber(quantity)}\u00a0${unit}`
}
