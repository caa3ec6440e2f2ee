import type { Day } from '../calendar'
import { tidy } from './stock'

/** One movement with what it is worth. */
export type ValuedMovement = {
  partId: string
  lotId: string | null
  placeId: string
  quantity: number
  kind: string
  day: Day
  unitCents: number
  reason: string
}

/** What the stores are worth, what was thrown away, and what was bought in a hurry. */
export type StoreValue = {
  /** By place, in cents; what was used beyond the book is worth nothing. */
  byPlace: { placeId: string; cents: number }[]
  cents: number
  /** Of that, what has expired and lies there still. */
  expiredCents: number
  /** Thrown away within the time looked at, in cents. */
  scrappedCents: number
}

/**
 * What the stores are worth at the end of a day, from movements alone: each lot at what was paid for it.
 *
 * @param movements up to now, in any order
 * @param expiresOn the last good day of each lot
 * @param since from which day on what was thrown away is summed
 */
export function storeValue(
  movements: ValuedMovement[],
  expiresOn: Map<string, Day | null>,
  day: Day,
  since: Day,
): StoreValue {
  const until = movements.filter((movement) => movement.day <= day)
  const held = new Map<
    string,
    { placeId: string; lotId: string | null; quantity: number; unitCents: number }
  >()
  for (const { lotId, partId, placeId, quantity, unitCents } of until) {
    const key = `${lotId ?? partId} ${placeId}`
    const own = held.get(key)
    if (own) own.quantity = tidy(own.quantity + quantity)
    else held.set(key, { placeId, lotId, quantity, unitCents })
  }
  const byPlace = new Map<string, number>()
  let expiredCents = 0
  for (const { placeId, lotId, quantity, unitCents } of held.values()) {
    if (quantity <= 0 || lotId === null) continue
    const cents = Math.round(quantity * unitCents)
    byPlace.set(placeId, (byPlace.get(placeId) ?? 0) + cents)
    const expiry = expiresOn.get(lotId)
    if (expiry != null && expiry < day) expiredCents += cents
  }
  return {
    byPlace: [...byPlace].map(([placeId, cents]) => ({ placeId, cents })),
    cents: [...byPlace.values()].reduce((sum, cents) => sum + cents, 0),
    expiredCents,
    scrappedCents: until
      .filter((movement) => movement.kind === 'scrap' && movement.day >= since)
      .reduce((sum, { quantity, unitCents }) => sum + Math.round(-quantity * unitCents), 0),
  }
}
