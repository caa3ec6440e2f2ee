import 'server-only'
import { v7 as uuid } from 'uuid'
import { retireSchema, type RetireInput } from '@/core/fleet'
import {
  countDifference,
  countSchema,
  partSchema,
  receiptSchema,
  showAmount,
  suppliesOf,
  tidy,
  type CountInput,
  type PartForm,
  type ReceiptInput,
  type Supply,
  type PartChoice,
  type PartPage,
  type StockLine,
} from '@/core/stores'
import { visitNumber } from '@/core/plan'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import type { BenchPart } from '@/core/sheets'
import { derived, write } from '@/db/house'
import { people } from '@/db/access'
import { pumpModels, pumpModelVersions } from '@/db/models'
import { sheets } from '@/db/sheets'
import { parts, stockLots, stockMovements, type PartRow, type StockMovementRow } from '@/db/stores'
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
  requireUnique,
} from '../house'
import { loadBook, loadStock, type Stocked } from './stock'

/** The parts list: what is on hand, what is below its minimum, what wants counting. */
export async function listStock(_actor: Actor): Promise<StockLine[]> {
  const [stocked, book, modelRows] = await Promise.all([loadStock(), loadBook(), pumpModels.every()])
  const supply = derived('supplies', [book], () => suppliesOf(book))
  return derived('stock lines', [supply, modelRows, ...stocked], () =>
    stocked.map((each) => asLine(each, supply, modelRows)),
  )
}

function asLine(
  { row, stock }: Stocked,
  supply: Supply[],
  modelRows: { id: string; maker: string; name: string }[],
): StockLine {
  const own = supply.filter((each) => each.partId === row.id)
  const { createdAt: _createdAt, ...values } = row
  return {
    ...values,
    onHand: stock.onHand,
    taken: stock.taken,
    expired: stock.expired,
    short: stock.short,
    openPack: stock.lots.reduce((sum, lot) => sum + lot.openPack, 0),
    lots: stock.lots.filter((lot) => lot.onHand !== 0).length,
    needed: tidy(own.reduce((sum, each) => sum + each.quantity, 0)),
    missing: tidy(own.reduce((sum, each) => sum + each.missing, 0)),
    tooLate: own.some((each) => !each.inTime),
    below: stock.onHand < row.minimum,
    fitsModels: [...new Set(row.fits.map((fit) => fit.modelId))].flatMap((id) => {
      const model = modelRows.find((each) => each.id === id)
      return model ? [`${model.maker} ${model.name}`] : []
    }),
  }
}

