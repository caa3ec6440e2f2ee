import type { OrderState } from '@/core/stores'
import {
  day,
  id,
  longText,
  orNull,
  real,
  recorded,
  retirable,
  table,
  text,
  whole,
  type RowOf,
} from '../house'

export const vans = table('vans', { id, name: text(), yardId: text(), ...retirable })
export type VanRow = RowOf<typeof vans>

export const suppliers = table('suppliers', {
  id,
  name: text(),
  leadDays: whole(),
  /** The least that a whole order comes to, in cents. */
  leastCents: whole(),
  contact: text(),
  note: longText(),
  ...retirable,
})
export type SupplierRow = RowOf<typeof suppliers>

/** What a supplier sells a part for; one that has ended keeps its record. */
export const offers = table('offers', {
  id,
  supplierId: text(),
  partId: text(),
  supplierNumber: text(),
  unitCents: whole(),
  packSize: whole(),
  minimumOrder: real(),
  leadDays: orNull(whole()),
  endedOn: orNull(day()),
  createdAt: text(),
  version: whole(),
})
export type OfferRow = RowOf<typeof offers>

export const orders = table('orders', {
  id,
  number: whole(),
  supplierId: text(),
  yardId: text(),
  state: text<OrderState>(),
  sentOn: orNull(day()),
  hurryCents: whole(),
  note: longText(),
  endReason: text(),
  createdAt: text(),
  createdById: text(),
  version: whole(),
})
export type OrderRow = RowOf<typeof orders>

export const orderLines = table('order_lines', {
  id,
  orderId: text(),
  line: whole(),
  partId: text(),
  supplierNumber: text(),
  quantity: real(),
  unitCents: whole(),
  leadDays: whole(),
  neededBy: orNull(day()),
  late: whole<0 | 1>(),
  confirmed: orNull(real()),
  promisedOn: orNull(day()),
  calledOff: real(),
  answer: text(),
})
export type OrderLineRow = RowOf<typeof orderLines>

export const deliveries = table('deliveries', {
  id,
  orderId: text(),
  noteNumber: text(),
  receivedOn: day(),
  differences: text(),
  ...recorded,
})
export type DeliveryRow = RowOf<typeof deliveries>

export const oldParts = table('old_parts', {
  id,
  number: whole(),
  sheetId: text(),
  name: text(),
  place: text(),
  quantity: real(),
  until: text<'job' | 'claim'>(),
  reason: text(),
  endedOn: orNull(day()),
  ending: text(),
  ...recorded,
})
export type OldPartRow = RowOf<typeof oldParts>
