import { addDays, daysBetween, type Day } from '../calendar'
import { tidy } from './stock'

/** A service that may fall due: it takes its whole set of a part, or nothing. */
export type LikelyUse = {
  quantity: number
  /** The chance that it has fallen due by a day: never falls, 0 to 1. */
  chanceBy: (day: Day) => number
}

/** What a part's stock to come follows from. */
export type StockAhead = {
  /** What lies there: below nothing where more was used than the book had. */
  lots: { quantity: number; expiresOn: Day | null }[]
  /** What booked visits take, each on its day, surely. */
  reserved: { day: Day; quantity: number }[]
  /** What is on its way. */
  orders: { day: Day; quantity: number }[]
  likely: LikelyUse[]
}

/** The stock at the end of a day: 5, 50 and 95 % of it, below nothing where it runs short. */
export type StockOnDay = {
  day: Day
  low: number
  median: number
  high: number
  /** The chance that by then something was wanted that was not there. */
  chanceShort: number
  /** What booked visits and likely services have taken by then, in the mean. */
  used: number
  /** What has expired unused by then, in the mean. */
  wasted: number
}

/** So many dates of expiry are told apart; what expires later within the look-ahead goes with the last of them. */
const mostExpiries = 2
/** Beyond so many different sums quantities are rounded to a grid: litres and grams may add up to anything. */
const mostSums = 4000

/**
 * The stock of one part, week by week: on hand and on order, less what booked visits take and what services
 * take that may fall due.
 *
 * A service takes its whole set or nothing, so that a half-likely set of six is six or none, never three: the
 * sums are worked out with their probabilities, not as a mean with a spread. Services fall due
 * independently of one another. What expires soonest is used first; what is left of it on its last day is
 * wasted. Deliveries come on their day.
 *
 * @param from the day it stands on; the first answer is for the end of that day
 * @param weeks how many weeks ahead, at least 0
 * @example
 * // 4 there, a set of six half likely by next week: none or 2 too few, and short with a chance of a half
 * projectStock({ lots: [{ quantity: 4, … }], likely: [{ quantity: 6, … }], … }, today, 1)[1] // { low: -2, high: 4, chanceShort: 0.5, … }
 */
export function projectStock(ahead: StockAhead, from: Day, weeks: number): StockOnDay[] {
  return Array.from({ length: weeks + 1 }, (_, week) => addDays(from, 7 * week)).map((day) =>
    stockOn(ahead, from, day),
  )
}

/** The same for the end of one day. */
export function stockOn(ahead: StockAhead, from: Day, day: Day): StockOnDay {
  const outcomes = outcomesOn(ahead, from, day)
  const mean = (of: (outcome: Outcome) => number) =>
    outcomes.reduce((sum, outcome) => sum + of(outcome) * outcome.chance, 0)
  return {
    day,
    low: leastBut(outcomes, 0.05),
    median: leastBut(outcomes, 0.5),
    high: leastBut(outcomes, 0.95),
    chanceShort: Math.min(
      1,
      mean(({ left }) => Number(left < 0)),
    ),
    used: mean(({ used }) => used),
    wasted: mean(({ wasted }) => wasted),
  }
}

/** One way it may have gone by the end of a day: what is left, was used, and expired unused. */
type Outcome = { left: number; used: number; wasted: number; chance: number }

/** Every way it may go, the least that is left first. */
function outcomesOn(ahead: StockAhead, from: Day, day: Day): Outcome[] {
  // What has expired is gone already.
  const lots = ahead.lots.filter(({ expiresOn }) => expiresOn === null || expiresOn >= from)
  const expiries = expiriesUntil(lots, day)
  const expiring = expiries.map((expiry) =>
    sumOf(lots.filter(({ expiresOn }) => expiresOn !== null && expiresOn <= expiry)),
  )
  const reservedBy = (until: Day) => sumOf(ahead.reserved.filter((each) => each.day <= until))
  const reserved = [...expiries, day].map(reservedBy)
  const there = tidy(sumOf(lots) + sumOf(ahead.orders.filter((order) => order.day <= day)))
  return usesBy(ahead.likely, [...expiries, day])
    .map(({ sums, chance }): Outcome => {
      // Used first is what expires soonest; what is beyond the use until its last day is gone.
      const wasted = expiring.reduce((most, held, at) => Math.max(most, held - sums[at]! - reserved[at]!), 0)
      const used = tidy(sums.at(-1)! + reserved.at(-1)!)
      return { left: tidy(there - used - wasted), used, wasted: tidy(wasted), chance }
    })
    .sort((a, b) => a.left - b.left)
}