/** One part: its lots, every movement, and what the coming visits need of it. */
export async function getPart(_actor: Actor, reference: string): Promise<PartPage> {
  const row = (await parts.byId(reference)) ?? (await parts.find({ number: reference }))
  if (!row) throw notFound('This part')
  const [company, all, movementRows, lotRows, peopleRows, sheetRows, visitRows, modelRows] =
    await Promise.all([
      ourCompany(),
      loadStock(),
      stockMovements.all({ partId: row.id }, [
        ['at', 'DESC'],
        ['recordedAt', 'DESC'],
      ]),
      stockLots.all({ partId: row.id }),
      people.every(),
      sheets.all(),
      visits.all(),
      pumpModels.every(),
    ])
  const supply = suppliesOf(await loadBook()).filter((each) => each.partId === row.id)
  const own = all.find((each) => each.row.id === row.id)!
  const lotNumber = new Map(lotRows.map((lot) => [lot.id, lot.number]))
  return {
    ...asLine(own, supply, modelRows),
    lotList: own.stock.lots.map((lot) => {
      const { code, unitCents, note } = lotRows.find((each) => each.id === lot.id)!
      return { ...lot, code, unitCents, note }
    }),
    movements: movementRows.map((movement) => {
      const sheet = sheetRows.find((each) => each.id === movement.sheetId)
      return {
        id: movement.id,
        kind: movement.kind,
        quantity: movement.quantity,
        day: dayOf(movement.at, company.timeZone),
        lot: movement.lotId === null ? null : (lotNumber.get(movement.lotId) ?? null),
        sheetId: sheet?.id ?? null,
        sheetNumber: sheet?.number ?? null,
        reason: movement.reason,
        by: peopleRows.find((person) => person.id === movement.recordedById)?.name ?? '',
      }
    }),
    visits: supply.map((each) => {
      const visit = visitRows.find((candidate) => candidate.id === each.visitId)!
      return { ...each, number: visitNumber(visit.number) }
    }),
    history: (await changesOf('part', row.id)).map((event) => ({
      id: event.id,
      day: dayOf(event.at, company.timeZone),
      by: event.actorName,
      summary: event.summary,
      reason: event.reason,
    })),
  }
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

/** The parts as the bench takes them: the lot to use first comes first. */
export async function listBenchParts(_actor: Actor): Promise<BenchPart[]> {
  const [stocked, lotRows] = await Promise.all([loadStock(), stockLots.all()])
  const codes = new Map(lotRows.map((lot) => [lot.id, lot.code]))
  return stocked
    .filter(({ row }) => !row.retiredOn)
    .map(({ row, stock }) => ({
      id: row.id,
      number: row.number,
      name: row.name,
      unit: row.unit,
      bin: row.bin,
      onHand: stock.onHand,
      fits: row.fits,
      lots: stock.lots
        .filter((lot) => lot.onHand > 0)
        .map((lot) => ({
          id: lot.id,
          label: [
            `lot ${lot.number}`,
            codes.get(lot.id),
            `${showAmount(lot.onHand, row.unit)} there`,
            lot.openPack > 0 && 'opened',
            lot.expired && 'expired',
          ]
            .filter(Boolean)
            .join(', '),
          onHand: lot.onHand,
          expired: lot.expired,
        })),
    }))
}

/** Adds a part, or changes one: without a version it is new. */
export async function savePart(actor: Actor, input: PartForm): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, price, ...rest } = check(partSchema, input) as Omit<PartForm, 'price'> & {
    price: number
  }
  const values = { ...rest, priceCents: price }
  await write(async () => {
    await requireUnique(
      parts,
      { number: values.number },
      id,
      'number',
      'This number is taken by another part.',
    )
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
    if (before && before.unit !== values.unit && (await stockMovements.count({ partId: id })) > 0)
      throw invalid({ unit: 'It has been received and used in its present unit. Add a new part instead.' })
    await editRow(actor, parts, { entity: 'part', name: values.number }, { id, version }, values, {
      action: 'changed',
      summary: `Part ${values.number} changed`,
    })
  })
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
    if (receipt.expiresOn && receipt.expiresOn < receipt.receivedOn)
      throw invalid({ expiresOn: 'It would have expired before it came in.' })
    if (row.unit === 'piece' && !Number.isInteger(receipt.quantity))
      throw invalid({ quantity: 'Pieces come whole.' })
    const [last] = await stockLots.all({}, [['number', 'DESC']], 1)
    const number = (last?.number ?? 0) + 1
    await stockLots.insert({
      id: receipt.id,
      number,
      partId: row.id,
      code: receipt.code,
      receivedOn: receipt.receivedOn,
      expiresOn: receipt.expiresOn,
      unitCents: receipt.price ?? row.priceCents,
      note: receipt.note,
      createdAt: now(),
    })
    const at = receipt.receivedOn === today ? now() : instantOf(receipt.receivedOn, '12:00', company.timeZone)
    await stockMovements.insert(
      movement(actor, { partId: row.id, lotId: receipt.id, kind: 'receipt', quantity: receipt.quantity, at }),
    )
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
    const counted = count.lots.filter((lot) => lot.counted !== null)
    if (counted.length === 0 && stock.short === 0)
      throw invalid({ lots: 'Enter what is there for at least one lot.' })
    const known = new Set(stock.lots.map((lot) => lot.id))
    const faults = Object.fromEntries(
      count.lots.flatMap((lot, index) => {
        if (!known.has(lot.lotId)) return [[`lots.${index}.counted`, 'This lot is not of this part.']]
        return row.unit === 'piece' && lot.counted !== null && !Number.isInteger(lot.counted)
          ? [[`lots.${index}.counted`, 'Pieces come whole.']]
          : []
      }),
    )
    if (Object.keys(faults).length > 0) throw invalid(faults)
    const differences = counted.map(({ lotId, counted: found }) => ({
      lotId: lotId as string | null,
      quantity: countDifference(found!, stock.lots.find((lot) => lot.id === lotId)!.onHand),
    }))
    // Everything that holds or lacks something was looked at: then nothing without a lot is left open.
    const all = stock.lots.every((lot) => lot.onHand === 0 || counted.some((each) => each.lotId === lot.id))
    if (stock.loose !== 0 && all) differences.push({ lotId: null, quantity: countDifference(0, stock.loose) })
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
  values: Pick<StockMovementRow, 'partId' | 'kind' | 'quantity' | 'at'> & Partial<StockMovementRow>,
): StockMovementRow {
  return {
    id: uuid(),
    lotId: null,
    sheetId: null,
    entryId: null,
    reason: '',
    recordedAt: now(),
    recordedById: actor.id,
    ...values,
  }
}
