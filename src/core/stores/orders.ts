import { addDays, type Day } from '../calendar'
import { tidy } from './stock'

/** An order as it is kept; that it came in part follows from its lines. */
export const orderStates = {
  draft: 'Draft',
  sent: 'Sent',
  confirmed: 'Confirmed',
  closed: 'Closed',
  cancelled: 'Cancelled',
} as const
export type OrderState = keyof typeof orderStates

/** One line of an order; quantities are pieces, litres and so on, not packs. */
export type OrderLine = {
  id: string
  partId: string
  quantity: number
  /** What the supplier confirmed; null until it has. */
  confirmed: number | null
  /** The day the supplier promised; null until it has. */
  promisedOn: Day | null
  /** What will not come any more: called off, or never sent. */
  calledOff: number
  /** What came in, whether it could be used or not. */
  received: number
}

export type PlacedOrder = {
  id: string
  state: OrderState
  sentOn: Day | null
  /** Days that the supplier says, or one's own deliveries. */
  leadDays: number
  yardId: string
  lines: OrderLine[]
}

/** What of a line is still to come: what was confirmed, or ordered while nothing was, less what came. */
export function openQuantity({ quantity, confirmed, calledOff, received }: OrderLine): number {
  return tidy(Math.max(0, (confirmed ?? quantity) - calledOff - received))
}

export const isComing = (state: OrderState) => state === 'sent' || state === 'confirmed'

/** A delivery that is late is reckoned with after so many days more, until the supplier says better; ours. */
export const lateGrace = 7

/** When what is open of a line is reckoned to come. */
export function comesOn(
  line: Pick<OrderLine, 'promisedOn'>,
  order: Pick<PlacedOrder, 'sentOn' | 'leadDays'>,
  today: Day,
): Day {
  const said = line.promisedOn ?? addDays(order.sentOn ?? today, order.leadDays)
  return said < today ? addDays(today, lateGrace) : said
}

/** What is on its way from placed orders: drafts and what was called off do not come. */
export function dueInOf(
  orders: PlacedOrder[],
  today: Day,
): { partId: string; day: Day; quantity: number; yardId: string }[] {
  return orders
    .filter(({ state }) => isComing(state))
    .flatMap((order) =>
      order.lines.flatMap((line) => {
        const quantity = openQuantity(line)
        return quantity > 0
          ? [{ partId: line.partId, day: comesOn(line, order, today), quantity, yardId: order.yardId }]
          : []
      }),
    )
}

/** An order is waited for so many days before its confirmation is asked for; ours. */
export const confirmWithin = 3

/** Why somebody should call the supplier about an order; null where all is well. */
export type Chase =
  { why: 'unconfirmed'; since: Day } | { why: 'late'; promised: Day } | { why: 'short'; quantity: number }

/**
 * What to call a supplier about: a confirmation that does not come, a promised day that has passed, or a
 * confirmation of less than was ordered, of which the rest was not called off.
 */
export function chaseFor(order: PlacedOrder, today: Day): Chase | null {
  if (!isComing(order.state) || order.sentOn === null) return null
  const open = order.lines.filter((line) => openQuantity(line) > 0)
  const promised = open.map((line) => line.promisedOn ?? addDays(order.sentOn!, order.leadDays)).sort()[0]
  if (promised !== undefined && promised < today) return { why: 'late', promised }
  if (order.state === 'sent' && open.length > 0 && addDays(order.sentOn, confirmWithin) <= today)
    return { why: 'unconfirmed', since: order.sentOn }
  const short = tidy(
    order.lines.reduce(
      (sum, line) =>
        sum + (line.confirmed === null ? 0 : Math.max(0, line.quantity - line.confirmed - line.calledOff)),
      0,
    ),
  )
  return short > 0 ? { why: 'short', quantity: short } : null
}

/** What a supplier sells a part for, and on what terms. */
export type Offer = {
  supplierId: string
  partId: string
  /** For one piece, litre and so on. */
  unitCents: number
  packSize: number
  /** The least that is sent of it; 0 where anything can be ordered. */
  minimumOrder: number
  leadDays: number
}

