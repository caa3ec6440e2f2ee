import { showDay } from '@/core/calendar'
import { orderStates, type Chase, type OrderListLine } from '@/core/stores'

/** How an order stands, in a few words. */
export function orderStanding({ state, inPart }: Pick<OrderListLine, 'state' | 'inPart'>): string {
  return inPart ? 'Received in part' : orderStates[state]
}

/** Why to call the supplier. */
export function chaseWords(chase: Chase, today: string): string {
  if (chase.why === 'late') return `Late: promised for ${showDay(chase.promised, today)}`
  if (chase.why === 'unconfirmed') return `Not confirmed since ${showDay(chase.since, today)}`
  return `${chase.quantity} fewer confirmed than ordered`
}
