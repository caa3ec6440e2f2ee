import type { Fit, PartUnit } from '@/core/stores'
import { day, id, json, longText, real, text, whole, table } from '../house'

export type PartRow = {
  id: string
  number: string
  name: string
  makersNumber: string
  unit: PartUnit
  packSize: number
  priceCents: number
  leadDays: number
  minimum: number
  bin: string
  fits: Fit[]
  note: string
  retiredOn: string | null
  retiredReason: string
  createdAt: string
  version: number
}

export const parts = table<PartRow>(
  'parts',
  {
    id,
    number: text,
    name: text,
    makersNumber: text,
    unit: text,
    packSize: whole,
    priceCents: whole,
    leadDays: whole,
    minimum: real,
    bin: text,
    fits: json,
    note: longText,
    retiredOn: day,
    retiredReason: text,
    createdAt: text,
    version: whole,
  },
  ['fits'],
)

export type StockLotRow = {
  id: string
  /** Ours, counted up; written on the bag. */
  number: number
  partId: string
  /** The maker's or supplier's own lot. */
  code: string
  receivedOn: string
  expiresOn: string | null
  unitCents: number | null
  note: string
  createdAt: string
}

export const stockLots = table<StockLotRow>('stock_lots', {
  id,
  number: whole,
  partId: text,
  code: text,
  receivedOn: day,
  expiresOn: day,
  unitCents: whole,
  note: text,
  createdAt: text,
})

export type StockMovementRow = {
  id: string
  partId: string
  lotId: string | null
  kind: 'receipt' | 'use' | 'count' | 'correction'
  /** In is positive, out is negative. */
  quantity: number
  at: string
  sheetId: string | null
  entryId: string | null
  reason: string
  recordedAt: string
  recordedById: string
}

export const stockMovements = table<StockMovementRow>('stock_movements', {
  id,
  partId: text,
  lotId: text,
  kind: text,
  quantity: real,
  at: text,
  sheetId: text,
  entryId: text,
  reason: text,
  recordedAt: text,
  recordedById: text,
})
