import { addDays, type Day } from '../calendar'
import { tidy } from './stock'

/** What a service that is not booked yet will take of a stocked part, when, and how surely. */
export type ComingDemand = { partId: string; day: Day; quantity: number; chance: number; for: string }

/** A part that the coming weeks eat below what should be kept. */
export type ComingNeed = {
  partId: string
  /** The day on which what is left falls below the minimum. */
  wantedOn: Day
  /** The last day to order so that it is there by then. */
  orderBy: Day
  /** Expected use until the end of the look-ahead. */
  expected: number
  /** On hand less what booked visits take. */
  free: number
  minimum: number
  /** To order, in whole packs. */
  order: number
  for: string[]
}

/** How one part stands against what is coming. */
export type ComingStock = { free: number; minimum: number; leadDays: number; packSize: number }

/**
 * What the coming weeks need beyond the booked visits: each service that may fall due takes its parts
 * with the chance that it does. A part is named where what is left falls below its minimum; it is
 * ordered its lead time before that day.
 *
 * @param demands in any order; services on a visit are left out by the caller, their parts are reserved
 * @param stockOf a part's free stock and its terms
 * @example
 * // 6 free, 3 to be kept; 3 surely on 28 Oct and 3 likely (0.5) on 9 Nov: 1.5 below on 9 Nov
 * comingNeed(demands, stockOf) // [{ wantedOn: '2026-11-09', orderBy: '2026-10-19', order: 3, … }]
 */
export function comingNeed(demands: ComingDemand[], stockOf: (partId: string) => ComingStock): ComingNeed[] {
  const partIds = [...new Set(demands.map((demand) => demand.partId))]
  const needs = partIds.flatMap((partId): ComingNeed[] => {
    const { free, minimum, leadDays, packSize } = stockOf(partId)
    const own = demands
      .filter((demand) => demand.partId === partId)
      .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
    const expected = tidy(own.reduce((sum, each) => sum + each.quantity * each.chance, 0))
    let left = free
    const first = own.find((each) => {
      left = tidy(left - each.quantity * each.chance)
      return left < minimum
    })
    if (!first) return []
    const short = minimum - (free - expected)
    return [
      {
        partId,
        wantedOn: first.day,
        orderBy: addDays(first.day, -leadDays),
        expected,
        free,
        minimum,
        order: tidy(Math.ceil(tidy(short / packSize)) * packSize),
        for: [...new Set(own.map((each) => each.for))],
      },
    ]
  })
  return needs.sort((a, b) => (a.orderBy < b.orderBy ? -1 : a.orderBy > b.orderBy ? 1 : 0))
}
