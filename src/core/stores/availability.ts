import { addDays, type Day } from '../calendar'
import type { Fit, PartUnit } from './schema'
import { tidy, type LotStock } from './stock'

/** What lies in a lot, as far as it can be promised; without a yard it is at hand wherever it is wanted. */
export type BookLot = Pick<LotStock, 'onHand' | 'expiresOn'> & { yardId?: string }

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
  /** In the order they should be used; what unopened kits hold of it among them. */
  lots: BookLot[]
}

/** What a booked visit needs of one stocked part, beside what has been picked for it. */
export type Demand = { visitId: string; day: Day; partId: string; quantity: number; yardId?: string }

/** What is on its way. */
export type DueIn = { partId: string; day: Day; quantity: number; yardId?: string }

/** The stores and everything that is promised from them, to ask of. */
export type Book = {
  today: Day
  parts: Map<string, StockedPart>
  /** By part, in the order in which they are served: by day, then as they were booked. */
  reserved: Map<string, Demand[]>
  /** By part, soonest first. */
  dueIn: Map<string, DueIn[]>
  /** How many days a transfer from another yard takes. */
  transferDays: number
}

export type Availability = {
  /** What can be taken on that day: good until then, and promised to nobody before. */
  free: number
  /** Of that, what would have to come from other yards. */
  fromOthers: { yardId: string; quantity: number }[]
  /** Of that, what is still on its way. */
  dueIn: number
  missing: number
  /** The first day on which all of it can be there: from the bins, another yard, an order, or ordered today. */
  earliestDay: Day
}

/** A transfer is reckoned with so many days where nobody has said better; ours. */
export const usualTransferDays = 2

/**
 * @param reserved what the open visits need, in any order
 * @param dueIn what is on its way, in any order
 */
export function openBook(
  today: Day,
  parts: StockedPart[],
  reserved: Demand[],
  dueIn: DueIn[] = [],
  transferDays = usualTransferDays,
): Book {
  const byPart = <Each extends { partId: string }>(list: Each[]) => {
    const map = new Map<string, Each[]>()
    for (const each of list) {
      const own = map.get(each.partId)
      if (own) own.push(each)
      else map.set(each.partId, [each])
    }
    return map
  }
  return {
    today,
    parts: new Map(parts.map((part) => [part.id, part])),
    reserved: byPart([...reserved].sort(servedFirst)),
    dueIn: byPart([...dueIn].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))),
    transferDays,
  }
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
 * Free is what lies in the bins and is good until that day, and what comes in by then, less what visits
 * before it take: those of earlier days, and on the same day those booked before `forVisit`. What a visit
 * itself has reserved is not taken from it; what later visits want does not count. Each takes first what
 * lies in its own yard, then what comes in there by its day, then what other yards hold, which takes a
 * transfer with its days; of lots the one to use first of those that are good on its day, so that a lot
 * about to expire is not counted twice.
 *
 * @param part the stocked part
 * @param yardId where it is wanted; left out, wherever it lies
 * @param forVisit the visit that asks; left out, whoever asks comes after every visit until that day
 * @throws RangeError for a part that is not in the book
 * @example
 * // 4 there, 3 promised to a visit on the 15th; 3 more are wanted on the 20th
 * availability(book, { part: 'hp20', quantity: 3, day: '2026-10-20' }) // { free: 1, missing: 2, earliestDay: '2026-11-04', … }
 */
export function availability(
  book: Book,
  asked: { part: string; quantity: number; day: Day; yardId?: string; forVisit?: string },
): Availability {
  const part = book.parts.get(asked.part)
  if (!part) throw new RangeError(`${asked.part} is no part of the stores.`)
  const onDay = asked.day < book.today ? book.today : asked.day
  const sources = sourcesFor(book, asked, onDay)
  const reached = sources.filter((source) => source.left > 0 && isReached(source, onDay))
  const free = sumOf(reached)
  const missing = tidy(Math.max(0, asked.quantity - free))
  let wanted = asked.quantity
  const fromOthers = new Map<string, number>()
  let dueIn = 0
  for (const source of reached) {
    const share = Math.min(wanted, source.left)
    wanted = tidy(wanted - share)
    if (share > 0 && source.isElsewhere && source.yardId !== undefined)
      fromOthers.set(source.yardId, tidy((fromOthers.get(source.yardId) ?? 0) + share))
    if (share > 0 && source.isDueIn) dueIn = tidy(dueIn + share)
  }
  return {
    free,
    fromOthers: [...fromOthers].map(([yardId, quantity]) => ({ yardId, quantity })),
    dueIn,
    missing,
    earliestDay:
      missing === 0 && dueIn === 0 && fromOthers.size === 0 ? book.today : earliestFor(book, part, asked),
  }
}

