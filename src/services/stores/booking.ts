import 'server-only'
import { v7 as uuid } from 'uuid'
import {
  countDifference,
  countSchema,
  goodUntil,
  receiptSchema,
  showAmount,
  tidy,
  type CountInput,
  type ReceiptInput,
  type StockState,
} from '@/core/stores'
import { showDay } from '@/core/calendar'
import { conflict, invalid, notFound, check } from '@/core/problem'
import { write } from '@/db/house'
import {
  parts,
  stockLots,
  stockMovements,
  type PartRow,
  type StockLotRow,
  type StockMovementRow,
} from '@/db/stores'
import { requirePermission, type Actor, recordChange, now, ourCompany, present, instantOf } from '../house'
import { loadStock } from './stock'
import { loadPlaces, requirePlace } from './places'

/** Books a receipt: a lot of its own, with the number that is written on the bag. */
export async function receivePart(actor: Actor, input: ReceiptInput): Promise<{ lot: number }> {
  requirePermission(actor, 'stores.count')
  const receipt = check(receiptSchema, input)
  return write(async () => {
    const repeated = await stockLots.byId(receipt.id)
    if (repeated) return { lot: repeated.number }
    const row = await parts.byId(receipt.partId)
    if (!row) throw notFound('This part')
    if (row.retiredOn) throw conflict(`${row.number} is retired. Take it back into the stores first.`)
    const company = await ourCompany()
    const { today } = present(company)
    if (receipt.receivedOn > today) throw invalid({ receivedOn: 'This day is still to come.' })
    const placeId = await requirePlace(receipt.placeId ?? '')
    const lot = await addLot(actor, row, { ...receipt, placeId, unitCents: receipt.price ?? row.priceCents })
    const { number } = lot
    await recordChange(actor, {
      entity: 'part',
      entityId: row.id,
      action: 'received',
      summary: `${showAmount(receipt.quantity, row.unit)} of ${row.number} ${row.name} received as lot ${number}`,
      reason: receipt.note,
    })
    return { lot: number }
  })
}

/** What comes in as a lot of its own. */
export type NewLot = {
  id: string
  quantity: number
  code: string
  receivedOn: string
  curedOn?: string | null
  expiresOn: string | null
  placeId: string
  unitCents: number
  note: string
  state?: StockState
  orderLineId?: string | null
  deliveryId?: string | null
}

/** Books a lot in. Called inside `write()`. @param field what a fault's field begins with */
export async function addLot(actor: Actor, row: PartRow, lot: NewLot, field = ''): Promise<StockLotRow> {
  const company = await ourCompany()
  const { today } = present(company)
  const { receivedOn, curedOn = null } = lot
  if (row.unit === 'piece' && !Number.isInteger(lot.quantity))
    throw invalid({ [`${field}${field ? 'came' : 'quantity'}`]: 'Pieces come whole.' })
  if (curedOn !== null && curedOn > receivedOn)
    throw invalid({ [`${field}curedOn`]: 'It would have been made after it came in.' })
  const reckoned = goodUntil({ group: row.shelfGroup, months: row.keepsMonths }, { curedOn, receivedOn })
  const expiresOn = lot.expiresOn ?? reckoned?.day ?? null
  if (expiresOn !== null && expiresOn < receivedOn && lot.state !== 'quarantine' && lot.note === '')
    throw invalid({
      [`${field}expiresOn`]: `It had expired on ${showDay(expiresOn)}, before it came in. Set it aside, or say in the note why it is taken.`,
    })
  if (lot.code !== '') {
    const twice = (await stockLots.all({ partId: row.id, code: lot.code, receivedOn })).find(
      (each) => each.id !== lot.id && (each.deliveryId === null || each.deliveryId !== lot.deliveryId),
    )
    if (twice)
      throw invalid({
        [`${field}code`]: `This lot came in on that day already, as lot ${twice.number}. Count the bin if there is more of it.`,
      })
  }
  const [last] = await stockLots.all({}, [['number', 'DESC']], 1)
  const lotRow: StockLotRow = {
    id: lot.id,
    number: (last?.number ?? 0) + 1,
    partId: row.id,
    code: lot.code,
    receivedOn,
    curedOn,
    expiresOn,
    expiryAssumed: lot.expiresOn === null && reckoned?.assumed ? 1 : 0,
    openedOn: null,
    kitLotId: null,
    orderLineId: lot.orderLineId ?? null,
    deliveryId: lot.deliveryId ?? null,
    receivedQuantity: lot.quantity,
    unitCents: lot.unitCents,
    note: lot.note,
    createdAt: now(),
  }
  await stockLots.insert(lotRow)
  const at = receivedOn === today ? now() : instantOf(receivedOn, '12:00', company.timeZone)
  const { placeId, state = 'shelf', quantity } = lot
  await stockMovements.insert(
    movement(actor, { partId: row.id, lotId: lot.id, kind: 'receipt', quantity, at, placeId, state }),
  )
  return lotRow
}

