import type { Fit, KitPiece, PartUnit, MovementKind, ShelfGroup, StandsFor, StockState } from '@/core/stores'
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
  /** A kit of unlike pieces holds these; nothing in a part that is no kit. */
  contents: json<KitPiece[]>(),
  /** Which parts it may be used instead of, and who has approved of it. */
  insteadOf: json<StandsFor[]>(),
  /** The bottle or tube that sheets call so: assembly lubricant. */
  means: text(),
  material: text(),
  shelfGroup: text<ShelfGroup>(),
  /** Of a life of its own; and of a bottle once it is open, 0 where that makes no difference. */
  keepsMonths: whole(),
  openedMonths: whole(),
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
    curedOn: orNull(day()),
    expiresOn: orNull(day()),
    /** Counted from its receipt, since nobody knows when it was cured: 1. */
    expiryAssumed: whole<0 | 1>(),
    openedOn: orNull(day()),
    /** The kit whose opening it came out of. */
    kitLotId: orNull(text()),
    orderLineId: orNull(text()),
    deliveryId: orNull(text()),
    /** What came in as it, whatever became of it. */
    receivedQuantity: real(),
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
    kind: text<MovementKind>(),
    /** In is positive, out is negative. */
    quantity: real(),
    /** The yard or van it lies in, and in what state; one visit's, or whoever comes. */
    placeId: text(),
    state: text<StockState>(),
    visitId: orNull(text()),
    /** What was done in one go bears one id. */
    actId: orNull(text()),
    at: text(),
    sheetId: orNull(text()),
    entryId: orNull(text()),
    reason: text(),
    ...recorded,
  },
  'partId',
)
export type StockMovementRow = RowOf<typeof stockMovements>
