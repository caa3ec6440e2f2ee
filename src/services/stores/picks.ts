import 'server-only'
import { showDay } from '@/core/calendar'
import {
  availability,
  pickSchema,
  showAmount,
  tidy,
  type Book,
  type PickInput,
  type PickPage,
} from '@/core/stores'
import { isOpen, visitNumber } from '@/core/plan'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { derived, write } from '@/db/house'
import { people } from '@/db/access'
import { stockLots, stockMovements, type StockLotRow, type StockMovementRow } from '@/db/stores'
import { visits, type VisitRow } from '@/db/plan'
import { dayOf, ourCompany, recordChange, requirePermission, timeOf, type Actor } from '../house'
import { isKept, openedPieces, shift } from './moves'
import { loadPlaces } from './places'
import { loadBook, loadStock, yardsOfWork } from './stock'

/**
 * Lays pieces ready for a visit: lots are bound to it, kits are opened and the pieces that it wants out of
 * them laid with them.
 *
 * @throws `conflict` where somebody was faster, and says who, when and for what; where an earlier visit has
 *   them reserved; where they have expired by the visit's day
 */
export async function pickForVisit(actor: Actor, input: PickInput): Promise<{ picked: number }> {
  requirePermission(actor, 'stores.count')
  const pick = check(pickSchema, input)
  return write(async () => {
    if (await isKept(pick.id)) return { picked: pick.take.length + pick.open.length }
    const visit = await visits.byId(pick.visitId)
    if (!visit) throw notFound('This visit')
    if (!isOpen(visit.state)) throw conflict('This visit does not stand any more.')
    const lots = new Map(
      (await stockLots.all({ id: [...pick.take, ...pick.open].map(({ lotId }) => lotId) })).map((lot) => [
        lot.id,
        lot,
      ]),
    )
    for (const [at, { lotId }] of pick.take.entries())
      if (!lots.has(lotId)) throw invalid({ [`take.${at}.lotId`]: 'This lot is not known.' })
    for (const [at, { lotId }] of pick.open.entries())
      if (!lots.has(lotId)) throw invalid({ [`open.${at}.lotId`]: 'This kit is not known.' })
    await refuseReserved(visit, pick, lots)
    const rows: StockMovementRow[] = []
    let index = 0
    const lay = (partId: string, lotId: string, placeId: string, quantity: number) => {
      rows.push(
        ...shift(
          actor,
          {
            id: pick.id,
            index,
            partId,
            kind: 'move',
            reason: `picked for visit ${visitNumber(visit.number)}`,
          },
          quantity,
          { lotId, placeId, state: 'shelf', visitId: null },
          { lotId, placeId, state: 'picked', visitId: visit.id },
        ),
      )
      index += 1
    }
    for (const { lotId, placeId, quantity } of pick.take) {
      const lot = lots.get(lotId)!
      await requireOnShelf(lot, placeId, quantity, visit)
      lay(lot.partId, lotId, placeId, quantity)
    }
    for (const { lotId, placeId, pieces } of pick.open) {
      const opened = await openedPieces(actor, { id: pick.id, lotId, placeId, index })
      index = Math.max(index, ...opened.map(({ next }) => next))
      for (const piece of pieces) {
        const own = opened.find(({ partId }) => partId === piece.partId)
        if (!own || own.quantity < piece.quantity) throw conflict('The kit does not hold so much of it.')
        lay(piece.partId, own.lot.id, placeId, piece.quantity)
      }
    }
    await stockMovements.insertMany(rows)
    await recordChange(actor, {
      entity: 'visit',
      entityId: visit.id,
      action: 'picked',
      summary: `Laid ready for visit ${visitNumber(visit.number)}: ${pick.take.length} ${pick.take.length === 1 ? 'lot' : 'lots'}${
        pick.open.length > 0 ? `, ${pick.open.length} ${pick.open.length === 1 ? 'kit' : 'kits'} opened` : ''
      }`,
    })
    return { picked: pick.take.length + pick.open.length }
  })
}

/** So much has to lie on the shelf; else who took it, when and for what. */
async function requireOnShelf(
  lot: StockLotRow,
  placeId: string,
  quantity: number,
  visit: VisitRow,
): Promise<void> {
  const [stocked] = await loadStock([lot.partId])
  const { row, buckets } = stocked!
  if (row.unit === 'piece' && !Number.isInteger(quantity)) throw conflict('Pieces come whole.')
  if (lot.expiresOn !== null && lot.expiresOn < visit.day)
    throw conflict(
      `Lot ${lot.number} of ${row.number} is good until ${showDay(lot.expiresOn)} only, and the visit is on ${showDay(visit.day)}.`,
    )
  const there =
    buckets.find((each) => each.lotId === lot.id && each.placeId === placeId && each.state === 'shelf')
      ?.quantity ?? 0
  if (there >= quantity) return
  const taken = (await stockMovements.all({ lotId: lot.id, state: 'shelf' }, [['recordedAt', 'DESC']])).find(
    (movement) => movement.quantity < 0 && movement.placeId === placeId,
  )
  const left = `${showAmount(Math.max(0, there), row.unit)} of lot ${lot.number} of ${row.number} ${there === 1 ? 'is' : 'are'} left in ${(await loadPlaces()).nameOf(placeId)}`
  if (!taken) throw conflict(`${left}.`)
  const { timeZone } = await ourCompany()
  const by = (await people.byId(taken.recordedById))?.name ?? 'Somebody'
  throw conflict(
    `${left}: ${by} took ${showAmount(-taken.quantity, row.unit)} on ${showDay(dayOf(taken.recordedAt, timeZone))} at ${timeOf(taken.recordedAt, timeZone)}${taken.reason === '' ? '' : `, ${taken.reason}`}.`,
  )
}

