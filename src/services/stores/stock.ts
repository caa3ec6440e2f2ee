import 'server-only'
import {
  availability,
  bucketsOf,
  countedOut,
  dueInOf,
  heldInKits,
  openBook,
  servesAs,
  stockedFor,
  stockOf,
  tidy,
  takeForBench,
  without,
  type Book,
  type BookLot,
  type Bucket,
  type ClosedKit,
  type CountedBin,
  type Demand,
  type NotedUse,
  type PartStock,
  type StockedPart,
} from '@/core/stores'
import { isOpen } from '@/core/plan'
import type { Payloads } from '@/core/sheets'
import type { ComposedSheet } from '@/core/composing'
import { derived, kept, keptEach, same } from '@/db/house'
import { pumpModelVersions } from '@/db/models'
import { sheetEntries, sheets, type SheetEntryRow, type SheetRow } from '@/db/sheets'
import {
  parts,
  stockLots,
  stockMovements,
  type PartRow,
  type StockLotRow,
  type StockMovementRow,
} from '@/db/stores'
import { fittings, machines, yards } from '@/db/fleet'
import { visits, type VisitRow } from '@/db/plan'
import { ourCompany, present, groupBy } from '../house'
import { loadOffers, loadPlacedOrders } from './placedOrders'
import { loadPlaces, type Places } from './places'
import { leadOf } from './terms'
import { companyPractices } from '../practices'
import { partNeedsOf } from './partNeeds'

export type Stocked = {
  row: PartRow
  /** What it serves as, also in the place of what it is approved to stand for. */
  fits: PartRow['fits']
  /** What is on the shelves, wherever they are. */
  stock: PartStock
  /** All that lies about, in whatever state, less what open sheets have taken. */
  buckets: Bucket[]
}

/** A use that is noted on a sheet, with the sheet and its entry, its visit and the yard of its work. */
export type SheetUse = NotedUse & { id: string; sheetId: string; visitId: string | null; placeId: string }

/** Every part, or some, with its stock, less what open sheets have taken out of the bins. */
export async function loadStock(ids?: string[]): Promise<Stocked[]> {
  const asked = ids && new Set(ids)
  const every = await parts.every()
  const partOf = derived('parts by id', [every], () => new Map(every.map((row) => [row.id, row])))
  const rows = every
    .filter((row) => !asked || asked.has(row.id))
    .sort((a, b) => (a.number < b.number ? -1 : 1))
  const own = rows.map((row) => row.id)
  const [lotsOf, movementsOf, company, uses] = await Promise.all([
    stockLots.everyOf(own),
    stockMovements.everyOf(own),
    ourCompany(),
    usesOnOpenSheets(),
  ])
  const { today } = present(company)
  const usesOf = derived('uses by part', [uses], () => groupBy(uses, (use) => use.partId))
  return rows.map((row) => {
    const [lots, movements, taken] = [
      lotsOf.get(row.id) ?? none,
      movementsOf.get(row.id) ?? none,
      usesOf.get(row.id) ?? none,
    ]
    const from = [row, lots, movements, taken, today, ...(row.insteadOf.length > 0 ? [every] : [])]
    return derived(`stock ${row.id}`, from, () => ({
      ...stockedPart(row, lots, movements, taken, today),
      fits: servesAs(row, (id) => partOf.get(id)),
    }))
  })
}

function stockedPart(
  row: PartRow,
  lots: StockLotRow[],
  movements: StockMovementRow[],
  uses: SheetUse[],
  today: string,
): Omit<Stocked, 'fits'> {
  const { buckets, shares } = afterUses(movements, uses)
  return {
    row,
    stock: stockOf(
      [...lots]
        .sort((a, b) => a.number - b.number)
        .map((lot) => ({ ...lot, opened: lot.kitLotId !== null || lot.openedOn !== null })),
      movements.filter(({ state }) => state === 'shelf'),
      today,
      row.packSize,
      shares.filter(({ state }) => state === 'shelf').map((share) => ({ ...share, partId: row.id })),
    ),
    buckets,
  }
}

/**
 * What lies where after open sheets have taken what is noted on them, and from where each use was taken. A
 * use that a count has booked already takes nothing more.
 */
export function afterUses(
  movements: StockMovementRow[],
  uses: SheetUse[],
): { buckets: Bucket[]; shares: Bucket[]; sharesOf: Map<string, Bucket[]> } {
  const counts = countsIn(movements)
  let buckets = bucketsOf(movements)
  const sharesOf = new Map<string, Bucket[]>()
  for (const use of uses) {
    if (countedOut(use, counts)) continue
    const shares = takeForBench(buckets, use)
    buckets = without(buckets, shares)
    sharesOf.set(use.id, shares)
  }
  return { buckets, shares: [...sharesOf.values()].flat(), sharesOf }
}

const none: never[] = []

/** Every count of some movements: of which bin, and when. */
export function countsIn(movements: StockMovementRow[]): CountedBin[] {
  return movements.filter(({ kind }) => kind === 'count').map(({ lotId, at }) => ({ lotId, at }))
}