/**
 * Puts the book right after a count: each counted lot is moved to what was found. Counting everything
 * there is also settles what was used without a lot.
 */
export async function countPart(actor: Actor, input: CountInput): Promise<{ changed: number }> {
  requirePermission(actor, 'stores.count')
  const count = check(countSchema, input)
  return write(async () => {
    if (await stockMovements.find({ entryId: null, kind: 'count', id: countId(count.id, 0) }))
      return { changed: 0 }
    const [stocked] = await loadStock([count.partId])
    if (!stocked) throw notFound('This part')
    const { row, stock } = stocked
    const places = await loadPlaces()
    const counted = count.lots.filter((lot) => lot.counted !== null)
    if (counted.length === 0 && stock.short === 0)
      throw invalid({ lots: 'Enter what is there for at least one lot.' })
    const known = new Set(stock.lots.map((lot) => lot.id))
    const faults = Object.fromEntries(
      count.lots.flatMap((lot, index) => {
        if (lot.placeId && !places.list.some((place) => place.id === lot.placeId))
          return [[`lots.${index}.counted`, 'This place is not known.']]
        if (!known.has(lot.lotId)) return [[`lots.${index}.counted`, 'This lot is not of this part.']]
        return row.unit === 'piece' && lot.counted !== null && !Number.isInteger(lot.counted)
          ? [[`lots.${index}.counted`, 'Pieces come whole.']]
          : []
      }),
    )
    if (Object.keys(faults).length > 0) throw invalid(faults)
    const shelves = stocked.buckets.filter(({ state }) => state === 'shelf')
    const homeOf = (lotId: string | null) =>
      shelves.filter((each) => each.lotId === lotId).sort((a, b) => b.quantity - a.quantity)[0]?.placeId ??
      places.first
    const differences = counted.map(({ lotId, placeId = homeOf(lotId), counted: found }) => ({
      lotId: lotId as string | null,
      placeId,
      quantity: countDifference(
        found!,
        shelves.find((each) => each.lotId === lotId && each.placeId === placeId)?.quantity ?? 0,
      ),
    }))
    // Everything that holds or lacks something was looked at: then nothing without a lot is left open.
    const all = stock.lots.every((lot) => lot.onHand === 0 || counted.some((each) => each.lotId === lot.id))
    if (stock.loose !== 0 && all)
      differences.push({ lotId: null, placeId: homeOf(null), quantity: countDifference(0, stock.loose) })
    // A bin that was found as the book says was counted all the same: what left it before is known by that.
    const rows = differences.map((each, index) => ({
      ...movement(actor, { partId: row.id, kind: 'count', at: now(), reason: count.reason, ...each }),
      id: countId(count.id, index),
    }))
    if (rows.length === 0) throw invalid({ lots: 'Enter what is there for at least one lot.' })
    await stockMovements.insertMany(rows)
    const moved = differences.filter((each) => each.quantity !== 0)
    const total = tidy(moved.reduce((sum, each) => sum + each.quantity, 0))
    await recordChange(actor, {
      entity: 'part',
      entityId: row.id,
      action: 'counted',
      summary: `${row.number} ${row.name} counted: ${
        total === 0 && moved.length === 0
          ? 'as the book says'
          : `${total > 0 ? '+' : ''}${showAmount(total, row.unit)} against the book`
      }`,
      reason: count.reason,
    })
    return { changed: moved.length }
  })
}

/** The movement ids of one count follow from its own id: sent twice, it counts once. */
function countId(id: string, index: number): string {
  return `${id.slice(0, 32)}-${String(index).padStart(3, '0')}`
}

/** A movement as it is written; what is left out is nothing special. Called inside `write()`. */
export function movement(
  actor: Actor,
  values: Pick<StockMovementRow, 'partId' | 'kind' | 'quantity' | 'at' | 'placeId'> &
    Partial<StockMovementRow>,
): StockMovementRow {
  return {
    id: uuid(),
    lotId: null,
    state: 'shelf',
    visitId: null,
    actId: null,
    sheetId: null,
    entryId: null,
    reason: '',
    recordedAt: now(),
    recordedById: actor.id,
    ...values,
  }
}
