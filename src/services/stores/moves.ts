import 'server-only'
import {
  addMonths,
  extendSchema,
  goodUntil,
  moveSchema,
  needsReason,
  openBottleSchema,
  openKitSchema,
  shareKitPrice,
  showAmount,
  stockActs,
  stockStates,
  type ExtendInput,
  type MoveInput,
  type OpenBottleInput,
  type OpenKitInput,
  type StockState,
} from '@/core/stores'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { write } from '@/db/house'
import { parts, stockLots, stockMovements, type StockLotRow, type StockMovementRow } from '@/db/stores'
import { now, ourCompany, present, recordChange, requirePermission, type Actor } from '../house'
import { loadPlaces } from './places'
import { loadStock } from './stock'
import { movement } from './booking'

/** Where something lies: its lot, place and state, and the visit it is picked for. */
type Lies = { lotId: string | null; placeId: string; state: StockState; visitId: string | null }

/** The ids of an act's movements follow from its own: sent twice, it is done once. */
const actMovement = (id: string, index: number) => `${id.slice(0, 31)}-${String(index).padStart(4, '0')}`

/** Moves so much from one state or place into another, or out of the stores. Called inside `write()`. */
export function shift(
  actor: Actor,
  act: { id: string; index: number; partId: string; kind: StockMovementRow['kind']; reason?: string },
  quantity: number,
  from: Lies | null,
  to: Lies | null,
): StockMovementRow[] {
  const { id, index, partId, kind, reason = '' } = act
  const of = { partId, kind, at: now(), reason, actId: id }
  return [
    ...(from
      ? [{ ...movement(actor, { ...of, ...from, quantity: -quantity }), id: actMovement(id, index * 2) }]
      : []),
    ...(to ? [{ ...movement(actor, { ...of, ...to, quantity }), id: actMovement(id, index * 2 + 1) }] : []),
  ]
}

/** Whether an act has been kept already: it was sent again because nobody heard the answer. */
export async function isKept(id: string): Promise<boolean> {
  return (await stockMovements.count({ actId: id })) > 0
}

/**
 * Moves stock by hand: sets it aside, shelves it again, takes it to another place, returns or scraps it.
 *
 * @throws `invalid`, or `conflict` where less of it lies there than is to be moved
 */
export async function moveByHand(actor: Actor, input: MoveInput): Promise<void> {
  requirePermission(actor, 'stores.count')
  const move = check(moveSchema, input)
  const act = stockActs[move.act]
  await write(async () => {
    if (await isKept(move.id)) return
    const [stocked] = await loadStock([move.partId])
    if (!stocked) throw notFound('This part')
    const { row, buckets } = stocked
    const lot = await stockLots.byId(move.lotId)
    if (lot?.partId !== row.id) throw invalid({ lotId: 'This lot is not of this part.' })
    if (row.unit === 'piece' && !Number.isInteger(move.quantity))
      throw invalid({ quantity: 'Pieces come whole.' })
    if (!(act.from as readonly string[]).includes(move.state))
      throw invalid({ act: `What is ${stockStates[move.state as StockState]} cannot be treated so.` })
    if (needsReason(move.act) && move.reason === '') throw invalid({ reason: 'Say why, for the record.' })
    const from: Lies = { ...move, state: move.state as StockState }
    const there =
      buckets.find(
        ({ lotId, placeId, state, visitId }) =>
          lotId === from.lotId &&
          placeId === from.placeId &&
          state === from.state &&
          visitId === from.visitId,
      )?.quantity ?? 0
    if (there < move.quantity)
      throw conflict(
        `Only ${showAmount(Math.max(0, there), row.unit)} of lot ${lot.number} ${there === 1 ? 'is' : 'are'} ${stockStates[from.state]} there now. Somebody moved it meanwhile.`,
      )
    const to = act.to === null ? null : await destination(move, from, act.to)
    await stockMovements.insertMany(
      shift(
        actor,
        {
          id: move.id,
          index: 0,
          partId: row.id,
          kind: move.act === 'scrap' ? 'scrap' : move.act === 'sendBack' ? 'sentBack' : 'move',
          reason: move.reason,
        },
        move.quantity,
        { lotId: from.lotId, placeId: from.placeId, state: from.state, visitId: from.visitId },
        to,
      ),
    )
    const places = await loadPlaces()
    await recordChange(actor, {
      entity: 'part',
      entityId: row.id,
      action: 'moved',
      summary: `${showAmount(move.quantity, row.unit)} of ${row.number}, lot ${lot.number}: ${act.name.toLowerCase()}${
        to && to.placeId !== from.placeId ? `, ${places.nameOf(to.placeId)}` : ''
      }`,
      reason: move.reason,
    })
  })
}

