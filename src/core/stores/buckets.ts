import { tidy } from './stock'

/**
 * In what state something lies where it is. Only what is on the shelf can be promised: picked, in the van
 * and at the bench is one visit's, back has to be looked over, and quarantine is nobody's.
 */
export const stockStates = {
  shelf: 'on the shelf',
  picked: 'picked',
  van: 'in the van',
  bench: 'at the bench',
  back: 'back, to look over',
  quarantine: 'in quarantine',
} as const
export type StockState = keyof typeof stockStates

/** So much of a lot lies in one place in one state, for one visit or for whoever comes. */
export type Bucket = {
  lotId: string | null
  placeId: string
  state: StockState
  visitId: string | null
  quantity: number
}

/** What people do with stock, and in which state it is before and after; null is out of the stores. */
export const stockActs = {
  pick: { name: 'Pick', from: ['shelf'], to: 'picked' },
  load: { name: 'Load the van', from: ['picked', 'bench'], to: 'van' },
  lay: { name: 'Lay at the bench', from: ['picked', 'van'], to: 'bench' },
  bringBack: { name: 'Bring back', from: ['picked', 'van', 'bench'], to: 'back' },
  shelve: { name: 'Back on the shelf', from: ['back', 'picked', 'quarantine'], to: 'shelf' },
  setAside: { name: 'Set aside', from: ['shelf', 'back', 'picked', 'van', 'bench'], to: 'quarantine' },
  transfer: { name: 'Take to another place', from: ['shelf'], to: 'shelf' },
  sendBack: { name: 'Return to the supplier', from: ['quarantine'], to: null },
  scrap: { name: 'Throw away', from: ['shelf', 'back', 'quarantine'], to: null },
} as const satisfies Record<string, { name: string; from: readonly StockState[]; to: StockState | null }>
export type StockAct = keyof typeof stockActs

/** What can be done with stock in a state. */
export function actsFrom(state: StockState): StockAct[] {
  return (Object.keys(stockActs) as StockAct[]).filter((act) =>
    (stockActs[act].from as readonly StockState[]).includes(state),
  )
}

/** Acts that want a reason: afterwards there is less than before, or nobody may use it. */
export const needsReason = (act: StockAct) => act === 'setAside' || act === 'sendBack' || act === 'scrap'

type Moved = {
  lotId: string | null
  placeId: string
  state: StockState
  visitId: string | null
  quantity: number
}

/** What lies where, from movements in any order; what came to nothing is left out. */
export function bucketsOf(movements: Moved[]): Bucket[] {
  const buckets = new Map<string, Bucket>()
  for (const { lotId, placeId, state, visitId, quantity } of movements) {
    const key = `${lotId} ${placeId} ${state} ${visitId}`
    const bucket = buckets.get(key)
    if (bucket) bucket.quantity = tidy(bucket.quantity + quantity)
    else buckets.set(key, { lotId, placeId, state, visitId, quantity: tidy(quantity) })
  }
  return [...buckets.values()].filter(({ quantity }) => quantity !== 0)
}

/** In which order a visit's bench takes from what lies about. */
const benchOrder: StockState[] = ['bench', 'van', 'picked', 'shelf', 'back']

/**
 * Where what a sheet used of a lot came from: what was picked for its visit first, nearest to the bench, then
 * the shelf of its own yard, then other shelves. What is more than lies there comes off the shelf all the
 * same, so that the bin wants counting; what others have picked and what is in quarantine is left.
 *
 * @param use of a lot, on the sheet of a visit or of none, in a yard
 * @returns shares that add up to the quantity
 */
export function takeForBench(
  buckets: Bucket[],
  use: { lotId: string | null; visitId: string | null; placeId: string; quantity: number },
): Bucket[] {
  const own = buckets
    .filter((bucket) => bucket.quantity > 0 && isWithinReach(bucket, use))
    .sort(
      (a, b) =>
        Number(a.visitId === null) - Number(b.visitId === null) ||
        benchOrder.indexOf(a.state) - benchOrder.indexOf(b.state) ||
        Number(a.placeId !== use.placeId) - Number(b.placeId !== use.placeId) ||
        b.quantity - a.quantity,
    )
  const shares: Bucket[] = []
  let left = use.quantity
  for (const bucket of own) {
    if (left <= 0) break
    const share = Math.min(left, bucket.quantity)
    shares.push({ ...bucket, quantity: share })
    left = tidy(left - share)
  }
  if (left > 0) {
    const shelf = { lotId: use.lotId, placeId: homeOf(buckets, use), state: 'shelf' as const, visitId: null }
    const same = shares.find(
      (each) => each.state === 'shelf' && each.placeId === shelf.placeId && each.visitId === null,
    )
    if (same) same.quantity = tidy(same.quantity + left)
    else shares.push({ ...shelf, quantity: left })
  }
  return shares
}

const isWithinReach = (bucket: Bucket, use: { lotId: string | null; visitId: string | null }) =>
  bucket.lotId === use.lotId &&
  benchOrder.includes(bucket.state) &&
  (bucket.visitId === null || bucket.visitId === use.visitId)

/** How much of a lot a visit's bench can take; below nothing where more was used than the book had. */
export function withinReach(
  buckets: Bucket[],
  use: { lotId: string | null; visitId: string | null },
): number {
  return tidy(
    buckets.filter((bucket) => isWithinReach(bucket, use)).reduce((sum, { quantity }) => sum + quantity, 0),
  )
}

/** The shelf that a lot without anything left is short on: its own yard's where it ever lay there. */
function homeOf(buckets: Bucket[], { lotId, placeId }: { lotId: string | null; placeId: string }): string {
  const shelves = buckets.filter((each) => each.lotId === lotId && each.state === 'shelf')
  return shelves.some((each) => each.placeId === placeId) ? placeId : (shelves[0]?.placeId ?? placeId)
}

/** The buckets after something has left them. */
export function without(buckets: Bucket[], shares: Bucket[]): Bucket[] {
  return bucketsOf([...buckets, ...shares.map((share) => ({ ...share, quantity: -share.quantity }))])
}