/** What earlier visits have reserved is theirs. */
async function refuseReserved(
  visit: VisitRow,
  pick: PickInput,
  lots: Map<string, StockLotRow>,
): Promise<void> {
  const [book, yardOf] = await Promise.all([loadBook(), yardsOfWork()])
  const asked = new Map<string, number>()
  for (const { lotId, quantity } of pick.take) {
    const { partId } = lots.get(lotId)!
    asked.set(partId, tidy((asked.get(partId) ?? 0) + quantity))
  }
  for (const { pieces } of pick.open)
    for (const { partId, quantity } of pieces) asked.set(partId, tidy((asked.get(partId) ?? 0) + quantity))
  for (const [part, quantity] of asked) {
    const stocked = book.parts.get(part)
    if (!stocked) throw notFound('This part')
    await refuseTwice(visit, part, quantity, book)
    const { free } = availability(book, {
      part,
      quantity,
      day: visit.day,
      yardId: yardOf(visit),
      forVisit: visit.id,
    })
    if (free >= quantity) continue
    const there = stocked.lots.reduce((sum, lot) => sum + Math.max(0, lot.onHand), 0)
    // What is not there at all is told where it is looked for, with who took it.
    if (there < quantity) continue
    const before = (book.reserved.get(part) ?? []).filter(
      (demand) => demand.visitId !== visit.id && demand.day <= visit.day,
    )
    const rows = await visits.all({ id: before.map(({ visitId }) => visitId) })
    const numbers = rows.map((row) => `${visitNumber(row.number)} on ${showDay(row.day)}`)
    throw conflict(
      `Only ${showAmount(free, stocked.unit)} of ${stocked.number} can be picked: the rest is reserved for ${
        numbers.length === 1 ? 'visit' : 'visits'
      } ${numbers.join(', ')}.`,
    )
  }
}

/** What lies ready for visits that are done or called off: it wants to be brought back. */
export async function pickedForNothing(_actor: Actor): Promise<PickPage['picked']> {
  const [stocked, visitRows, places, lotRows] = await Promise.all([
    loadStock(),
    visits.every(),
    loadPlaces(),
    stockLots.every(),
  ])
  return derived('picked for nothing', [visitRows, places, lotRows, ...stocked], () => {
    const visitOf = new Map(visitRows.map((row) => [row.id, row]))
    const lotOf = new Map(lotRows.map((lot) => [lot.id, lot]))
    return stocked.flatMap(({ row, buckets }) =>
      buckets
        .filter(({ visitId, quantity }) => {
          const visit = visitId === null ? undefined : visitOf.get(visitId)
          return quantity > 0 && visit !== undefined && !isOpen(visit.state)
        })
        .map((bucket) => ({
          ...{ partId: row.id, number: row.number, name: row.name, unit: row.unit },
          ...{
            placeId: bucket.placeId,
            state: bucket.state,
            quantity: bucket.quantity,
            visitId: bucket.visitId,
          },
          lotId: bucket.lotId!,
          lot: lotOf.get(bucket.lotId!)?.number ?? 0,
          code: lotOf.get(bucket.lotId!)?.code ?? '',
          place: places.nameOf(bucket.placeId),
          visit: visitOf.get(bucket.visitId!)!.number,
        })),
    )
  })
}

/** A list that somebody else has picked meanwhile is not picked once more; what goes along in case may be. */
async function refuseTwice(visit: VisitRow, part: string, quantity: number, book: Book): Promise<void> {
  const left = (book.reserved.get(part) ?? []).find(({ visitId }) => visitId === visit.id)?.quantity ?? 0
  const laid = (
    await stockMovements.all({ partId: part, visitId: visit.id }, [['recordedAt', 'DESC']])
  ).filter((row) => row.kind === 'move' && row.quantity > 0)
  if (quantity <= left || (left === 0 && laid.length === 0)) return
  const { number, unit } = book.parts.get(part)!
  const [last] = laid
  const { timeZone } = await ourCompany()
  const by = last && ((await people.byId(last.recordedById))?.name ?? 'Somebody')
  throw conflict(
    `Visit ${visitNumber(visit.number)} wants ${left === 0 ? 'no more' : `only ${showAmount(left, unit)} more`} of ${number}${
      last
        ? `: ${by} laid ${showAmount(last.quantity, unit)} ready on ${showDay(dayOf(last.recordedAt, timeZone))} at ${timeOf(last.recordedAt, timeZone)}`
        : ''
    }.`,
  )
}