/** The stores' parts that are noted on sheets nobody has signed yet; the same list until one is noted. */
export async function usesOnOpenSheets(): Promise<SheetUse[]> {
  const open = await kept('open sheets', () => sheets.all({ state: 'open' }))
  const usesOf = await keptEach(
    'uses',
    open.map((sheet) => sheet.id),
    ['sheet_entries'],
    async (ids) => {
      const rows = await sheetEntries.all({ sheetId: ids, kind: ['part', 'takeBack'], late: 0 })
      const bySheet = groupBy(rows, (row) => row.sheetId)
      const sheetOf = new Map(open.map((sheet) => [sheet.id, sheet]))
      const yards = await yardsOfWork()
      // A tick uses nothing: then what is worked out from the uses stands.
      return new Map(
        ids.map((id) => {
          const sheet = sheetOf.get(id)
          const where = { visitId: sheet?.visitId ?? null, placeId: sheet ? yards(sheet) : '' }
          return [id, same(`uses ${id}`, usesIn(bySheet.get(id) ?? [], where))]
        }),
      )
    },
  )
  const lists = [...usesOf.values()]
  return derived('uses', lists, () => lists.flat())
}

/** The yard in which some work is done: that of its machine, or the shelf that its assembly lies on. */
export async function yardsOfWork(): Promise<
  (work: { machineId: string | null; assemblyId: string | null }) => string
> {
  const [machineRows, stays, yardRows] = await Promise.all([
    machines.every(),
    fittings.every(),
    kept('yards in order', () => yards.all({}, [['createdAt', 'ASC']])),
  ])
  return derived('yards of work', [machineRows, stays, yardRows], () => {
    const yardOf = new Map(machineRows.map((machine) => [machine.id, machine.yardId]))
    const shelfOf = new Map<string, { at: string; yardId: string | null }>()
    for (const stay of stays) {
      const last = shelfOf.get(stay.assemblyId)
      if (stay.status === 'active' && (!last || last.at < stay.at)) shelfOf.set(stay.assemblyId, stay)
    }
    const first = yardRows[0]?.id ?? ''
    return ({ machineId, assemblyId }) =>
      (machineId === null ? shelfOf.get(assemblyId ?? '')?.yardId : yardOf.get(machineId)) ?? first
  })
}

/** The uses of the stores' parts among some entries that nobody has taken back. */
export function usesIn(rows: SheetEntryRow[], where: Pick<SheetUse, 'visitId' | 'placeId'>): SheetUse[] {
  const back = new Set(
    rows.filter(({ kind }) => kind === 'takeBack').map(({ payload }) => (payload as Payloads['takeBack']).of),
  )
  return rows.flatMap((row): SheetUse[] => {
    if (row.kind !== 'part' || back.has(row.id)) return []
    const { partId, lotId, quantity } = row.payload as Payloads['part']
    if (partId === null) return []
    const { id, sheetId, at, receivedAt } = row
    return [{ id, sheetId, partId, lotId, quantity, at, receivedAt, ...where }]
  })
}

/**
 * The stores and all that open visits need of them, to ask how much of a part is free when. A visit in
 * work needs what its sheet has not taken yet.
 */
export async function loadBook(): Promise<Book> {
  const { today } = present(await ourCompany())
  return kept(`book ${today}`, () => makeBook(today))
}

async function makeBook(today: string): Promise<Book> {
  const [stocked, visitRows, uses, practices, versions, coming, places, offersOf] = await Promise.all([
    loadStock(),
    openVisits(),
    usesOnOpenSheets(),
    companyPractices(),
    pumpModelVersions.every(),
    loadPlacedOrders(),
    loadPlaces(),
    loadOffers(),
  ])
  const [sheetRows, yardOf] = await Promise.all([
    kept('open sheets', () => sheets.all({ state: 'open' })),
    yardsOfWork(),
  ])
  const needs = await partNeedsOf(visitRows.map((visit) => visit.items))
  const from = [
    today,
    visitRows,
    uses,
    practices,
    versions,
    sheetRows,
    yardOf,
    coming,
    places,
    offersOf,
    ...stocked,
  ]
  return derived('book', from, () => {
    const kits = closedKits(stocked, today)
    const stockedParts = stocked.map((each) =>
      asStockedPart(each, kits, places, leadOf(each.row.leadDays, offersOf.get(each.row.id))),
    )
    const modelOf = new Map(versions.map((version) => [version.id, version.modelId]))
    return openBook(
      today,
      stockedParts,
      demandsOf({ open: visitRows, needs, stocked, stockedParts, uses, modelOf, sheetRows, yardOf }),
      dueInOf(coming, today),
    )
  })
}

/** Unopened kits that are good, wherever they lie. */
export function closedKits(stocked: Stocked[], today: string): ClosedKit[] {
  return stocked
    .filter(({ row }) => row.contents.length > 0)
    .map(({ row, stock, buckets }) => ({
      contents: row.contents,
      lots: buckets.flatMap(({ lotId, state, quantity, placeId }) => {
        const lot = stock.lots.find((each) => each.id === lotId)
        if (state !== 'shelf' || !lot || quantity <= 0) return []
        if (lot.expiresOn !== null && lot.expiresOn < today) return []
        return [{ quantity, expiresOn: lot.expiresOn, placeId }]
      }),
    }))
}

