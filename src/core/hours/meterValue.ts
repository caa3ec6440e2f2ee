import { parseNumber, showNumber } from '../units'
import type { MeterFace } from './types'

/**
 * Reads a typed meter value into a whole number of the meter's smallest digit.
 *
 * @param text as typed, with blanks, decimal comma or unit
 * @param face the meter's decimals
 * @returns the integer, or a sentence that says what is wrong
 * @example readMeterValue('5 246,8 h', { unit: 'h', digits: 5, decimals: 1 }) // { ok: true, raw: 52468 }
 */
export function readMeterValue(
  text: string,
  face: MeterFace,
): { ok: true; raw: number } | { ok: false; reason: string } {
  const parsed = parseNumber(text, face.decimals)
  if (!parsed.ok) return parsed
  if (parsed.value < 0) return { ok: false, reason: 'A meter cannot show less than 0.' }
  const scaled = parsed.value * 10 ** face.decimals
  const raw = Math.round(scaled)
  if (Math.abs(scaled - raw) > 1e-6) {
    const shows =
      face.decimals === 0 ? 'no decimals' : face.decimals === 1 ? 'one decimal' : `${face.decimals} decimals`
    return { ok: false, reason: `This meter shows ${shows}.` }
  }
  if (raw > 2_000_000_000) return { ok: false, reason: 'That is more than any meter shows.' }
  return { ok: true, raw }
}

/** The value a stored integer stands for. */
export function meterValue(raw: number, decimals: number): number {
  return raw / 10 ** decimals
}

/** @example showMeterValue(52468, { unit: 'h', digits: 5, decimals: 1 }) // '5 246.8 h' */
export function showMeterValue(raw: number, face: MeterFace): string {
  return `${showNumber(meterValue(raw, face.decimals), face.decimals)}\u00a0${face.unit}`
}
