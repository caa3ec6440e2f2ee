import 'server-only'
import {
  offerSchema,
  priceListSchema,
  readPriceList,
  supplierSchema,
  type OfferInput,
  type PriceList,
  type PriceListInput,
  type SupplierInput,
  type SupplierLine,
} from '@/core/stores'
import { check, invalid, notFound } from '@/core/problem'
import { derived, write } from '@/db/house'
import { offers, parts, suppliers, type OfferRow, type SupplierRow } from '@/db/stores'
import { editRow, now, recordChange, requirePermission, requireUnique, type Actor } from '../house'
import { loadOffers, loadOrders } from './placedOrders'

/** Every supplier with what we buy there. */
export async function listSuppliers(_actor: Actor): Promise<SupplierLine[]> {
  const [rows, offersOf, partRows, all] = await Promise.all([
    suppliers.every(),
    loadOffers(),
    parts.every(),
    loadOrders(),
  ])
  return derived('supplier lines', [rows, offersOf, partRows, all], () => {
    const partOf = new Map(partRows.map((part) => [part.id, part]))
    const priced = [...offersOf.values()].flat()
    return [...rows]
      .sort((a, b) => (a.name < b.name ? -1 : 1))
      .map(({ createdAt: _createdAt, ...row }) => ({
        ...row,
        orders: all.filter((order) => order.row.supplierId === row.id).length,
        offers: priced
          .filter((offer) => offer.supplierId === row.id)
          .flatMap((offer) => {
            const part = partOf.get(offer.partId)
            return part
              ? [
                  {
                    id: offer.id,
                    version: offer.version,
                    partId: part.id,
                    number: part.number,
                    name: part.name,
                    unit: part.unit,
                    supplierNumber: offer.supplierNumber,
                    unitCents: offer.unitCents,
                    packSize: offer.packSize,
                    minimumOrder: offer.minimumOrder,
                    said: offer.leadDays,
                    lead: offer.lead,
                  },
                ]
              : []
          })
          .sort((a, b) => (a.number < b.number ? -1 : 1)),
      }))
  })
}

export async function saveSupplier(actor: Actor, input: SupplierInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, least, ...rest } = check(supplierSchema, input) as Omit<SupplierInput, 'least'> & {
    least: number
  }
  const values = { ...rest, leastCents: least }
  await write(async () => {
    await requireUnique(suppliers, { name: values.name }, id, 'name', 'There is a supplier of this name.')
    if (version !== undefined) {
      await editRow(actor, suppliers, { entity: 'supplier', name: values.name }, { id, version }, values, {
        action: 'changed',
        summary: `Supplier ${values.name} changed`,
      })
      return
    }
    if (await suppliers.byId(id)) return
    const row: SupplierRow = {
      ...values,
      id,
      retiredOn: null,
      retiredReason: '',
      createdAt: now(),
      version: 1,
    }
    await suppliers.insert(row)
    await recordChange(actor, {
      entity: 'supplier',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `Supplier ${row.name} added`,
      after: row,
    })
  })
}

/** What a supplier sells a part for: new without a version. */
export async function saveOffer(actor: Actor, input: OfferInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, price, ...rest } = check(offerSchema, input) as Omit<OfferInput, 'price'> & {
    price: number
  }
  const values = { ...rest, unitCents: price }
  await write(async () => {
    const [supplier, part] = await Promise.all([suppliers.byId(values.supplierId), parts.byId(values.partId)])
    if (!supplier) throw invalid({ supplierId: 'Choose a supplier.' })
    if (!part) throw notFound('This part')
    if (part.unit === 'piece' && !Number.isInteger(values.minimumOrder))
      throw invalid({ minimumOrder: 'Pieces come whole.' })
    const others = (await offers.all({ supplierId: supplier.id, endedOn: null })).filter(
      (each) => each.id !== id,
    )
    if (others.some((each) => each.supplierNumber === values.supplierNumber && each.partId !== part.id))
      throw invalid({ supplierNumber: `${supplier.name} sells another part under this number.` })
    if (others.some((each) => each.partId === part.id))
      throw invalid({ supplierId: `${supplier.name} sells it already: change that line.` })
    const summary = `${supplier.name} sells ${part.number} as ${values.supplierNumber}`
    if (version !== undefined) {
      await editRow(actor, offers, { entity: 'offer', name: part.number }, { id, version }, values, {
        action: 'changed',
        summary,
      })
      return
    }
    if (await offers.byId(id)) return
    const row: OfferRow = { ...values, id, endedOn: null, createdAt: now(), version: 1 }
    await offers.insert(row)
    await recordChange(actor, {
      entity: 'part',
      entityId: part.id,
      action: 'offered',
      summary,
      after: row,
    })
  })
}

/** Reads a price list: what it would change, and takes it if asked to. Nothing is taken of a faulty one. */
export async function takePriceList(
  actor: Actor,
  input: PriceListInput,
): Promise<PriceList & { taken: number }> {
  requirePermission(actor, 'stores.edit')
  const { supplierId, text, take, doubtful } = check(priceListSchema, input)
  return write(async () => {
    const supplier = await suppliers.byId(supplierId)
    if (!supplier) throw notFound('This supplier')
    const own = (await offers.all({ supplierId, endedOn: null })).sort((a, b) => (a.id < b.id ? -1 : 1))
    const known = new Map(own.map((offer) => [offer.supplierNumber, { unitCents: offer.unitCents }]))
    const read = readPriceList(text, known)
    if (!read.ok) throw invalid({ text: read.reason })
    const { value } = read
    const left = new Set(doubtful ? [] : value.doubtful.map(({ supplierNumber }) => supplierNumber))
    if (!take) return { ...value, taken: 0 }
    let taken = 0
    for (const change of value.changes) {
      if (left.has(change.supplierNumber)) continue
      const offer = own.find((each) => each.supplierNumber === change.supplierNumber)!
      const values = {
        unitCents: change.unitCents,
        packSize: change.packSize ?? offer.packSize,
        leadDays: change.leadDays ?? offer.leadDays,
      }
      const after = await editRow(
        actor,
        offers,
        { entity: 'offer', name: offer.supplierNumber },
        { id: offer.id, version: offer.version },
        values,
        { action: 'changed', summary: `${supplier.name}, ${offer.supplierNumber}: by its price list` },
      )
      if (after !== offer && after.version !== offer.version) taken += 1
    }
    await recordChange(actor, {
      entity: 'supplier',
      entityId: supplierId,
      action: 'priceList',
      summary: `Price list of ${supplier.name} taken in: ${taken} changed, ${left.size} doubtful left, ${value.foreign.length} not ours`,
    })
    return { ...value, taken }
  })
}
