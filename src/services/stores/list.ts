import 'server-only'
import {
  heldInKits,
  suppliesOf,
  tidy,
  type Book,
  type ClosedKit,
  type Supply,
  type StockLine,
} from '@/core/stores'
import { derived } from '@/db/house'
import { pumpModels } from '@/db/models'
import { type Actor, groupBy } from '../house'
import { closedKits, loadBook, loadStock, type Stocked } from './stock'
import { loadOffers, type PricedOffer } from './placedOrders'
import { loadPlaces, type Places } from './places'
import { leadOf } from './terms'

/** The parts list: what is on hand, what is below its minimum, what wants counting. */
export async function listStock(_actor: Actor): Promise<StockLine[]> {
  const [stocked, book, modelRows, places, offersOf] = await Promise.all([
    loadStock(),
    loadBook(),
    pumpModels.every(),
    loadPlaces(),
    loadOffers(),
  ])
  return derived('stock lines', [book, modelRows, places, offersOf, ...stocked], () => {
    const supplyOf = groupBy(suppliesOf(book), (each) => each.partId)
    const kits = closedKits(stocked, book.today)
    return stocked.map((each) =>
      asLine(each, { supply: supplyOf.get(each.row.id) ?? [], modelRows, places, book, kits, offersOf }),
    )
  })
}

function asLine(
  { row, stock, buckets }: Stocked,
  known: {
    supply: Supply[]
    modelRows: { id: string; maker: string; name: string }[]
    places: Places
    book: Book
    kits: ClosedKit[]
    offersOf: Map<string, PricedOffer[]>
  },
): StockLine {
  const { supply, modelRows, places, book, kits } = known
  const { createdAt: _createdAt, ...values } = row
  const sum = (list: { quantity: number }[]) => tidy(list.reduce((total, each) => total + each.quantity, 0))
  const lies = buckets.filter(({ quantity }) => quantity > 0)
  const states = groupBy(
    lies.filter(({ state }) => state !== 'shelf'),
    (bucket) => bucket.state,
  )
  const yards = groupBy(
    lies.filter(({ state }) => state === 'shelf' || state === 'van'),
    (bucket) => places.nameOf(places.yardOf(bucket.placeId)),
  )
  return {
    ...values,
    comesWithin: leadOf(row.leadDays, known.offersOf.get(row.id)),
    onHand: stock.onHand,
    taken: stock.taken,
    expired: stock.expired,
    short: stock.short,
    elsewhere: [...states].map(([state, own]) => ({ state, quantity: sum(own) })),
    byYard:
      places.list.filter(({ kind }) => kind === 'yard').length > 1
        ? [...yards].map(([yard, own]) => ({ yard, quantity: sum(own) }))
        : [],
    onTheWay: sum(book.dueIn.get(row.id) ?? []),
    inClosedKits: sum(heldInKits(kits, row.id)),
    openPack: stock.lots.reduce((total, lot) => total + lot.openPack, 0),
    lots: stock.lots.filter((lot) => lot.onHand !== 0).length,
    needed: tidy(supply.reduce((total, each) => total + each.quantity, 0)),
    missing: tidy(supply.reduce((total, each) => total + each.missing, 0)),
    tooLate: supply.some((each) => !each.inTime),
    below: stock.onHand < row.minimum,
    fitsModels: [...new Set(row.fits.map((fit) => fit.modelId))].flatMap((id) => {
      const model = modelRows.find((each) => each.id === id)
      return model ? [`${model.maker} ${model.name}`] : []
    }),
  }
}
