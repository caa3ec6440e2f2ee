import { v7 as uuid } from 'uuid'
import type { OrderInput, PartForm } from '@/core/stores'
import {
  getOrder,
  receivePart,
  saveOffer,
  saveOrder,
  savePart,
  saveSupplier,
  sendOrder,
} from '@/services/stores'
import type { Workshop } from './bench'

/** Parts, suppliers and orders of a test's stores, in few words. */
export function storesOf(shop: () => Workshop, today: string) {
  const part = async (number: string, as: string, more: Partial<Record<keyof PartForm, unknown>> = {}) => {
    const id = uuid()
    await savePart(shop().coordinator, {
      id,
      number,
      name: `Part ${number}`,
      makersNumber: '',
      unit: 'piece',
      packSize: 1,
      price: '10.00',
      leadDays: 14,
      minimum: '0',
      bin: 'H-01',
      fits: as === '' ? [] : [{ modelId: shop().modelId, part: as }],
      note: '',
      ...more,
    } as PartForm)
    return id
  }
  const lot = async (partId: string, quantity: number, more: Record<string, unknown> = {}) => {
    const id = uuid()
    await receivePart(shop().coordinator, {
      id,
      partId,
      quantity,
      code: '',
      receivedOn: today,
      price: '' as never,
      expiresOn: null,
      note: '',
      ...more,
    })
    return id
  }
  const supplier = async (name: string, leadDays = 14, least = '') => {
    const id = uuid()
    await saveSupplier(shop().coordinator, { id, name, leadDays, least, contact: '', note: '' })
    return id
  }
  const offer = (supplierId: string, partId: string, supplierNumber: string, price: string, more = {}) =>
    saveOffer(shop().coordinator, {
      id: uuid(),
      supplierId,
      partId,
      supplierNumber,
      price,
      packSize: 1,
      minimumOrder: 0,
      leadDays: null,
      ...more,
    })
  const order = async (supplierId: string, lines: [string, number][], more: Partial<OrderInput> = {}) => {
    const id = uuid()
    await saveOrder(shop().coordinator, {
      id,
      supplierId,
      yardId: shop().yardId,
      note: '',
      lines: lines.map(([partId, quantity]) => ({ id: uuid(), partId, quantity, neededBy: null })),
      ...more,
    })
    return id
  }
  const send = async (id: string) =>
    sendOrder(shop().coordinator, {
      id,
      version: (await getOrder(shop().coordinator, id)).version,
      hurry: '',
    })
  return { part, lot, supplier, offer, order, send }
}