/**
 * From whom to order: of those from whom it still comes in time, who asks least for the whole of it, packs
 * and least quantity counted; where nobody is in time, who is soonest. Of equals the sooner.
 *
 * @param orderBy for an offer's lead time, the last day to order
 * @returns null where nobody sells it
 */
export function chooseOffer<Each extends Offer>(
  offers: Each[],
  quantity: number,
  neededBy: Day,
  today: Day,
): Each | null {
  const costOf = (offer: Each) => Math.round(sellable(offer, quantity) * offer.unitCents)
  const inTime = offers.filter(({ leadDays }) => addDays(today, leadDays) <= neededBy)
  const [best] =
    inTime.length > 0
      ? [...inTime].sort((a, b) => costOf(a) - costOf(b) || a.leadDays - b.leadDays)
      : [...offers].sort((a, b) => a.leadDays - b.leadDays || costOf(a) - costOf(b))
  return best ?? null
}

/** A quantity as it can be ordered: whole packs, and not below the least. */
export function sellable(
  { packSize, minimumOrder }: Pick<Offer, 'packSize' | 'minimumOrder'>,
  quantity: number,
): number {
  return tidy(Math.ceil(tidy(Math.max(quantity, minimumOrder) / packSize)) * packSize)
}

/** A part that wants to be ordered, and from whom. */
export type Proposal = {
  partId: string
  supplierId: string
  quantity: number
  unitCents: number
  orderBy: Day
  late: boolean
}
export type ProposedOrder = {
  supplierId: string
  lines: (Proposal & { /** Not urgent yet: it goes along with what is. */ along: boolean })[]
  cents: number
  /** Cents short of the supplier's least order; 0 where it is enough. */
  belowLeast: number
}

/** What is to be ordered within so many days is proposed now; ours. */
export const orderWithin = 7
/** What would be ordered within so many days goes along with an order that is placed anyway; ours. */
export const goesAlong = 28

/**
 * Orders that need only a signature: all that has to be ordered within a week, by supplier, and with it
 * what the same supplier would be asked for within four weeks. An order below the supplier's least says by
 * how much.
 *
 * @param leastCents by supplier, the least a whole order comes to
 */
export function proposeOrders(
  proposals: Proposal[],
  leastCents: Map<string, number>,
  today: Day,
): ProposedOrder[] {
  const bySupplier = new Map<string, Proposal[]>()
  for (const proposal of proposals)
    bySupplier.set(proposal.supplierId, [...(bySupplier.get(proposal.supplierId) ?? []), proposal])
  return [...bySupplier].flatMap(([supplierId, own]): ProposedOrder[] => {
    const isUrgent = ({ orderBy }: Proposal) => orderBy <= addDays(today, orderWithin)
    if (!own.some(isUrgent)) return []
    const lines = own
      .filter(({ orderBy }) => orderBy <= addDays(today, goesAlong))
      .map((proposal) => ({ ...proposal, along: !isUrgent(proposal) }))
      .sort((a, b) => (a.orderBy < b.orderBy ? -1 : a.orderBy > b.orderBy ? 1 : 0))
    const cents = lines.reduce((sum, { quantity, unitCents }) => sum + Math.round(quantity * unitCents), 0)
    return [{ supplierId, lines, cents, belowLeast: Math.max(0, (leastCents.get(supplierId) ?? 0) - cents) }]
  })
}

/** How a delivery differs from what was expected of a line, in words for the record; empty where it does not. */
export function deliveryDifferences({
  open,
  noted,
  came,
  damaged,
}: {
  /** What was still to come. */
  open: number
  /** What the delivery note says. */
  noted: number
  /** What was counted, damaged pieces among it. */
  came: number
  damaged: number
}): string[] {
  const words: string[] = []
  if (came < noted) words.push(`${tidy(noted - came)} fewer than the note says`)
  if (came > noted) words.push(`${tidy(came - noted)} more than the note says`)
  if (came > open) words.push(`${tidy(came - open)} more than was to come`)
  if (damaged > 0) words.push(`${damaged} damaged, set aside`)
  return words
}
