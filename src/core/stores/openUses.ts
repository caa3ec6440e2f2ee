import { tidy, type Movement } from './stock'

/**
 * A part noted on a sheet: it left its bin at `at`, and we heard of it at `receivedAt`, which is later
 * where a tablet had no connection.
 */
export type NotedUse = Movement & { at: string; receivedAt: string }

/** A bin that was counted: whatever had left it by then is not in what was found. */
export type CountedBin = { lotId: string | null; at: string }

/**
 * Whether a count has booked a use already: the part had left the bin when it was counted, and the book
 * did not know of it, so that it was taken for a difference.
 */
export function countedOut(use: Omit<NotedUse, 'quantity' | 'partId'>, counts: CountedBin[]): boolean {
  return counts.some(({ lotId, at }) => lotId === use.lotId && use.at <= at && at < use.receivedAt)
}

/**
 * What open sheets have taken out of the bins while the book still holds it: the book less this is what
 * lies there.
 *
 * @param uses parts noted on sheets that are not signed yet
 * @param counts every count of their bins
 */
export function takenByOpen(uses: NotedUse[], counts: CountedBin[]): Movement[] {
  return uses
    .filter((use) => !countedOut(use, counts))
    .map(({ partId, lotId, quantity }) => ({ partId, lotId, quantity }))
}

/**
 * The movements by which a signed sheet's uses leave the book. A use that a count has booked already is
 * booked out and in again, so that the record shows both and the stock counts it once.
 *
 * @returns for each use, in its order, the quantity that leaves, and what comes back for a count
 * @example bookUses([{ quantity: 2, at: '…08:00', receivedAt: '…12:00', … }], [{ at: '…10:00', … }]) // [{ out: -2, back: 2 }]
 */
export function bookUses(uses: NotedUse[], counts: CountedBin[]): { out: number; back: number }[] {
  return uses.map((use) => ({ out: -use.quantity, back: countedOut(use, counts) ? use.quantity : 0 }))
}

/**
 * What a count changes in the book: afterwards the book holds what was found, and besides it what open
 * sheets have taken and will book when they are signed.
 *
 * @param found what lies in the bin
 * @param onHand what should lie there: the book less what open sheets have taken
 */
export function countDifference(found: number, onHand: number): number {
  return tidy(found - onHand)
}
