import 'server-only'
import { v7 as uuid } from 'uuid'
import { retireSchema, type RetireInput } from '@/core/fleet'
import {
  comesOn,
  countDifference,
  countSchema,
  goodUntil,
  heldInKits,
  isComing,
  kitFault,
  openQuantity,
  partSchema,
  receiptSchema,
  showAmount,
  stockStates,
  suppliesOf,
  tidy,
  withinReach,
  type Book,
  type ClosedKit,
  type CountInput,
  type PartForm,
  type PartInput,
  type ReceiptInput,
  type StandsFor,
  type StockState,
  type Supply,
  type PartChoice,
  type PartPage,
  type StockLine,
} from '@/core/stores'
import { showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import type { BenchPart } from '@/core/sheets'
import { pouredPart } from '@/core/winter'
import { antifreezes } from '@/db/winter'
import { derived, write } from '@/db/house'
import { people } from '@/db/access'
import { pumpModels, pumpModelVersions } from '@/db/models'
import { sheets } from '@/db/sheets'
import {
  parts,
  stockLots,
  stockMovements,
  suppliers,
  type PartRow,
  type StockLotRow,
  type StockMovementRow,
} from '@/db/stores'
import { visits } from '@/db/plan'
import {
  requirePermission,
  type Actor,
  changesOf,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  instantOf,
  editRow,
  groupBy,
  requireUnique,
} from '../house'
import { closedKits, loadBook, loadStock, type Stocked } from './stock'
import { loadOffers, loadOrders, type FullOrder, type PricedOffer } from './placedOrders'
import { loadPlaces, requirePlace, type Places } from './places'
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

/** The parts of the published pump models, to say which of them a stocked part serves as. */
export async function listPartChoices(_actor: Actor): Promise<PartChoice[]> {
  const [modelRows, versions] = await Promise.all([
    pumpModels.every(),
    pumpModelVersions.all({}, [['version', 'ASC']]),
  ])
  const newest = new Map(versions.map((version) => [version.modelId, version.data]))
  return modelRows.flatMap((model) =>
    (newest.get(model.id)?.parts ?? []).map((part) => ({
      modelId: model.id,
      part: part.key,
      model: `${model.maker} ${model.name}`,
      name: part.name,
      unit: part.unit,
    })),
  )
}

/**
 * The parts as the bench takes them: what is picked for its visit first, then the lot to use first. What
 * others have picked is not there for it.
 *
 * @param visitId the visit that the sheet works on; null for one that was opened without
 */
export async function listBenchParts(_actor: Actor, visitId: string | null = null): Promise<BenchPart[]> {
  const [stocked, lotRows, places, fluids] = await Promise.all([
    loadStock(),
    stockLots.every(),
    loadPlaces(),
    antifreezes.every(),
  ])
  // What is poured in winter is expected under the product's own key.
  const poured = (partId: string) =>
    fluids
      .filter((fluid) => fluid.partId === partId)
      .map((fluid) => ({ modelId: 'winter', part: pouredPart(fluid.id) }))
  const codes = new Map(lotRows.map((lot) => [lot.id, lot.code]))
  const closed = stocked.filter(({ row }) => !row.retiredOn && row.contents.length > 0)
  const kitsWith = (partId: string): BenchPart['kits'] =>
    closed.flatMap(({ row, stock, buckets }) => {
      const holds = row.contents.find((piece) => piece.partId === partId)?.quantity ?? 0
      if (holds === 0) return []
      return stock.lots
        .filter((lot) => !lot.expired)
        .flatMap((lot) =>
          buckets
            .filter(({ lotId, state, quantity }) => lotId === lot.id && state === 'shelf' && quantity >= 1)
            .map(({ placeId }) => ({
              lotId: lot.id,
              placeId,
              label: `${row.number}, lot ${lot.number}, ${places.nameOf(placeId)}`,
              holds,
            })),
        )
    })
  return stocked
    .filter(({ row }) => !row.retiredOn && row.contents.length === 0)
    .map(({ row, fits, stock, buckets }) => {
      const lots = stock.lots
        .map((lot) => ({
          ...lot,
          reach: withinReach(buckets, { lotId: lot.id, visitId }),
          picked: tidy(
            buckets
              .filter((bucket) => visitId !== null && bucket.lotId === lot.id && bucket.visitId === visitId)
              .reduce((sum, { quantity }) => sum + quantity, 0),
          ),
        }))
        .filter(({ reach }) => reach > 0)
        .sort((a, b) => Number(b.picked > 0) - Number(a.picked > 0))
      return {
        id: row.id,
        number: row.number,
        name: row.name,
        unit: row.unit,
        bin: row.bin,
        onHand: tidy(lots.filter((lot) => !lot.expired).reduce((sum, { reach }) => sum + reach, 0)),
        fits: [...fits, ...poured(row.id)],
        lots: lots.map((lot) => ({
          id: lot.id,
          label: [
            `lot ${lot.number}`,
            codes.get(lot.id),
            lot.picked > 0 && `${showAmount(lot.picked, row.unit)} picked for this visit`,
            `${showAmount(lot.reach, row.unit)} there`,
            (lot.openPack > 0 || lot.opened) && 'opened',
            lot.expired && 'expired',
          ]
            .filter(Boolean)
            .join(', '),
          onHand: lot.reach,
          expired: lot.expired,
        })),
        kits: kitsWith(row.id),
      }
    })
}

/** Adds a part, or changes one: without a version it is new. */
export async function savePart(actor: Actor, input: PartForm): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, price, ...rest } = check(partSchema, input) as unknown as PartInput & { price: number }
  const values = { ...rest, priceCents: price } as Omit<PartInput, 'id' | 'version'>
  await write(async () => {
    await requireUnique(
      parts,
      { number: values.number },
      id,
      'number',
      'This number is taken by another part.',
    )
    await requirePieces(id, values)
    if (version === undefined) {
      if (await parts.byId(id)) return
      const row: PartRow = { ...values, id, retiredOn: null, retiredReason: '', createdAt: now(), version: 1 }
      await parts.insert(row)
      await recordChange(actor, {
        entity: 'part',
        entityId: id,
        entityVersion: 1,
        action: 'added',
        summary: `Part ${row.number} ${row.name} added`,
        after: row,
      })
      return
    }
    const before = await parts.byId(id)
    if (before && JSON.stringify(before.contents) !== JSON.stringify(values.contents)) {
      const [kit] = await loadStock([id])
      if (kit && kit.stock.onHand > 0 && before.contents.length > 0)
        throw invalid({ contents: 'Kits of it lie unopened in the stores. Add a new kit instead.' })
    }
    if (before && before.unit !== values.unit && (await stockMovements.count({ partId: id })) > 0)
      throw invalid({ unit: 'It has been received and used in its present unit. Add a new part instead.' })
    await editRow(actor, parts, { entity: 'part', name: values.number }, { id, version }, values, {
      action: 'changed',
      summary: `Part ${values.number} changed`,
    })
  })
}

