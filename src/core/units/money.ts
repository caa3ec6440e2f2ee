import { parseNumber } from './parseNumber'
import { showNumber } from './quantity'

/**
 * Reads an amount of money into whole cents.
 *
 * @param text as typed: `12.40`, `1 204,50`
 * @returns the cents, or a sentence that says what is wrong
 * @example readMoney('12.40') // { ok: true, cents: 1240 }
 */
export function readMoney(text: string): { ok: true; cents: number } | { ok: false; reason: string } {
  const parsed = parseNumber(text, 2)
  if (!parsed.ok) return parsed
  if (parsed.value < 0) return { ok: false, reason: 'A price is not less than 0.' }
  const cents = Math.round(parsed.value * 100)
  if (Math.abs(parsed.value * 100 - cents) > 1e-6) return { ok: false, reason: 'At most two decimals.' }
  if (cents > 2_000_000_000) return { ok: false, reason: 'That is too much for one price.' }
  return { ok: true, cents }
}

/** @example showMoney(120450, 'EUR') // '1 204.50 EUR' */
export function showMoney(cents: number, currency: string): string {
  return `${showNumber(cents / 100, 2)}\u00a0${currency}`
}