/** So much or more is left, but for a share of the chances. */
function leastBut(outcomes: Outcome[], share: number): number {
  let sum = 0
  for (const { left, chance } of outcomes) {
    sum += chance
    if (sum > share + 1e-9) return left
  }
  return outcomes.at(-1)!.left
}

const sumOf = (list: { quantity: number }[]) => tidy(list.reduce((sum, { quantity }) => sum + quantity, 0))

/** The last good days of lots that go by before a day; of many the soonest are told apart. */
function expiriesUntil(lots: StockAhead['lots'], day: Day): Day[] {
  const passed = lots.flatMap(({ expiresOn }) => (expiresOn !== null && expiresOn < day ? [expiresOn] : []))
  const all = [...new Set(passed)].sort()
  return all.length <= mostExpiries ? all : [...all.slice(0, mostExpiries - 1), all.at(-1)!]
}

type Sums = { sums: number[]; chance: number }

/** Every way the likely services may have been used by each of some days, with its chance. */
function usesBy(likely: LikelyUse[], days: Day[]): Sums[] {
  const grid = gridFor(likely)
  if (days.length === 1) return usesOn(likely, days[0]!, grid)
  let all = new Map<string, Sums>([['', { sums: days.map(() => 0), chance: 1 }]])
  for (const use of likely) {
    const quantity = grid === null ? use.quantity : Math.round(use.quantity / grid) * grid
    const by = days.map((day) => Math.min(1, Math.max(0, use.chanceBy(day))))
    const next = new Map<string, Sums>()
    const add = (sums: number[], chance: number) => {
      if (chance <= 0) return
      const key = sums.join()
      const before = next.get(key)
      if (before) before.chance += chance
      else next.set(key, { sums, chance })
    }
    for (const { sums, chance } of all.values()) {
      // It falls due before the first of the days, between two of them, or after the last.
      days.forEach((_, at) => {
        const share = Math.max(0, by[at]! - (at === 0 ? 0 : by[at - 1]!))
        add(
          sums.map((sum, day) => (day >= at ? tidy(sum + quantity) : sum)),
          chance * share,
        )
      })
      add(sums, chance * (1 - by.at(-1)!))
    }
    all = next
  }
  return [...all.values()]
}

/** The same for one day alone, in plain numbers: most lots outlast what is looked at. */
function usesOn(likely: LikelyUse[], day: Day, grid: number | null): Sums[] {
  const step = grid ?? 1
  const sets = likely.map(({ quantity, chanceBy }) => ({
    steps: Math.round(quantity / step),
    chance: Math.min(1, Math.max(0, chanceBy(day))),
  }))
  const chances = new Float64Array(sets.reduce((sum, { steps }) => sum + steps, 0) + 1)
  chances[0] = 1
  let reach = 0
  for (const { steps, chance } of sets) {
    if (chance === 0 || steps === 0) continue
    for (let at = reach; at >= 0; at -= 1) {
      chances[at + steps]! += chances[at]! * chance
      chances[at]! *= 1 - chance
    }
    reach += steps
  }
  const all: Sums[] = []
  for (let at = 0; at <= reach; at += 1)
    if (chances[at]! > 0) all.push({ sums: [tidy(at * step)], chance: chances[at]! })
  return all
}

/** Null for pieces, whose sums are few; else a step so wide that there are not too many of them. */
function gridFor(likely: LikelyUse[]): number | null {
  const total = sumOf(likely)
  const whole = likely.every(({ quantity }) => Number.isInteger(quantity))
  return whole && total <= mostSums ? null : total / 400
}

/** On what terms a part comes, and how surely it should be there. */
export type OrderTerms = {
  leadDays: number
  packSize: number
  /** The least that the supplier sends, in pieces; 0 where anything can be ordered. */
  minimumOrder: number
  /** Never to fall below it: kept for what nobody foresees. */
  minimum: number
  /** The chance of running short that is taken. */
  risk: number
  /** How long an order is to last after it has come, in days. */
  lasts: number
  /** How long it keeps once it is here, in days; null where it does not age. */
  keepsDays: number | null
}