/** Where it lies afterwards. */
async function destination(move: MoveInput, from: Lies, state: StockState): Promise<Lies> {
  const places = await loadPlaces()
  const placeId = move.toPlaceId === '' ? from.placeId : move.toPlaceId
  const place = places.list.find((each) => each.id === placeId)
  if (!place) throw invalid({ toPlaceId: 'Choose a yard or van from the list.' })
  if (move.act === 'transfer' && placeId === from.placeId)
    throw invalid({ toPlaceId: 'Choose where it goes: it lies here.' })
  if (move.act === 'load' && place.kind !== 'van') throw invalid({ toPlaceId: 'Choose a van.' })
  const keepsVisit = state === 'picked' || state === 'van' || state === 'bench'
  if (keepsVisit && from.visitId === null) throw invalid({ act: 'Pick it for a visit first.' })
  return { lotId: from.lotId, placeId, state, visitId: keepsVisit ? from.visitId : null }
}

/**
 * Opens a kit: it is gone as a kit, and its pieces are lots of their own, good as long as the kit, at their
 * share of what it cost.
 *
 * @returns the lots of its pieces, by part
 */
export async function openKit(actor: Actor, input: OpenKitInput): Promise<{ lots: number[] }> {
  requirePermission(actor, 'stores.count')
  const kit = check(openKitSchema, input)
  return write(async () => {
    if (await isKept(kit.id)) return { lots: [] }
    const pieces = await openedPieces(actor, kit)
    return { lots: pieces.map(({ lot }) => lot.number) }
  })
}

/** The same inside a `write()`. @param act the first movement's place in the act */
export async function openedPieces(
  actor: Actor,
  kit: OpenKitInput & { index?: number },
): Promise<{ partId: string; lot: StockLotRow; quantity: number; next: number }[]> {
  const kitLot = await stockLots.byId(kit.lotId)
  if (!kitLot) throw notFound('This kit')
  const [stocked] = await loadStock([kitLot.partId])
  const { row, buckets } = stocked!
  if (row.contents.length === 0) throw conflict(`${row.number} is no kit.`)
  const there = buckets.find(
    ({ lotId, placeId, state }) => lotId === kit.lotId && placeId === kit.placeId && state === 'shelf',
  )
  if ((there?.quantity ?? 0) < 1)
    throw conflict(`No unopened kit of lot ${kitLot.number} lies there any more: somebody took or opened it.`)
  const all = new Map((await parts.every()).map((part) => [part.id, part]))
  const shares = shareKitPrice(
    kitLot.unitCents ?? row.priceCents,
    row.contents.map((piece) => ({ ...piece, looseCents: all.get(piece.partId)?.priceCents ?? 0 })),
  )
  const [last] = await stockLots.all({}, [['number', 'DESC']], 1)
  let number = (last?.number ?? 0) + 1
  let index = kit.index ?? 0
  const shelf = { placeId: kit.placeId, state: 'shelf' as const, visitId: null }
  const of = { id: kit.id, kind: 'open' as const }
  const rows = shift(actor, { ...of, index, partId: row.id }, 1, { ...shelf, lotId: kitLot.id }, null)
  const opened: { partId: string; lot: StockLotRow; quantity: number; next: number }[] = []
  const { today } = present(await ourCompany())
  for (const [at, piece] of row.contents.entries()) {
    index += 1
    const lot: StockLotRow = {
      ...kitLot,
      id: `${kit.id.slice(0, 28)}-${String(kit.index ?? 0).padStart(3, '0')}-${String(at).padStart(3, '0')}`,
      number,
      partId: piece.partId,
      receivedOn: kitLot.receivedOn,
      openedOn: today,
      kitLotId: kitLot.id,
      orderLineId: null,
      deliveryId: null,
      receivedQuantity: 0,
      unitCents: Math.round(shares[at]! / piece.quantity),
      note: '',
      createdAt: now(),
    }
    number += 1
    await stockLots.insert(lot)
    rows.push(
      ...shift(
        actor,
        { ...of, index, partId: piece.partId, reason: `out of kit ${row.number}, lot ${kitLot.number}` },
        piece.quantity,
        null,
        { ...shelf, lotId: lot.id },
      ),
    )
    opened.push({ partId: piece.partId, lot, quantity: piece.quantity, next: index + 1 })
  }
  await stockMovements.insertMany(rows)
  await recordChange(actor, {
    entity: 'part',
    entityId: row.id,
    action: 'opened',
    summary: `One ${row.number} ${row.name} of lot ${kitLot.number} opened: its pieces are stock`,
  })
  return opened
}

