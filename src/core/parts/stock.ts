/** A received quantity of one part. */
export type Lot = {
  id: string
  number: number
  partId: string
  receivedOn: string
  expiresOn: string | null
}

/** So much in or out of a lot; a lot is null where nobody knows which one it came from. */
export type Movement = { partId: string; lotId: string | null; quantity: number }

export type LotStock = Lot & {
  /** What should lie there by the book; below nothing where more was used than the book had. */
  onHand: number
  /** Pieces left of an opened pack, 0 where none is open. */
  openPack: number
  expired: boolean
}

export type PartStock = {
  /** What can be taken by the book: the lots that hold something and have not expired. */
  onHand: number
  /** What has expired and must not be used. */
  expired: number
  /** Used beyond the book: those bins want counting. 0 when all is well. */
  short: number
  /** The one to take from first comes first. */
  lots: LotStock[]
}

/** Sums of quantities without the dust of binary fractions. */
export function tidy(quantity: number): number {
  return Math.round(quantity * 1000) / 1000
}

/**
 * The stock of one part from its lots and every movement since.
 *
 * Nothing goes negative in silence: a lot from which more was used than it held adds to `short`, and
 * takes nothing away from the other lots. What was used without a lot is short until it is counted.
 * Lots are ordered as they should be used: part-used packs first, then by expiry, then oldest first.
 *
 * @param lots the part's lots
 * @param movements all its movements, receipts among them, in any order
 * @param today lots past their expiry are counted apart
 * @param packSize pieces in a pack as it is received; 1 for loose pieces
 * @example
 * // Two kits of three valves received, one valve used: five left, two of them in an opened kit.
 * stockOf(lots, [{ …, quantity: 6 }, { …, quantity: -1 }], '2026-10-14', 3) // { onHand: 5, lots: [{ onHand: 5, openPack: 2 }] }
 */
export function stockOf(lots: Lot[], movements: Movement[], today: string, packSize = 1): PartStock {
  const sums = new Map<string | null, number>()
  for (const { lotId, quantity } of movements) sums.set(lotId, tidy((sums.get(lotId) ?? 0) + quantity))
  const counted = lots.map((lot): LotStock => {
    const onHand = sums.get(lot.id) ?? 0
    return {
      ...lot,
      onHand,
      openPack: packSize > 1 && onHand > 0 ? tidy(onHand % packSize) : 0,
      expired: lot.expiresOn !== null && lot.expiresOn < today,
    }
  })
  const sum = (list: LotStock[], of: (onHand: number) => number) =>
    tidy(list.reduce((total, lot) => total + of(lot.onHand), 0))
  const over = (onHand: number) => Math.max(0, onHand)
  return {
    onHand: sum(
      counted.filter((lot) => !lot.expired),
      over,
    ),
    expired: sum(
      counted.filter((lot) => lot.expired),
      over,
    ),
    short: tidy(sum(counted, (onHand) => Math.max(0, -onHand)) + Math.max(0, -(sums.get(null) ?? 0))),
    lots: counted.sort(toUseFirst),
  }
}

function toUseFirst(a: LotStock, b: LotStock): number {
  const holds = (lot: LotStock) => (lot.onHand > 0 && !lot.expired ? 0 : 1)
  const opened = (lot: LotStock) => (lot.openPack > 0 ? 0 : 1)
  return (
    holds(a) - holds(b) ||
    opened(a) - opened(b) ||
    (a.expiresOn ?? '9999').localeCompare(b.expiresOn ?? '9999') ||
    a.receivedOn.localeCompare(b.receivedOn) ||
    a.number - b.number
  )
}

/**
 * Which lots to take a quantity from: the one to use first until it is empty, then the next. What no lot
 * holds is taken from the last one all the same, so that its bin gets counted; expired lots are left.
 *
 * @param lots in the order they should be used
 * @param quantity more than 0
 * @returns shares that add up to the quantity; a null lot where there is none to name
 * @example takeFrom([{ id: 'a', onHand: 2, expired: false }, { id: 'b', onHand: 24, expired: false }], 3)
 * // [{ lotId: 'a', quantity: 2 }, { lotId: 'b', quantity: 1 }]
 */
export function takeFrom(
  lots: Pick<LotStock, 'id' | 'onHand' | 'expired'>[],
  quantity: number,
): { lotId: string | null; quantity: number }[] {
  const usable = lots.filter((lot) => lot.onHand > 0 && !lot.expired)
  const shares: { lotId: string | null; quantity: number }[] = []
  let left = quantity
  for (const lot of usable) {
    if (left <= 0) break
    const share = Math.min(left, lot.onHand)
    shares.push({ lotId: lot.id, quantity: share })
    left = tidy(left - share)
  }
  const last = shares.at(-1)
  if (left > 0 && last) last.quantity = tidy(last.quantity + left)
  else if (left > 0) shares.push({ lotId: null, quantity: left })
  return shares
}

/** What one visit needs of one stocked part. */
export type Demand = { visitId: string; day: string; partId: string; quantity: number }

export type Supply = Demand & {
  /** What is left for it on the shelf after the visits before it. */
  available: number
  missing: number
  /** The day it would arrive if it were ordered today; null where nothing is missing. */
  arrives: string | null
  inTime: boolean
}

/**
 * Deals out the shelf to visits in the order of their days: what an earlier visit takes is not there
 * for a later one. What is missing would have to be ordered today; `inTime` says whether it would come
 * by the visit's day.
 *
 * @param demands of all open visits, any order
 * @param onHand by part
 * @param arrivesOn the day on which something ordered today arrives, by part
 */
export function dealOut(
  demands: Demand[],
  onHand: (partId: string) => number,
  arrivesOn: (partId: string) => string,
): Supply[] {
  const left = new Map<string, number>()
  return [...demands]
    .sort((a, b) => a.day.localeCompare(b.day) || a.visitId.localeCompare(b.visitId))
    .map((demand) => {
      const there = left.get(demand.partId) ?? onHand(demand.partId)
      const available = Math.min(there, demand.quantity)
      const missing = tidy(demand.quantity - available)
      left.set(demand.partId, tidy(there - available))
      const arrives = missing > 0 ? arrivesOn(demand.partId) : null
      return { ...demand, available, missing, arrives, inTime: arrives === null || arrives <= demand.day }
    })
}