/** The visits that are neither done nor called off; the same list until a visit is written. */
export function openVisits(): Promise<VisitRow[]> {
  return kept('open visits', async () => (await visits.all()).filter((visit) => isOpen(visit.state)))
}

function asStockedPart(
  { row, fits, stock, buckets }: Stocked,
  kits: ClosedKit[],
  places: Places,
  leadDays: number,
): StockedPart {
  const { id, number, name, unit, bin } = row
  const lots = stock.lots.flatMap((lot): BookLot[] => {
    const shelves = buckets.filter(({ lotId, state }) => lotId === lot.id && state === 'shelf')
    return shelves.map(({ quantity, placeId }) => ({
      onHand: quantity,
      expiresOn: lot.expiresOn,
      yardId: places.yardOf(placeId),
    }))
  })
  const inKits = heldInKits(kits, id).map(({ quantity, expiresOn, placeId }) => ({
    onHand: quantity,
    expiresOn,
    yardId: places.yardOf(placeId),
  }))
  return {
    id,
    number,
    name,
    unit,
    bin,
    fits,
    leadDays,
    retired: row.retiredOn !== null,
    lots: [...lots, ...inKits],
  }
}

/** What each open visit still wants of the stores: what its sheet has taken and what is picked for it is there. */
function demandsOf({
  open,
  needs,
  stocked,
  stockedParts,
  uses,
  modelOf,
  sheetRows,
  yardOf,
}: {
  open: VisitRow[]
  needs: ComposedSheet['parts'][]
  stocked: Stocked[]
  stockedParts: StockedPart[]
  uses: SheetUse[]
  modelOf: Map<string, string>
  sheetRows: SheetRow[]
  yardOf: (work: { machineId: string | null; assemblyId: string | null }) => string
}): Demand[] {
  const picked = new Map<string, number>()
  for (const { row, buckets } of stocked)
    for (const { visitId, quantity } of buckets)
      if (visitId !== null)
        picked.set(`${visitId} ${row.id}`, tidy((picked.get(`${visitId} ${row.id}`) ?? 0) + quantity))
  return open.flatMap((visit, index) => {
    const sheetId = sheetRows.find((sheet) => sheet.visitId === visit.id)?.id
    return [...wantedOf(visit, needs[index]!, stockedParts, modelOf)].flatMap(
      ([partId, quantity]): Demand[] => {
        const taken = uses
          .filter((use) => use.sheetId === sheetId && use.partId === partId)
          .reduce((sum, use) => sum + use.quantity, 0)
        const left = tidy(quantity - taken - (picked.get(`${visit.id} ${partId}`) ?? 0))
        const { id: visitId, day } = visit
        return left > 0 ? [{ visitId, day, partId, quantity: left, yardId: yardOf(visit) }] : []
      },
    )
  })
}

/** What a visit wants in all of each part of the stores. */
export function wantedOf(
  visit: Pick<VisitRow, 'items' | 'extraParts'>,
  needs: ComposedSheet['parts'],
  stocked: Iterable<StockedPart>,
  modelOf: Map<string, string>,
): Map<string, number> {
  const wanted = new Map<string, number>()
  const all = [...stocked]
  for (const need of needs) {
    const item = visit.items.find((each) => each.assemblyId === need.assemblyId)
    const modelId = item && modelOf.get(item.modelVersionId)
    const part = stockedFor(all, { modelId, part: need.part })
    if (part) wanted.set(part.id, tidy((wanted.get(part.id) ?? 0) + need.quantity))
  }
  for (const { partId, quantity } of visit.extraParts ?? [])
    if (all.some(({ id }) => id === partId)) wanted.set(partId, tidy((wanted.get(partId) ?? 0) + quantity))
  return wanted
}

/** Which model each version is of. */
export async function modelsOfVersions(versionIds: string[]): Promise<Map<string, string>> {
  const asked = new Set(versionIds)
  const rows = (await pumpModelVersions.every()).filter((row) => asked.has(row.id))
  return new Map(rows.map((row) => [row.id, row.modelId]))
}

/**
 * What is missing of a need on a day; null where the stores do not know the part. Of a visit's need, what is
 * picked for it or taken on its sheet is there already.
 */
export function missingFor(
  book: Book,
  need: { modelId: string; part: string; quantity: number },
  day: string,
  forVisit?: string,
) {
  const part = stockedFor(book.parts.values(), need)
  if (!part) return null
  const demand = (book.reserved.get(part.id) ?? []).find(({ visitId }) => visitId === forVisit)
  const quantity = forVisit === undefined ? need.quantity : Math.min(need.quantity, demand?.quantity ?? 0)
  const asked = { part: part.id, quantity, day, yardId: demand?.yardId, forVisit }
  return { part, ...availability(book, asked) }
}
