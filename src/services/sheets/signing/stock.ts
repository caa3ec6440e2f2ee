import 'server-only'
import { bookUses, showAmount, takenByOpen, tidy } from '@/core/stores'
import { visitNumber } from '@/core/plan'
import type { SheetAssembly, SheetState, Signing, SigningView } from '@/core/sheets'
import type { SheetRow } from '@/db/sheets'
import { parts, stockLots, stockMovements } from '@/db/stores'
import { type Actor, recordChange, now, ourCompany, present } from '../../house'
import { countsIn, usesOnOpenSheets, movement } from '../../stores'

/** Each part used with its lot, and what its bin holds before it is taken and after. */
export async function stockOfUses(sheet: Pick<SheetRow, 'id'>, state: SheetState) {
  const partIds = [...new Set(state.uses.flatMap((use) => use.payload.partId ?? []))]
  const [partRows, lotRows, movementRows, company, open] = await Promise.all([
    parts.all({ id: partIds }),
    stockLots.all({ partId: partIds }),
    stockMovements.all({ partId: partIds }),
    ourCompany(),
    usesOnOpenSheets(),
  ])
  const counts = countsIn(movementRows)
  // What other sheets have taken is not there either.
  const others = takenByOpen(
    open.filter((use) => use.sheetId !== sheet.id),
    counts,
  )
  const own = new Map(open.filter((use) => use.sheetId === sheet.id).map((use) => [use.id, use]))
  const left = new Map<string, number>()
  const add = (partId: string, lotId: string | null, quantity: number) => {
    const key = `${partId}/${lotId}`
    left.set(key, tidy((left.get(key) ?? 0) + quantity))
  }
  for (const row of movementRows) add(row.partId, row.lotId, row.quantity)
  for (const { partId, lotId, quantity } of others) add(partId, lotId, -quantity)
  const { today } = present(company)
  return state.uses.map(({ id, payload }) => {
    const { partId, lotId, name, unit, quantity } = payload
    const lot = lotRows.find((each) => each.id === lotId)
    const expired = lot?.expiresOn && lot.expiresOn < today ? ', expired' : ''
    if (partId === null)
      return {
        id,
        payload,
        name,
        unit,
        quantity,
        lot: 'not from the stores',
        onHand: null,
        short: 0,
        back: 0,
      }
    const noted = own.get(id)
    // A count that found it gone already has booked it: it was there before that, and leaves nothing short.
    const [{ back } = { back: 0 }] = noted ? bookUses([noted], counts) : []
    const onHand = tidy((left.get(`${partId}/${lotId}`) ?? 0) + back)
    add(partId, lotId, back - quantity)
    const part = partRows.find((each) => each.id === partId)
    return {
      id,
      payload,
      name: part ? `${part.number} ${part.name}` : name,
      unit,
      quantity,
      lot: lot ? `lot ${lot.number}${expired}` : 'no lot named',
      onHand,
      short: tidy(Math.max(0, quantity - Math.max(0, onHand))),
      back,
    }
  })
}

/** What the sheet expected and the parts used do not show. */
export function notUsed(state: SheetState): SigningView['notUsed'] {
  return state.content.parts.flatMap((need) => {
    const used = tidy(
      state.uses
        .filter(({ payload }) => payload.assemblyId === need.assemblyId && payload.part === need.part)
        .reduce((sum, { payload }) => sum + payload.quantity, 0),
    )
    return used < need.quantity ? [{ name: need.name, quantity: need.quantity, used, unit: need.unit }] : []
  })
}

/** Which lot the part in a position came from, as far as the parts used say. */
export function lotsByPosition(state: SheetState): (assemblyId: string, position: string) => string | null {
  const pools = new Map<string, string[]>()
  for (const { payload } of state.uses) {
    if (payload.lotId === null || payload.part === null) continue
    const key = `${payload.assemblyId}/${payload.part}`
    const pieces = payload.unit === 'piece' ? payload.quantity : 1
    pools.set(key, [...(pools.get(key) ?? []), ...Array.from({ length: pieces }, () => payload.lotId!)])
  }
  const find = (assembly: SheetAssembly | undefined, position: string) =>
    assembly?.positions.find((each) => each.key === position)
  return (assemblyId, position) => {
    const about = find(
      state.content.assemblies.find((each) => each.id === assemblyId),
      position,
    )
    const pool = about?.part ? pools.get(`${assemblyId}/${about.part}`) : undefined
    const [lot] = pool?.splice(0, about?.pieces === 1 ? 1 : pool.length) ?? []
    return lot ?? null
  }
}

/** Use already made at the bench is never refused; where it exceeds the book, that bin wants counting. */
export async function moveStock(
  actor: Actor,
  sheet: SheetRow,
  state: SheetState,
): Promise<Signing['toCount']> {
  const uses = (await stockOfUses(sheet, state)).filter((use) => use.payload.partId !== null)
  await stockMovements.insertMany(
    uses.flatMap(({ id, payload, back }) => {
      const { partId, lotId, quantity } = payload
      const of = { partId: partId!, lotId, at: now(), sheetId: sheet.id, entryId: id }
      const out = movement(actor, { ...of, kind: 'use', quantity: -quantity })
      if (back === 0) return [out]
      const reason = 'Missing already when its bin was counted: the count has it, it is not taken twice'
      return [out, movement(actor, { ...of, kind: 'correction', quantity: back, reason })]
    }),
  )
  const short = uses.filter((use) => use.short > 0)
  for (const { payload, name, short: beyond, lot } of short)
    await recordChange(actor, {
      entity: 'part',
      entityId: payload.partId!,
      action: 'toCount',
      summary: `Count this bin: ${name}, ${showAmount(beyond, payload.unit)} more used on sheet ${visitNumber(sheet.number)} than the book had (${lot})`,
    })
  return short.map(({ payload, name, short: beyond }) => ({
    partId: payload.partId!,
    name,
    short: beyond,
    unit: payload.unit,
  }))
}
