import 'server-only'
import {
  comesOn,
  isComing,
  openQuantity,
  showAmount,
  stockStates,
  suppliesOf,
  type StandsFor,
  type PartChoice,
  type PartPage,
} from '@/core/stores'
import { visitNumber } from '@/core/plan'
import { notFound } from '@/core/problem'
import { people } from '@/db/access'
import { sheets } from '@/db/sheets'
import { parts, stockLots, stockMovements, suppliers } from '@/db/stores'
import { visits } from '@/db/plan'
import { type Actor, changesOf, ourCompany, dayOf } from '../house'
import { loadBook, loadStock } from './stock'
import { loadOffers, loadOrders, type FullOrder } from './placedOrders'
import { loadPlaces } from './places'
import { listStock } from './list'
import { listPartChoices } from './partChoices'

/** One part: its lots, every movement, and what the coming visits need of it. */
export async function getPart(actor: Actor, reference: string): Promise<PartPage> {
  const row = (await parts.byId(reference)) ?? (await parts.find({ number: reference }))
  if (!row) throw notFound('This part')
  const [company, lines, all, movementRows, lotRows, peopleRows, sheetRows, visitRows, places] =
    await Promise.all([
      ourCompany(),
      listStock(actor),
      loadStock(),
      stockMovements.all({ partId: row.id }, [
        ['at', 'DESC'],
        ['recordedAt', 'DESC'],
      ]),
      stockLots.every(),
      people.every(),
      sheets.all(),
      visits.all(),
      loadPlaces(),
    ])
  const [book, offersOf, placed, choices] = await Promise.all([
    loadBook(),
    loadOffers(),
    loadOrders(),
    listPartChoices(actor),
  ])
  const supply = suppliesOf(book).filter((each) => each.partId === row.id)
  const own = all.find((each) => each.row.id === row.id)!
  const lotOf = new Map(lotRows.map((lot) => [lot.id, lot]))
  const visitOf = new Map(visitRows.map((visit) => [visit.id, visit]))
  const partOf = (id: string) => all.find((each) => each.row.id === id)?.row
  const named = (id: string, quantity: number) => {
    const part = partOf(id)
    return part ? [{ partId: id, number: part.number, name: part.name, quantity }] : []
  }
  return {
    ...lines.find((line) => line.id === row.id)!,
    lotList: own.stock.lots.map((lot) => {
      const full = lotOf.get(lot.id)!
      const { code, unitCents, note, curedOn, expiryAssumed, openedOn, kitLotId } = full
      return {
        ...lot,
        ...{ code, unitCents, note, curedOn, openedOn },
        expiryAssumed: expiryAssumed === 1,
        kitLot: kitLotId === null ? null : (lotOf.get(kitLotId)?.number ?? null),
        held: own.buckets
          .filter((bucket) => bucket.lotId === lot.id && bucket.quantity > 0)
          .map((bucket) => ({
            ...bucket,
            lotId: lot.id,
            lot: lot.number,
            place: places.nameOf(bucket.placeId),
            visit: bucket.visitId === null ? null : (visitOf.get(bucket.visitId)?.number ?? null),
          })),
      }
    }),
    movements: movementRows.map((movement) => {
      const sheet = sheetRows.find((each) => each.id === movement.sheetId)
      return {
        id: movement.id,
        kind: movement.kind,
        quantity: movement.quantity,
        day: dayOf(movement.at, company.timeZone),
        lot: movement.lotId === null ? null : (lotOf.get(movement.lotId)?.number ?? null),
        sheetId: sheet?.id ?? null,
        sheetNumber: sheet?.number ?? null,
        where: [stockStates[movement.state], places.nameOf(movement.placeId)].join(', '),
        reason: movement.reason,
        by: peopleRows.find((person) => person.id === movement.recordedById)?.name ?? '',
      }
    }),
    visits: supply.map((each) => ({
      ...each,
      number: visitNumber(visitOf.get(each.visitId)!.number),
      fromWords: [
        ...each.fromOthers.map(
          ({ yardId, quantity }) => `${showAmount(quantity, row.unit)} from ${places.nameOf(yardId)}`,
        ),
        each.dueIn > 0 && `${showAmount(each.dueIn, row.unit)} on the way`,
      ]
        .filter(Boolean)
        .join(', '),
    })),
    offers: (offersOf.get(row.id) ?? []).map((offer) => ({
      id: offer.id,
      version: offer.version,
      supplierId: offer.supplierId,
      supplier: offer.supplier,
      supplierNumber: offer.supplierNumber,
      unitCents: offer.unitCents,
      packSize: offer.packSize,
      minimumOrder: offer.minimumOrder,
      said: offer.leadDays,
      lead: offer.lead,
    })),
    onOrder: await onOrderOf(row.id, placed, book.today),
    pieces: row.contents.flatMap(({ partId, quantity }) => named(partId, quantity)),
    inKits: all.flatMap((kit) =>
      kit.row.contents
        .filter(({ partId }) => partId === row.id)
        .flatMap(({ quantity }) => named(kit.row.id, quantity)),
    ),
    standsFor: row.insteadOf.flatMap((each) => {
      const part = partOf(each.partId)
      return part ? [{ partId: part.id, number: part.number, words: standsWords(each, choices) }] : []
    }),
    replacedBy: all.flatMap(({ row: other }) =>
      other.insteadOf
        .filter(({ partId }) => partId === row.id)
        .map((each) => ({ partId: other.id, number: other.number, words: standsWords(each, choices) })),
    ),
    history: (await changesOf('part', row.id)).map((event) => ({
      id: event.id,
      day: dayOf(event.at, company.timeZone),
      by: event.actorName,
      summary: event.summary,
      reason: event.reason,
    })),
  }
}

function standsWords({ kind, approval, modelId, positions }: StandsFor, choices: PartChoice[]): string {
  const own = choices.filter((choice) => choice.modelId === modelId)
  const places = own.filter(({ part }) => positions.includes(part)).map(({ name }) => name)
  const where = own[0] && ` on the ${[own[0].model, ...places].join(', ')}`
  return `${kind === 'supersedes' ? 'supersedes it' : 'does as well'}${where ?? ''}, by ${approval}`
}

async function onOrderOf(partId: string, placed: FullOrder[], today: string): Promise<PartPage['onOrder']> {
  const names = new Map((await suppliers.every()).map((supplier) => [supplier.id, supplier.name]))
  return placed
    .filter(({ state }) => isComing(state))
    .flatMap((order) =>
      order.lines
        .filter((line) => line.partId === partId && openQuantity(line) > 0)
        .map((line) => ({
          orderId: order.id,
          order: order.row.number,
          supplier: names.get(order.row.supplierId) ?? '',
          quantity: openQuantity(line),
          day: comesOn(line, order, today),
        })),
    )
}
