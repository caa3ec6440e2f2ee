import { addDays, type Day } from '../calendar'
import type { Fit, PartUnit } from './schema'
import { tidy, type LotStock } from './stock'

/** A stocked part as far as anybody asks whether there is enough of it. */
export type StockedPart = {
  id: string
  number: string
  name: string
  unit: PartUnit
  bin: string
  fits: Fit[]
  retired: boolean
  /** Days that something ordered today takes to come. */
  leadDays: number
  /** In the order they should be used. */
  lots: Pick<LotStock, 'onHand' | 'expiresOn'>[]
}

/** What a booked visit needs of one stocked part. */
export type Demand = { visitId: string; day: Day; partId: string; quantity: number }

/** The stores and everything that is promised from them, to ask of. */
export type Book = {
  today: Day
  parts: Map<string, StockedPart>
  /** By part, in the order in which they are served: by day, then as they were booked. */
  reserved: Map<string, Demand[]>
}

export type Availability = {
  /** What can be taken on that day: good until then, and promised to nobody before. */
  free: number
  missing: number
  /** The first day on which all of it can be there: today, or when it would come if it were ordered today. */
  earliestDay: Day
}

/** @param reserved what the open visits need, in any order */
export function openBook(today: Day, parts: StockedPart[], reserved: Demand[]): Book {
  const byPart = new Map<string, Demand[]>()
  for (const demand of [...reserved].sort(servedFirst))
    byPart.set(demand.partId, [...(byPart.get(demand.partId) ?? []), demand])
  return { today, parts: new Map(parts.map((part) => [part.id, part])), reserved: byPart }
}

/** Whether a stocked part serves as a part of a model; of any model where none is named. */
export function serves(
  { fits }: { fits: Fit[] },
  { modelId, part }: { modelId: string | null | undefined; part: string | null },
): boolean {
  return fits.some((fit) => fit.part === part && (modelId === null || fit.modelId === modelId))
}

/**
 * The stocked part that serves as a part of a pump model: the one the stores still keep, and of several
 * the one with the lowest number. Null where the stores do not know it.
 *
 * @example stockedFor(book.parts.values(), { modelId: 'k4', part: 'hpSeal' }) // HP-20
 */
export function stockedFor<Part extends { fits: Fit[]; retired?: boolean }>(
  parts: Iterable<Part>,
  { modelId, part }: { modelId: string | null | undefined; part: string | null },
): Part | null {
  for (const each of parts)
    if (!each.retired && modelId != null && serves(each, { modelId, part })) return each
  return null
}

/**
 * How much of a part is free on a day, how much is missing, and when all of it can be there.
 *
 * Free is what lies in the bins and is good until that day, less what visits before it take: those of
 * earlier days, and on the same day those booked before `forVisit`. What a visit itself has reserved is
 * not taken from it; what later visits want does not count. Earlier visits take the lot to use first of
 * those that are good on their day, so that a lot about to expire is not counted twice.
 *
 * @param part the stocked part
 * @param forVisit the visit that asks; left out, whoever asks comes after every visit until that day
 * @throws RangeError for a part that is not in the book
 * @example
 * // 4 there, 3 promised to a visit on the 15th; 3 more are wanted on the 20th
 * availability(book, { part: 'hp20', quantity: 3, day: '2026-10-20' }) // { free: 1, missing: 2, earliestDay: '2026-11-04' }
 */
export function availability(
  book: Book,
  { part: id, quantity, day, forVisit }: { part: string; quantity: number; day: Day; forVisit?: string },
): Availability {
  const part = book.parts.get(id)
  if (!part) throw new RangeError(`${id} is no part of the stores.`)
  const onDay = day < book.today ? book.today : day
  const lots = part.lots.map(({ onHand, expiresOn }) => ({ left: Math.max(0, onHand), expiresOn }))
  for (const demand of book.reserved.get(id) ?? []) {
    if (demand.visitId === forVisit) continue
    const before =
      forVisit === undefined
        ? demand.day <= day
        : servedFirst(demand, { visitId: forVisit, day, partId: id, quantity }) < 0
    if (before) take(lots, demand.quantity, demand.day < book.today ? book.today : demand.day)
  }
  const free = tidy(lots.filter((lot) => isGood(lot, onDay)).reduce((sum, lot) => sum + lot.left, 0))
  const missing = tidy(Math.max(0, quantity - free))
  return { free, missing, earliestDay: missing > 0 ? addDays(book.today, part.leadDays) : book.today }
}

export type Supply = Demand & {
  /** What is left for it on the shelf after the visits before it. */
  available: number
  missing: number
  /** The day it would arrive if it were ordered today; null where nothing is missing. */
  arrives: Day | null
  inTime: boolean
}

/** What every reservation of the book gets, in the order in which they are served. */
export function suppliesOf(book: Book): Supply[] {
  return [...book.reserved.values()].flat().map((demand): Supply => {
    const { partId, quantity, day, visitId } = demand
    const { missing, earliestDay } = availability(book, { part: partId, quantity, day, forVisit: visitId })
    const arrives = missing > 0 ? earliestDay : null
    return {
      ...demand,
      available: tidy(quantity - missing),
      missing,
      arrives,
      inTime: arrives === null || arrives <= day,
    }
  })
}

type LotLeft = { left: number; expiresOn: Day | null }

const isGood = (lot: LotLeft, day: Day) => lot.expiresOn === null || lot.expiresOn >= day

function take(lots: LotLeft[], quantity: number, day: Day): void {
  let wanted = quantity
  for (const lot of lots) {
    if (wanted <= 0) return
    if (!isGood(lot, day)) continue
    const share = Math.min(lot.left, wanted)
    lot.left = tidy(lot.left - share)
    wanted = tidy(wanted - share)
  }
}

function servedFirst(a: Demand, b: Demand): number {
  return a.day < b.day ? -1 : a.day > b.day ? 1 : a.visitId < b.visitId ? -1 : a.visitId > b.visitId ? 1 : 0
}
