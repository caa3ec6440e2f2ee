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
import { kept } from '@/db/house'
import { pumpModelVersions } from '@/db/models'
import { sheetEntries, sheets, type SheetEntryRow } from '@/db/sheets'
import { parts, stockLots, stockMovements, type PartRow, type StockMovementRow } from '@/db/stores'
import { visits, type VisitRow } from '@/db/plan'
import { ourCompany, present, groupBy } from '../house'
import { partNeedsOf } from './partNeeds'

export type Stocked = { row: PartRow; stock: PartStock }

/** A use that is noted on a sheet, with the sheet and its entry. */
export type SheetUse = NotedUse & { id: string; sheetId: string }

/** Every part, or some, with its stock, less what open sheets have taken out of the bins. */
export async function loadStock(ids?: string[]): Promise<Stocked[]> {
  const which = ids ? { partId: ids } : {}
  const [rows, lotRows, movementRows, company, uses] = await Promise.all([
    parts.all(ids ? { id: ids } : {}, [['number', 'ASC']]),
    stockLots.all(which, [['number', 'ASC']]),
    stockMovements.all(which),
    ourCompany(),
    usesOnOpenSheets(),
  ])
  const { today } = present(company)
  const lotsOf = groupBy(lotRows, (lot) => lot.partId)
  const movementsOf = groupBy(movementRows, (movement) => movement.partId)
  const usesOf = groupBy(uses, (use) => use.partId)
  return rows.map((row) => {
    const movements = movementsOf.get(row.id) ?? []
    const taken = takenByOpen(usesOf.get(row.id) ?? [], countsIn(movements))
    return { row, stock: stockOf(lotsOf.get(row.id) ?? [], movements, today, row.packSize, taken) }
  })
}

/** Every count of some movements: of which bin, and when. */
export function countsIn(movements: StockMovementRow[]): CountedBin[] {
  return movements.filter(({ kind }) => kind === 'count').map(({ lotId, at }) => ({ lotId, at }))
}

/** The stores' parts that are noted on sheets nobody has signed yet, from two queries. */
export async function usesOnOpenSheets(): Promise<SheetUse[]> {
  const open = await sheets.all({ state: 'open' })
  if (open.length === 0) return []
  const rows = await sheetEntries.all({
    sheetId: open.map((sheet) => sheet.id),
    kind: ['part', 'takeBack'],
    late: 0,
  })
  return usesIn(rows)
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
export async function loadBook(loaded?: Stocked[]): Promise<Book> {
  const { today } = present(await ourCompany())
  return loaded ? makeBook(loaded) : kept('book', today, () => makeBook())
}

async function makeBook(loaded?: Stocked[]): Promise<Book> {
  const [stocked, visitRows, company, uses] = await Promise.all([
    loaded ?? loadStock(),
    visits.all(),
    ourCompany(),
    usesOnOpenSheets(),
  ])
  const stockedParts = stocked.map(asStockedPart)
  const open = visitRows.filter((visit) => isOpen(visit.state))
  return openBook(present(company).today, stockedParts, await demandsOf(open, stockedParts, uses))
}

function asStockedPart({ row, stock }: Stocked): StockedPart {
  const { id, number, name, unit, bin, fits, leadDays } = row
  return { id, number, name, unit, bin, fits, leadDays, retired: row.retiredOn !== null, lots: stock.lots }
}

async function demandsOf(open: VisitRow[], stocked: StockedPart[], uses: SheetUse[]): Promise<Demand[]> {
  const versionIds = open.flatMap((visit) => visit.items.map((item) => item.modelVersionId))
  const [needs, modelOfVersion, sheetRows] = await Promise.all([
    partNeedsOf(open.map((visit) => visit.items)),
    modelsOfVersions(versionIds),
    sheets.all({ state: 'open', id: [...new Set(uses.map((use) => use.sheetId))] }),
  ])
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

/** Which model each version is of, from one query without the versions' data. */
export async function modelsOfVersions(versionIds: string[]): Promise<Map<string, string>> {
  const rows = await pumpModelVersions.model().findAll({
    where: { id: [...new Set(versionIds)] },
    attributes: ['id', 'modelId'],
    raw: true,
  })
  return new Map((rows as unknown as { id: string; modelId: string }[]).map((row) => [row.id, row.modelId]))
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