/** What a kit holds and what a part stands for has to be in the list. */
async function requirePieces(
  id: string,
  { contents, insteadOf, unit, packSize }: Omit<PartInput, 'id' | 'version'>,
): Promise<void> {
  const all = new Map((await parts.every()).map((row) => [row.id, row]))
  if (contents.length > 0 && (unit !== 'piece' || packSize > 1))
    throw invalid({ unit: 'A kit of unlike pieces is counted in kits: pieces, one in a pack.' })
  const unknown = contents.findIndex(({ partId }) => partId !== id && !all.has(partId))
  if (unknown !== -1) throw invalid({ [`contents.${unknown}.partId`]: 'Choose a part from the list.' })
  const fault = kitFault(id, contents, (partId) => all.get(partId)?.contents ?? [])
  if (fault) throw invalid({ contents: fault })
  for (const [at, piece] of contents.entries())
    if (all.get(piece.partId)!.unit === 'piece' && !Number.isInteger(piece.quantity))
      throw invalid({ [`contents.${at}.quantity`]: 'Pieces come whole.' })
  for (const [at, each] of insteadOf.entries()) {
    if (each.partId === id) throw invalid({ [`insteadOf.${at}.partId`]: 'A part cannot stand for itself.' })
    if (!all.has(each.partId)) throw invalid({ [`insteadOf.${at}.partId`]: 'Choose a part from the list.' })
    const fits = all.get(each.partId)!.fits.filter(({ modelId }) => modelId === each.modelId)
    if (each.positions.some((place) => !fits.some(({ part }) => part === place)))
      throw invalid({ [`insteadOf.${at}.positions`]: 'The other part does not serve there: choose again.' })
  }
}

export async function retirePart(actor: Actor, input: RetireInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, reason } = check(retireSchema, input)
  await write(async () => {
    const [stocked] = await loadStock([id])
    if (!stocked) throw notFound('This part')
    if (stocked.stock.onHand > 0)
      throw conflict(
        `There are ${showAmount(stocked.stock.onHand, stocked.row.unit)} on hand. Count them out first.`,
      )
    const { today } = present(await ourCompany())
    await editRow(
      actor,
      parts,
      { entity: 'part', name: stocked.row.number },
      { id, version },
      { retiredOn: today, retiredReason: reason },
      {
        action: 'retired',
        summary: `Part ${stocked.row.number} retired`,
        reason,
      },
    )
  })
}

export async function returnPart(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const row = await parts.byId(input.id)
    if (!row) throw notFound('This part')
    await editRow(
      actor,
      parts,
      { entity: 'part', name: row.number },
      input,
      { retiredOn: null, retiredReason: '' },
      {
        action: 'returned',
        summary: `Part ${row.number} is kept again`,
      },
    )
  })
}

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