/** A bottle or tube is opened: from then on it keeps shorter. */
export async function openBottle(actor: Actor, input: OpenBottleInput): Promise<void> {
  requirePermission(actor, 'stores.count')
  const bottle = check(openBottleSchema, input)
  await write(async () => {
    const lot = await stockLots.byId(bottle.lotId)
    const row = lot && (await parts.byId(lot.partId))
    if (!lot || !row) throw notFound('This lot')
    if (row.openedMonths === 0) throw conflict(`${row.number} keeps as long when it is open.`)
    if (lot.openedOn !== null) return
    const { today } = present(await ourCompany())
    const until = addMonths(today, row.openedMonths)
    const expiresOn = lot.expiresOn === null || until < lot.expiresOn ? until : lot.expiresOn
    await stockLots.update({ id: lot.id }, { openedOn: today, expiresOn })
    await recordChange(actor, {
      entity: 'part',
      entityId: row.id,
      action: 'opened',
      summary: `Lot ${lot.number} of ${row.number} opened: good until ${expiresOn}`,
    })
  })
}

/** Rubber whose time is up was looked at and may lie longer: once, by its group. */
export async function extendLot(actor: Actor, input: ExtendInput): Promise<{ until: string }> {
  requirePermission(actor, 'stores.edit')
  const extend = check(extendSchema, input)
  return write(async () => {
    const lot = await stockLots.byId(extend.lotId)
    const row = lot && (await parts.byId(lot.partId))
    if (!lot || !row) throw notFound('This lot')
    const ageing = { group: row.shelfGroup, months: row.keepsMonths }
    if (ageing.group === 'none' || ageing.group === 'own')
      throw conflict(
        `Only rubber of group A, B or C can be lengthened by an inspection; ${row.number} is none.`,
      )
    const longer = goodUntil(ageing, { ...lot, extended: true })!.day
    if (lot.expiresOn !== null && lot.expiresOn >= longer)
      throw conflict(`Lot ${lot.number} has been lengthened already: it is good until ${lot.expiresOn}.`)
    await stockLots.update({ id: lot.id }, { expiresOn: longer })
    await recordChange(actor, {
      entity: 'part',
      entityId: row.id,
      action: 'extended',
      summary: `Lot ${lot.number} of ${row.number} looked at: good until ${longer} instead of ${lot.expiresOn ?? 'no day'}`,
      reason: extend.reason,
    })
    return { until: longer }
  })
}
