import { tidy } from './stock'

/** What lies in one bin by the book, as a stocktake asks for it. */
export type ToCount = {
  unit: string
  /** What should lie there. */
  onHand: number
  packSize: number
  /** What one of it costs, in cents. */
  unitCents: number
}

/** What is thought of a count as it is typed. */
export type CountVerdict =
  | { state: 'blank' }
  | { state: 'fault'; words: string }
  | { state: 'fits' }
  | { state: 'differs'; difference: number; cents: number }
  /** Right only if something else is meant: asked about before it is kept. */
  | { state: 'doubted'; difference: number; cents: number; words: string; instead: number | null }

/** A difference of so much money is looked at twice; ours, in cents. */
const muchMoney = 10_000

/**
 * Judges a count beside what the book says: a likely slip is asked about, with what was probably meant.
 *
 * Doubted is a count of packs where the book counts pieces, one with a digit doubled or a decimal point
 * lost, an empty bin that the book thinks well filled, and a difference of much money.
 *
 * @param counted what was typed; null for a blank
 * @example judgeCount(6, { onHand: 18, packSize: 3, … }) // { state: 'doubted', instead: 18, words: 'Are these packs? …' }
 */
export function judgeCount(counted: number | null, bin: ToCount): CountVerdict {
  if (counted === null) return { state: 'blank' }
  if (counted < 0) return { state: 'fault', words: 'A bin holds 0 or more.' }
  if (bin.unit === 'piece' && !Number.isInteger(counted))
    return { state: 'fault', words: 'Pieces come whole.' }
  if (counted > 1_000_000) return { state: 'fault', words: 'That is more than any store holds.' }
  const difference = tidy(counted - bin.onHand)
  if (difference === 0) return { state: 'fits' }
  const cents = Math.round(difference * bin.unitCents)
  const doubt = (words: string, instead: number | null) =>
    ({ state: 'doubted', difference, cents, words, instead }) as const
  if (bin.packSize > 1 && tidy(counted * bin.packSize) === bin.onHand && counted > 0)
    return doubt(`Are these packs? ${counted} of ${bin.packSize} are ${bin.onHand}.`, bin.onHand)
  if (bin.onHand > 0 && (counted === tidy(bin.onHand * 10) || counted === tidy(bin.onHand * 100)))
    return doubt(`Ten times what the book says. Was it ${bin.onHand}?`, bin.onHand)
  if (counted === 0 && bin.onHand >= Math.max(2, bin.packSize))
    return doubt(`Nothing left, where the book has ${bin.onHand}? Look in the next bin too.`, null)
  if (bin.onHand > 0 && counted >= 10 && String(counted) === `${bin.onHand}${String(bin.onHand).slice(-1)}`)
    return doubt(`Was a digit typed twice? The book says ${bin.onHand}.`, bin.onHand)
  if (Math.abs(cents) >= muchMoney) return doubt('A difference of much money: count once more.', null)
  return { state: 'differs', difference, cents }
}
