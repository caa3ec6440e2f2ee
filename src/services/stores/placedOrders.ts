import 'server-only'
import { isComing, leadTime, type LeadTime, type PlacedOrder } from '@/core/stores'
import { derived } from '@/db/house'
import {
  offers,
  orderLines,
  orders,
  stockLots,
  suppliers,
  type OfferRow,
  type OrderLineRow,
  type OrderRow,
} from '@/db/stores'
import { groupBy } from '../house'

/** An order with its lines, what has come in of each, and on which day last. */
export type FullOrder = PlacedOrder & {
  row: OrderRow
  rows: OrderLineRow[]
  lastOf: Map<string, string>
}

/** Every order, with what came in of each line; the same list until one changes or something comes in. */
export async function loadOrders(): Promise<FullOrder[]> {
  const [orderRows, lineRows, received] = await Promise.all([
    orders.every(),
    orderLines.every(),
    receivedByLine(),
  ])
  return derived('orders', [orderRows, lineRows, received], () => {
    const linesOf = groupBy(lineRows, (line) => line.orderId)
    return orderRows
      .map((row): FullOrder => {
        const rows = [...(linesOf.get(row.id) ?? [])].sort((a, b) => a.line - b.line)
        return {
          ...{ id: row.id, state: row.state, sentOn: row.sentOn, yardId: row.yardId, row, rows },
          lastOf: new Map(rows.map(({ id }) => [id, received.get(id)?.last ?? ''])),
          leadDays: Math.max(0, ...rows.map((line) => line.leadDays)),
          lines: rows.map((line) => ({
            id: line.id,
            partId: line.partId,
            quantity: line.quantity,
            confirmed: line.confirmed,
            promisedOn: line.promisedOn,
            calledOff: line.calledOff,
            received: received.get(line.id)?.quantity ?? 0,
          })),
        }
      })
      .sort((a, b) => b.row.number - a.row.number)
  })
}

/** Those that something is to come of. */
export async function loadPlacedOrders(): Promise<PlacedOrder[]> {
  const all = await loadOrders()
  return derived('placed orders', [all], () => all.filter(({ state }) => isComing(state)))
}

/** What came in of each line of an order, and on which day last. */
async function receivedByLine(): Promise<Map<string, { quantity: number; last: string }>> {
  const lotRows = await stockLots.every()
  const fromOrders = derived('lots from orders', [lotRows], () =>
    lotRows.filter((lot) => lot.orderLineId !== null),
  )
  return derived('received by line', [fromOrders], () => {
    const byLine = new Map<string, { quantity: number; last: string }>()
    for (const lot of fromOrders) {
      const own = byLine.get(lot.orderLineId!) ?? { quantity: 0, last: '' }
      byLine.set(lot.orderLineId!, {
        quantity: own.quantity + lot.receivedQuantity,
        last: lot.receivedOn > own.last ? lot.receivedOn : own.last,
      })
    }
    return byLine
  })
}

export type PricedOffer = OfferRow & { supplier: string; lead: LeadTime }

/** What suppliers sell each part for now, with how long it takes: by their word or by our own deliveries. */
export async function loadOffers(): Promise<Map<string, PricedOffer[]>> {
  const [offerRows, supplierRows, all] = await Promise.all([offers.every(), suppliers.every(), loadOrders()])
  return derived('offers', [offerRows, supplierRows, all], () => {
    const supplierOf = new Map(supplierRows.map((supplier) => [supplier.id, supplier]))
    const completed = all.flatMap((order) =>
      order.sentOn === null
        ? []
        : order.lines
            .filter((line) => line.received > 0 && line.received >= line.quantity - line.calledOff)
            .map((line) => ({
              key: `${order.row.supplierId} ${line.partId}`,
              orderedOn: order.sentOn!,
              completeOn: order.lastOf.get(line.id)!,
            })),
    )
    const own = groupBy(completed, (each) => each.key)
    const priced = offerRows.flatMap((offer): PricedOffer[] => {
      const supplier = supplierOf.get(offer.supplierId)
      if (!supplier || offer.endedOn !== null || supplier.retiredOn !== null) return []
      const said = offer.leadDays ?? supplier.leadDays
      return [
        {
          ...offer,
          supplier: supplier.name,
          lead: leadTime(said, own.get(`${offer.supplierId} ${offer.partId}`) ?? []),
        },
      ]
    })
    return groupBy(priced, (offer) => offer.partId)
  })
}