/** The days on which something more can be there are tried, soonest first; ordered today it comes at last. */
function earliestFor(
  book: Book,
  part: StockedPart,
  asked: { part: string; quantity: number; day: Day; yardId?: string; forVisit?: string },
): Day {
  const ordered = addDays(book.today, part.leadDays)
  const days = [
    book.today,
    addDays(book.today, book.transferDays),
    ...(book.dueIn.get(asked.part) ?? []).flatMap(({ day }) => [day, addDays(day, book.transferDays)]),
  ]
  for (const day of [...new Set(days)].sort()) {
    if (day >= ordered || day < book.today) continue
    const needed = day > asked.day ? day : asked.day < book.today ? book.today : asked.day
    const there = sourcesFor(book, asked, needed).filter(
      (source) => source.left > 0 && source.from <= day && isReached(source, needed),
    )
    if (sumOf(there) >= asked.quantity) return day
  }
  return ordered
}

/** Something that can be taken from, where it is and from which day on. */
type Source = { left: number; expiresOn: Day | null; yardId: string | undefined; from: Day; isDueIn: boolean }
/** The same as a yard sees it: from which day on it is there. */
type SeenSource = Source & { isElsewhere: boolean; of: Source }

/** What is left for whoever asks on a day, after everyone who is served before. */
function sourcesFor(
  book: Book,
  asked: { part: string; yardId?: string; forVisit?: string },
  day: Day,
): SeenSource[] {
  const lots = book.parts.get(asked.part)!.lots.map(({ onHand, expiresOn, yardId }): Source => ({
    left: Math.max(0, onHand),
    expiresOn,
    yardId,
    from: book.today,
    isDueIn: false,
  }))
  const orders = (book.dueIn.get(asked.part) ?? []).map((order): Source => ({
    left: order.quantity,
    expiresOn: null,
    yardId: order.yardId,
    from: order.day < book.today ? book.today : order.day,
    isDueIn: true,
  }))
  const all = [...lots, ...orders]
  for (const demand of book.reserved.get(asked.part) ?? []) {
    if (demand.visitId === asked.forVisit) continue
    const isBefore =
      asked.forVisit === undefined
        ? demand.day <= day
        : servedFirst(demand, { visitId: asked.forVisit, day, partId: asked.part, quantity: 0 }) < 0
    if (isBefore) take(all, demand, book)
  }
  return seenFrom(all, asked.yardId, book)
}

/** The sources as one yard sees them: its own first, then what comes in there, then the others'. */
function seenFrom(all: Source[], yardId: string | undefined, { transferDays }: Book): SeenSource[] {
  return all
    .map((source): SeenSource => {
      const isElsewhere = yardId !== undefined && source.yardId !== undefined && source.yardId !== yardId
      const from = isElsewhere ? addDays(source.from, transferDays) : source.from
      return { ...source, isElsewhere, from, of: source }
    })
    .sort((a, b) => Number(a.isElsewhere) - Number(b.isElsewhere) || Number(a.isDueIn) - Number(b.isDueIn))
}

function take(all: Source[], demand: Demand, book: Book): void {
  const day = demand.day < book.today ? book.today : demand.day
  let wanted = demand.quantity
  for (const source of seenFrom(all, demand.yardId, book)) {
    if (wanted <= 0) return
    if (!isReached(source, day)) continue
    const share = Math.min(source.left, wanted)
    source.of.left = tidy(source.of.left - share)
    wanted = tidy(wanted - share)
  }
}

const isReached = ({ from, expiresOn }: Source, day: Day) =>
  from <= day && (expiresOn === null || expiresOn >= day)

const sumOf = (sources: { left: number }[]) => tidy(sources.reduce((sum, { left }) => sum + left, 0))

export type Supply = Demand & {
  /** What is left for it after the visits before it: in the bins, in other yards, or on its way. */
  available: number
  fromOthers: Availability['fromOthers']
  dueIn: number
  missing: number
  /** The day it would arrive if it were ordered today; null where nothing is missing. */
  arrives: Day | null
  inTime: boolean
}

/** What every reservation of the book gets, in the order in which they are served. */
export function suppliesOf(book: Book): Supply[] {
  return [...book.reserved.values()].flat().map((demand): Supply => {
    const { partId, quantity, day, visitId } = demand
    const { missing, earliestDay, fromOthers, dueIn } = availability(book, {
      part: partId,
      quantity,
      day,
      yardId: demand.yardId,
      forVisit: visitId,
    })
    const arrives = missing > 0 ? earliestDay : null
    return {
      ...demand,
      fromOthers,
      dueIn,
      available: tidy(quantity - missing),
      missing,
      arrives,
      inTime: arrives === null || arrives <= day,
    }
  })
}

function servedFirst(a: Demand, b: Demand): number {
  return a.day < b.day ? -1 : a.day > b.day ? 1 : a.visitId < b.visitId ? -1 : a.visitId > b.visitId ? 1 : 0
}
