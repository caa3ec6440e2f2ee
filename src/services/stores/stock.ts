import 'server-only'
import {
  availability,
  openBook,
  stockedFor,
  stockOf,
  takenByOpen,
  tidy,
  type Book,
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
import { parts, stockLots, stockMovements, type PartRow, type StockMovementRow } from '@/db/stores'
import { visits, type VisitRow } from '@/db/plan'
import { ourCompany, present, groupBy } from '../house'
import { companyPractices } from '../practices'
import { partNeedsOf } from './partNeeds'

export type Stocked = { row: PartRow; stock: PartStock }

/** A use that is noted on a sheet, with the sheet and its entry. */
export type SheetUse = NotedUse & { id: string; sheetId: string }

/** Every part, or some, with its stock, less what open sheets have taken out of the bins. */
export async function loadStock(ids?: string[]): Promise<Stocked[]> {
  const asked = ids && new Set(ids)
  const rows = (await parts.every())
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
    return derived(`stock ${row.id}`, [row, lots, movements, taken, today], () => ({
      row,
      stock: stockOf(
        [...lots].sort((a, b) => a.number - b.number),
        movements,
        today,
        row.packSize,
        takenByOpen(taken, countsIn(movements)),
      ),
    }))
  })
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
      // A tick uses nothing: then what is worked out from the uses stands.
      return new Map(ids.map((id) => [id, same(`uses ${id}`, usesIn(bySheet.get(id) ?? []))]))
    },
  )
  const lists = [...usesOf.values()]
  return derived('uses', lists, () => lists.flat())
}

/** The uses of the stores' parts among some entries that nobody has taken back. */
export function usesIn(rows: SheetEntryRow[]): SheetUse[] {
  const back = new Set(
    rows.filter(({ kind }) => kind === 'takeBack').map(({ payload }) => (payload as Payloads['takeBack']).of),
  )
  return rows.flatMap((row): SheetUse[] => {
    if (row.kind !== 'part' || back.has(row.id)) return []
    const { partId, lotId, quantity } = row.payload as Payloads['part']
    if (partId === null) return []
    const { id, sheetId, at, receivedAt } = row
    return [{ id, sheetId, partId, lotId, quantity, at, receivedAt }]
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
  const [stocked, visitRows, uses, practices, versions] = await Promise.all([
    loadStock(),
    openVisits(),
    usesOnOpenSheets(),
    companyPractices(),
    pumpModelVersions.every(),
  ])
  const sheetRows = await kept('open sheets', () => sheets.all({ state: 'open' }))
  const needs = await partNeedsOf(visitRows.map((visit) => visit.items))
  return derived('book', [today, visitRows, uses, practices, versions, sheetRows, ...stocked], () => {
    const stockedParts = stocked.map(asStockedPart)
    const modelOf = new Map(versions.map((version) => [version.id, version.modelId]))
    return openBook(today, stockedParts, demandsOf(visitRows, needs, stockedParts, uses, modelOf, sheetRows))
  })
}

/** The visits that are neither done nor called off; the same list until a visit is written. */
export function openVisits(): Promise<VisitRow[]> {
  return kept('open visits', async () => (await visits.all()).filter((visit) => isOpen(visit.state)))
}

function asStockedPart({ row, stock }: Stocked): StockedPart {
  const { id, number, name, unit, bin, fits, leadDays } = row
  return { id, number, name, unit, bin, fits, leadDays, retired: row.retiredOn !== null, lots: stock.lots }
}

function demandsOf(
  open: VisitRow[],
  needs: ComposedSheet['parts'][],
  stocked: StockedPart[],
  uses: SheetUse[],
  modelOfVersion: Map<string, string>,
  sheetRows: SheetRow[],
): Demand[] {
  return open.flatMap((visit, index) => {
    const sheetId = sheetRows.find((sheet) => sheet.visitId === visit.id)?.id
    const wanted = new Map<string, number>()
    for (const need of needs[index]!) {
      const item = visit.items.find((each) => each.assemblyId === need.assemblyId)
      const modelId = item && modelOfVersion.get(item.modelVersionId)
      const part = stockedFor(stocked, { modelId, part: need.part })
      if (part) wanted.set(part.id, tidy((wanted.get(part.id) ?? 0) + need.quantity))
    }
    return [...wanted].flatMap(([partId, quantity]): Demand[] => {
      const taken = uses
        .filter((use) => use.sheetId === sheetId && use.partId === partId)
        .reduce((sum, use) => sum + use.quantity, 0)
      const left = tidy(quantity - taken)
      return left > 0 ? [{ visitId: visit.id, day: visit.day, partId, quantity: left }] : []
    })
  })
}

/** Which model each version is of. */
export async function modelsOfVersions(versionIds: string[]): Promise<Map<string, string>> {
  const asked = new Set(versionIds)
  const rows = (await pumpModelVersions.every()).filter((row) => asked.has(row.id))
  return new Map(rows.map((row) => [row.id, row.modelId]))
}

/** What is missing of a need on a day; null where the stores do not know the part. */
export function missingFor(
  book: Book,
  need: { modelId: string; part: string; quantity: number },
  day: string,
  forVisit?: string,
) {
  const part = stockedFor(book.parts.values(), need)
  return part && { part, ...availability(book, { part: part.id, quantity: need.quantity, day, forVisit }) }
}
