/** A received quantity of one part. */
export type Lot = {
  id: string
  number: number
  partId: string
  receivedOn: string
  expiresOn: string | null
  /** It came out of a kit that was opened, or is a bottle that is open: used before what is closed. */
  opened?: boolean
}

/** So much in or out of a lot; a lot is null where nobody knows which one it came from. */
export type Movement = { partId: string; lotId: string | null; quantity: number }

export type LotStock = Lot & {
  /** What should lie there: the book less what open sheets have taken; below nothing where it had less. */
  onHand: number
  /** Of that, what open sheets have taken: the book holds it until they are signed. */
  taken: number
  /** Pieces left of an opened pack, 0 where none is open. */
  openPack: number
  expired: boolean
}

export type PartStock = {
  /** What can be taken: the lots that hold something and have not expired. */
  onHand: number
  /** What open sheets have taken out of the bins, and the book will lose when they are signed. */
  taken: number
  /** What should lie there of no lot in particular: nothing, or less than that where it was used so. */
  loose: number
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
 * @param taken what open sheets have taken; it is not in the bins any more
 * @example
 * // Two kits of three valves received, one valve used: five left, two of them in an opened kit.
 * stockOf(lots, [{ …, quantity: 6 }, { …, quantity: -1 }], '2026-10-14', 3) // { onHand: 5, lots: [{ onHand: 5, openPack: 2 }] }
 */
export function stockOf(
  lots: Lot[],
  movements: Movement[],
  today: string,
  packSize = 1,
  taken: Movement[] = [],
): PartStock {
  const book = sumsByLot(movements)
  const out = sumsByLot(taken)
  const inBin = (lotId: string | null) => tidy((book.get(lotId) ?? 0) - (out.get(lotId) ?? 0))
  const counted = lots.map((lot): LotStock => {
    const onHand = inBin(lot.id)
    return {
      ...lot,
      onHand,
      taken: out.get(lot.id) ?? 0,
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
    taken: tidy([...out.values()].reduce((total, each) => total + each, 0)),
    loose: inBin(null),
    short: tidy(sum(counted, (onHand) => Math.max(0, -onHand)) + Math.max(0, -inBin(null))),
    lots: counted.sort(toUseFirst),
  }
}

function sumsByLot(movements: Movement[]): Map<string | null, number> {
  const sums = new Map<string | null, number>()
  for (const { lotId, quantity } of movements) sums.set(lotId, tidy((sums.get(lotId) ?? 0) + quantity))
  return sums
}

function toUseFirst(a: LotStock, b: LotStock): number {
  const holds = (lot: LotStock) => (lot.onHand > 0 && !lot.expired ? 0 : 1)
  const opened = (lot: LotStock) => (lot.openPack > 0 || lot.opened ? 0 : 1)
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
