import type { MeterFace } from './types'

/** A value that a slip of the hand would turn into what was typed. */
export type Slip = { value: number; how: string }

/**
 * The values that one slip of the hand could have turned into what was typed: the decimal point lost
 * or misplaced, two neighbouring digits swapped, a digit doubled, or a digit left out.
 * Likeliest kind first. Only values the meter can show are given.
 *
 * @param typed what was typed, in the meter's unit
 * @param face how many decimals the meter shows
 */
export function possibleSlips(typed: number, face: MeterFace): Slip[] {
  const scale = 10 ** face.decimals
  const digits = String(Math.round(typed * scale))
  const slips: Slip[] = []
  const add = (value: number, how: string) => {
    const exact = Math.round(value * scale) / scale
    const known = exact === typed || slips.some((slip) => slip.value === exact)
    if (!known && exact >= 0) slips.push({ value: exact, how })
  }

  // Exactly so much: a value that would have to be rounded is not what the meter showed.
  const raw = Number(digits)
  if (raw % 10 === 0) add(typed / 10, 'the decimal point is one place out')
  add(typed * 10, 'the decimal point is one place out')
  if (raw % 100 === 0) add(typed / 100, 'the decimal point is two places out')
  add(typed * 100, 'the decimal point is two places out')
  if (face.decimals === 0 && raw % 10 !== 0)
    add(Math.floor(typed / 10), 'the tenths, which this meter does not show, are typed along')
  for (let index = 1; index < digits.length; index += 1) {
    const swapped = digits.slice(0, index - 1) + digits[index] + digits[index - 1] + digits.slice(index + 1)
    add(Number(swapped) / scale, 'two neighbouring digits are swapped')
  }
  for (let index = 1; index < digits.length; index += 1) {
    if (digits[index] !== digits[index - 1]) continue
    add(Number(digits.slice(0, index) + digits.slice(index + 1)) / scale, 'a digit is typed twice')
  }
  for (let index = 0; index <= digits.length; index += 1) {
    for (let digit = index === 0 ? 1 : 0; digit <= 9; digit += 1) {
      add(Number(digits.slice(0, index) + digit + digits.slice(index)) / scale, 'a digit is missing')
    }
  }
  return slips
}

/**
 * The values that a misplaced decimal point would have meant, where more decimals were typed than the
 * meter shows: all the digits, with the point where the meter has it or further right.
 *
 * @param typed as it was read, with all its decimals
 * @example misplacedPoint(487.66, { unit: 'h', digits: 5, decimals: 1 }) // [4876.6, 48766]
 */
export function misplacedPoint(typed: number, face: MeterFace): number[] {
  const digits = String(typed).replace('.', '')
  if (!/^\d{1,12}$/.test(digits)) return []
  return Array.from(
    { length: face.decimals + 1 },
    (_, right) => Number(digits) / 10 ** (face.decimals - right),
  )
}
