import type { Day } from '../calendar'
import { coverNeed, type Cover, type CoverPrices } from './cover'
import { tidy } from './stock'

/** Something that lies on a shelf and can be picked. */
export type ShelfLot = {
  lotId: string
  partId: string
  placeId: string
  quantity: number
  expiresOn: Day | null
  /** Left over from a kit or pack that was opened. */
  leftOver: boolean
}

/** What a visit wants laid ready, in the order in which visits are served. */
export type PickWant = {
  visitId: string
  day: Day
  yardId: string
  needs: { partId: string; quantity: number }[]
}

/** What holds other pieces. */
export type PickKit = { partId: string; contents: { partId: string; quantity: number }[] }

export type PickPlan = {
  visitId: string
  take: { lotId: string; partId: string; placeId: string; quantity: number }[]
  open: {
    kitPartId: string
    lotId: string
    placeId: string
    pieces: { partId: string; quantity: number }[]
  }[]
  /** What is not on the shelves of the yard. */
  short: { partId: string; quantity: number }[]
  leftOver: Cover['leftOver']
}

/**
 * What to pick for each of some visits: which lots, which kits to open, loose and left-over pieces first
 * where that is cheapest, out of what the visits before have left on the shelves of the visit's own yard.
 *
 * Each visit is covered at least cost (`coverNeed`); what later visits want of the same parts is the due
 * work that left-over pieces are worth something to.
 *
 * @param wants in the order in which they are served
 * @param shelf what lies on shelves and is nobody's yet
 */
export function pickPlans(
  wants: PickWant[],
  shelf: ShelfLot[],
  kits: PickKit[],
  prices: CoverPrices,
): PickPlan[] {
  const left = new Map(shelf.map((lot) => [keyOf(lot), { ...lot }]))
  // A kit that was opened for one visit leaves pieces that the next finds.
  return wants.map((want, at): PickPlan => {
    const here = [...left.values()].filter((lot) => lot.placeId === want.yardId && lot.quantity > 0)
    const kitIds = new Set(kits.map(({ partId }) => partId))
    const wanted = want.needs.filter(({ quantity }) => quantity > 0)
    const cover = coverNeed({
      need: wanted.map(({ partId, quantity }) => ({ part: partId, quantity })),
      stock: here
        .filter(({ partId }) => !kitIds.has(partId))
        .map((lot) => ({
          lot: keyOf(lot),
          part: lot.partId,
          quantity: lot.quantity,
          expiresOn: lot.expiresOn,
          leftOver: lot.leftOver,
        })),
      kits: kits.map(({ partId, contents }) => ({
        kit: partId,
        pieces: contents.map((piece) => ({ part: piece.partId, quantity: piece.quantity })),
        lots: here
          .filter((lot) => lot.partId === partId)
          .map((lot) => ({ lot: keyOf(lot), quantity: lot.quantity, expiresOn: lot.expiresOn })),
      })),
      // What is not there is not bought by the pick list: it is a shortage.
      prices: { parts: onlyWorth(prices), kits: {} },
      onDay: want.day,
      dueWork: wants
        .slice(at + 1)
        .flatMap((later) =>
          later.yardId === want.yardId
            ? later.needs
                .filter(({ quantity }) => quantity > 0)
                .map(({ partId, quantity }) => ({ part: partId, quantity, by: later.day }))
            : [],
        ),
    })
    const take = cover.take.map(({ lot, quantity }) => {
      const from = left.get(lot)!
      from.quantity = tidy(from.quantity - quantity)
      return { lotId: from.lotId, partId: from.partId, placeId: from.placeId, quantity }
    })
    const open = cover.open.map(({ kit, kitLot, pieces }) => {
      const from = left.get(kitLot)!
      from.quantity = tidy(from.quantity - 1)
      for (const piece of kits.find(({ partId }) => partId === kit)!.contents) {
        const used = pieces.find(({ part }) => part === piece.partId)?.quantity ?? 0
        const rest = tidy(piece.quantity - used)
        if (rest > 0) {
          const leftOver: ShelfLot = {
            lotId: `opened ${from.lotId} ${left.size}`,
            partId: piece.partId,
            placeId: from.placeId,
            quantity: rest,
            expiresOn: from.expiresOn,
            leftOver: true,
          }
          left.set(keyOf(leftOver), leftOver)
        }
      }
      return {
        kitPartId: kit,
        lotId: from.lotId,
        placeId: from.placeId,
        pieces: pieces.map(({ part, quantity }) => ({ partId: part, quantity })),
      }
    })
    return {
      visitId: want.visitId,
      take,
      open,
      short: cover.missing.map(({ part, quantity }) => ({ partId: part, quantity })),
      leftOver: cover.leftOver,
    }
  })
}

/** A pick list buys nothing: a kit is opened before anything is short, whatever it costs. */
const onlyWorth = ({ parts }: CoverPrices): CoverPrices['parts'] =>
  Object.fromEntries(
    Object.entries(parts).map(([part, { cents }]) => [part, { cents, notForSale: true as const }]),
  )

const keyOf = ({ lotId, placeId }: Pick<ShelfLot, 'lotId' | 'placeId'>) => `${lotId} @ ${placeId}`
