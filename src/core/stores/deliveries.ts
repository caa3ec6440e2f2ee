import { daysBetween, type Day } from '../calendar'

/** So many of one's own deliveries say better than the supplier how long it takes. */
export const enoughDeliveries = 5

/** How long something takes to come, and whose word that is. */
export type LeadTime = { days: number; from: 'supplier' | 'deliveries'; deliveries: number }

/**
 * How many days a part takes from the day it is ordered: what the supplier says, until five of one's own
 * deliveries say better; then so many days that nine of ten came within them (nearest rank: of five
 * deliveries the slowest, of ten the ninth).
 *
 * @param said what the supplier says, in days
 * @param deliveries one's own, each from the day it was ordered to the day on which all of it had come
 * @example leadTime(14, [{ orderedOn: '2026-01-05', completeOn: '2026-01-15' }]) // { days: 14, from: 'supplier', deliveries: 1 }
 */
export function leadTime(said: number, deliveries: { orderedOn: Day; completeOn: Day }[]): LeadTime {
  const took = deliveries
    .map(({ orderedOn, completeOn }) => Math.max(0, daysBetween(orderedOn, completeOn)))
    .sort((a, b) => a - b)
  if (took.length < enoughDeliveries) return { days: said, from: 'supplier', deliveries: took.length }
  return {
    days: took[Math.ceil(took.length * 0.9) - 1]!,
    from: 'deliveries',
    deliveries: took.length,
  }
}
