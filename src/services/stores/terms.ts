import 'server-only'
import type { PricedOffer } from './placedOrders'

/** How long a part takes to come: from whoever sells it soonest; by the part's own word where nobody does. */
export function leadOf(ownDays: number, offers: PricedOffer[] | undefined): number {
  return offers && offers.length > 0 ? Math.min(...offers.map(({ lead }) => lead.days)) : ownDays
}
