import 'server-only'
import { addDays, isDay } from '@/core/calendar'
import { bucketsOf, stockStates, storeValue, tidy, type ValuePage } from '@/core/stores'
import { check, idSchema, invalid, notFound } from '@/core/problem'
import { parts, stockLots, stockMovements, suppliers } from '@/db/stores'
import { dayOf, ourCompany, present, type Actor } from '../house'
import { loadOrders } from './placedOrders'
import { loadPlaces } from './places'
import { loadStock } from './stock'

/** What the stores are worth on a day, what expired unused, and what was bought in a hurry within a year before. */
export async function storesValue(_actor: Actor, asked?: string): Promise<ValuePage> {
  const company = await ourCompany()
  const { today } = present(company)
  const day = asked !== undefined && isDay(asked) && asked < today ? asked : today
  const since = addDays(day, -365)
  const [movementRows, lotRows, partRows, all, supplierRows, places, stocked] = await Promise.all([
    stockMovements.every(),
    stockLots.every(),
    parts.every(),
    loadOrders(),
    suppliers.every(),
    loadPlaces(),
    loadStock(),
  ])
  const lotOf = new Map(lotRows.map((lot) => [lot.id, lot]))
  const partOf = new Map(partRows.map((part) => [part.id, part]))
  const value = storeValue(
    movementRows.map((row) => ({
      partId: row.partId,
      lotId: row.lotId,
      placeId: places.yardOf(row.placeId),
      quantity: row.quantity,
      kind: row.kind,
      day: dayOf(row.at, company.timeZone),
      unitCents: lotOf.get(row.lotId ?? '')?.unitCents ?? partOf.get(row.partId)?.priceCents ?? 0,
      reason: row.reason,
    })),
    new Map(lotRows.map((lot) => [lot.id, lot.expiresOn])),
    day,
    since,
  )
  const hurried = all
    .filter(
      (order) =>
        order.sentOn !== null &&
        order.sentOn >= since &&
        order.sentOn <= day &&
        order.state !== 'cancelled' &&
        (order.row.hurryCents > 0 || order.rows.some((line) => line.late === 1)),
    )
    .map((order) => {
      const late = order.rows.filter((line) => order.row.hurryCents > 0 || line.late === 1)
      return {
        orderId: order.id,
        order: order.row.number,
        supplier: supplierRows.find((each) => each.id === order.row.supplierId)?.name ?? '',
        sentOn: order.sentOn!,
        lines: late.map((line) => partOf.get(line.partId)?.number ?? '').join(', '),
        hurryCents: order.row.hurryCents,
        cents: late.reduce((sum, line) => sum + Math.round(line.quantity * line.unitCents), 0),
      }
    })
  return {
    currency: company.currency,
    day,
    since,
    byPlace: value.byPlace
      .map(({ placeId, cents }) => ({ place: places.nameOf(placeId), cents }))
      .sort((a, b) => b.cents - a.cents),
    cents: value.cents,
    expiredCents: value.expiredCents,
    scrappedCents: value.scrappedCents,
    expired: stocked
      .flatMap(({ row, stock }) =>
        stock.lots
          .filter((lot) => lot.expired && lot.onHand > 0)
          .map((lot) => ({
            partId: row.id,
            number: row.number,
            name: row.name,
            unit: row.unit,
            lot: lot.number,
            expiresOn: lot.expiresOn!,
            quantity: lot.onHand,
            cents: Math.round(lot.onHand * (lotOf.get(lot.id)?.unitCents ?? row.priceCents)),
          })),
      )
      .sort((a, b) => (a.expiresOn < b.expiresOn ? -1 : 1)),
    hurried,
    hurryCents: hurried.reduce((sum, { hurryCents }) => sum + hurryCents, 0),
  }
}

/** What lay where of one part at the end of a past day, from movements alone. */
export async function partStockOn(
  _actor: Actor,
  asked: string,
  askedDay: string,
): Promise<{
  day: string
  total: number
  held: { lot: number | null; place: string; state: string; quantity: number }[]
}> {
  const company = await ourCompany()
  const { today } = present(company)
  const partId = check(idSchema, asked)
  const day = String(askedDay)
  if (!isDay(day)) throw invalid({ day: 'Enter a day.' })
  if (day > today) throw invalid({ day: 'This day is still to come.' })
  if (!(await parts.byId(partId))) throw notFound('This part')
  const [movementRows, lotRows, places] = await Promise.all([
    stockMovements.all({ partId }),
    stockLots.all({ partId }),
    loadPlaces(),
  ])
  const held = bucketsOf(movementRows.filter((row) => dayOf(row.at, company.timeZone) <= day))
  return {
    day,
    total: tidy(held.reduce((sum, { quantity }) => sum + quantity, 0)),
    held: held.map(({ lotId, placeId, state, quantity }) => ({
      lot: lotRows.find((lot) => lot.id === lotId)?.number ?? null,
      place: places.nameOf(placeId),
      state: stockStates[state],
      quantity,
    })),
  }
}
