import type { Day } from '../calendar'
import { tidy } from './stock'

/** What a kit of unlike pieces holds. */
export type KitPiece = { partId: string; quantity: number }

/**
 * What is wrong with the contents of a kit: a piece twice, a kit within itself, over however many kits.
 * @param contentsOf what any part holds; nothing for a part that is no kit
 * @returns a sentence, or null
 */
export function kitFault(
  kitId: string,
  contents: KitPiece[],
  contentsOf: (partId: string) => KitPiece[],
): string | null {
  const ids = contents.map(({ partId }) => partId)
  if (new Set(ids).size < ids.length) return 'A piece stands in it twice. Add the two together.'
  const seen = new Set<string>()
  const holdsItself = (partId: string): boolean => {
    if (partId === kitId) return true
    if (seen.has(partId)) return false
    seen.add(partId)
    return contentsOf(partId).some((piece) => holdsItself(piece.partId))
  }
  if (ids.some(holdsItself)) return 'A kit cannot hold itself.'
  return ids.some((id) => contentsOf(id).length > 0)
    ? 'A kit holds pieces, not kits. Name the pieces of the other kit.'
    : null
}

/**
 * What each piece of a kit cost: the kit's price shared out by what the pieces cost loose, so that the cents
 * add up to it exactly; equally where nobody knows their loose prices. What is lost in rounding goes to the
 * shares that lost most, of equals to the first.
 *
 * @param cents the kit's price
 * @returns the cents of all pieces of each kind together, in their order
 * @example shareKitPrice(1000, [{ partId: 'seal', quantity: 2, looseCents: 300 }, { partId: 'ring', quantity: 1, looseCents: 100 }])
 * // [857, 143]
 */
export function shareKitPrice(cents: number, pieces: (KitPiece & { looseCents: number })[]): number[] {
  const known = pieces.some(({ looseCents }) => looseCents > 0)
  const weights = pieces.map(({ quantity, looseCents }) => quantity * (known ? looseCents : 1))
  const sum = weights.reduce((total, weight) => total + weight, 0)
  const exact = weights.map((weight) => (cents * weight) / sum)
  const shares = exact.map(Math.floor)
  const byLoss = exact
    .map((value, at) => ({ at, lost: value - Math.floor(value) }))
    .sort((a, b) => b.lost - a.lost || a.at - b.at)
  const rest = cents - shares.reduce((total, share) => total + share, 0)
  for (const { at } of byLoss.slice(0, rest)) shares[at]! += 1
  return shares
}

/** A kit as it lies unopened, as far as its pieces can be had from it. */
export type ClosedKit = {
  contents: KitPiece[]
  lots: { quantity: number; expiresOn: Day | null; placeId: string }[]
}

/**
 * What unopened kits hold of one part, as lots of it. Opening one gives all of its pieces, so each part can
 * count on every kit, whatever the others take.
 */
export function heldInKits(kits: ClosedKit[], partId: string): ClosedKit['lots'] {
  return kits.flatMap(({ contents, lots }) =>
    contents
      .filter((piece) => piece.partId === partId)
      .flatMap((piece) =>
        lots
          .filter(({ quantity }) => quantity > 0)
          .map((lot) => ({ ...lot, quantity: tidy(lot.quantity * piece.quantity) })),
      ),
  )
}