export type OrderAdvice = {
  /** The last day to order; before today where it is late. */
  orderBy: Day
  /** The first day by which the chance of running short passes the risk. */
  shortFrom: Day
  chanceShort: number
  quantity: number
  /** What the quantity was held down or rounded up by. */
  because: ('pack' | 'minimumOrder' | 'shelfLife')[]
  /** Too late: even ordered today it comes after that. */
  late: boolean
}

/**
 * Whether, by when and how much to order of one part: as soon as the chance that what lies there and is on
 * its way runs short before another delivery could come passes a set risk.
 *
 * Its last day is the first day on which that chance passes the risk, less the lead time. So much is
 * ordered that with the same certainty it lasts from its arrival on for so many days, in whole packs and
 * not below the supplier's least; but no more than will most likely be used while it keeps.
 *
 * @param horizon how many days are looked at
 * @returns null where nothing runs short within the horizon
 */
export function orderAdvice(
  ahead: StockAhead,
  today: Day,
  terms: OrderTerms,
  horizon: number,
): OrderAdvice | null {
  // The minimum is kept for what nobody foresees: it is no stock to plan with.
  const kept: StockAhead = {
    ...ahead,
    reserved: [{ day: today, quantity: terms.minimum }, ...ahead.reserved],
  }
  const short = firstShort(kept, today, terms.risk, horizon)
  if (!short) return null
  const orderBy = addDays(short.day, -terms.leadDays)
  const arrives = addDays(orderBy < today ? today : orderBy, terms.leadDays)
  const until = addDays(arrives, terms.lasts)
  const wanted = missingBy(kept, today, until, terms.risk)
  const because: OrderAdvice['because'] = []
  const packs = (quantity: number) => tidy(Math.ceil(tidy(quantity / terms.packSize)) * terms.packSize)
  let quantity = packs(Math.max(wanted, terms.packSize))
  if (quantity > wanted && terms.packSize > 1) because.push('pack')
  if (quantity < terms.minimumOrder) {
    quantity = packs(terms.minimumOrder)
    because.push('minimumOrder')
  }
  if (terms.keepsDays !== null) {
    // What would only be used after it has expired is not worth ordering.
    const usable = missingBy(kept, today, addDays(arrives, terms.keepsDays), terms.risk)
    const most = Math.max(terms.packSize, packs(usable))
    if (quantity > most) {
      quantity = most
      because.push('shelfLife')
    }
  }
  return {
    orderBy,
    shortFrom: short.day,
    chanceShort: short.chanceShort,
    quantity,
    because,
    late: orderBy < today,
  }
}

/** What has to be added so that a day ends with enough, but for the risk. */
const missingBy = (ahead: StockAhead, from: Day, day: Day, risk: number) =>
  Math.max(0, -leastBut(outcomesOn(ahead, from, day), risk))

/** The first day on which the chance of running short passes the risk. */
function firstShort(ahead: StockAhead, today: Day, risk: number, horizon: number): StockOnDay | null {
  const last = addDays(today, horizon)
  const events = [
    today,
    ...ahead.reserved.map(({ day }) => day),
    // It is shortest before a delivery comes.
    ...ahead.orders.map(({ day }) => addDays(day, -1)),
    ...ahead.lots.flatMap(({ expiresOn }) => (expiresOn === null ? [] : [addDays(expiresOn, 1)])),
    ...Array.from({ length: Math.ceil(horizon / 7) }, (_, week) => addDays(today, 7 * (week + 1))),
  ]
  const days = [...new Set(events)].filter((day) => day >= today && day <= last).sort()
  let before = today
  for (const day of days) {
    const on = stockOn(ahead, today, day)
    if (on.chanceShort > risk) return firstBetween(ahead, today, before, on, risk)
    before = day
  }
  return null
}

/** Between two of those days the chance only grows: the first day is found by halving. */
function firstBetween(
  ahead: StockAhead,
  today: Day,
  before: Day,
  found: StockOnDay,
  risk: number,
): StockOnDay {
  let low = 0
  let high = daysBetween(before, found.day)
  let first = found
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2)
    const on = stockOn(ahead, today, addDays(before, middle))
    if (on.chanceShort > risk) {
      high = middle
      first = on
    } else low = middle
  }
  return first
}
