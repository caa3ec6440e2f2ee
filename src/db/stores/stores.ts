import type { Fit, PartUnit } from '@/core/stores'
import {
  day,
  id,
  json,
  longText,
  real,
  text,
  whole,
  table,
  type RowOf,
  orNull,
  recorded,
  retirable,
} from '../house'

export const parts = table('parts', {
  id,
  number: text(),
  name: text(),
  makersNumber: text(),
  unit: text<PartUnit>(),
  packSize: whole(),
  priceCents: whole(),
  leadDays: whole(),
  minimum: real(),
  bin: text(),
  fits: json<Fit[]>(),
  note: longText(),
  ...retirable,
})
export type PartRow = RowOf<typeof parts>

export const stockLots = table(
  'stock_lots',
  {
    id,
    /** Ours, counted up; written on the bag. */
    number: whole(),
    partId: text(),
    /** The maker's or supplier's own lot. */
    code: text(),
    receivedOn: day(),
    expiresOn: orNull(day()),
    unitCents: orNull(whole()),
    note: text(),
    createdAt: text(),
  },
  'partId',
)
export type StockLotRow = RowOf<typeof stockLots>

export const stockMovements = table(
  'stock_movements',
  {
    id,
    partId: text(),
    lotId: orNull(text()),
    kind: text<'receipt' | 'use' | 'count' | 'correction'>(),
    /** In is positive, out is negative. */
    quantity: real(),
    at: text(),
    sheetId: orNull(text()),
    entryId: orNull(text()),
    reason: text(),
    ...recorded,
  },
  'partId',
)
export type StockMovementRow = RowOf<typeof stockMovements>
