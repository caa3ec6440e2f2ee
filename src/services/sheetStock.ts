import 'server-only'
import { showAmount, tidy } from '@/core/parts'
import { visitNumber } from '@/core/planning'
import type { SheetAssembly, SheetState, Signing } from '@/core/sheet'
import type { SigningView } from '@/core/sheet/views'
import type { SheetRow } from '@/db/sheets'
import { parts, stockLots, stockMovements } from '@/db/stores'
import type { Actor } from './actor'
import { recordChange } from './audit'
import { now } from './clock'
import { ourCompany, present } from './company'
import { movement } from './stores'

/** Each part used with its lot, and what the lot holds by the book before and after. */
export async function stockOfUses(state: SheetState) {
  const partIds = state.uses.flatMap((use) => use.payload.partId ?? [])
  const [partRows, lotRows, movementRows, company] = await Promise.all([
    parts.all({ id: partIds }),
    stockLots.all({ partId: partIds }),
    stockMovements.all({ partId: partIds }),
    ourCompany(),
  ])
  const left = new Map<string, number>()
  for (const row of movementRows) {
    const key = `${row.partId}/${row.lotId}`
    left.set(key, tidy((left.get(key) ?? 0) + row.quantity))
  }
  const { today } = present(company)
  return state.uses.map(({ id, payload }) => {
    const { partId, lotId, name, unit, quantity } = payload
    const lot = lotRows.find((each) => each.id === lotId)
    const expired = lot?.expiresOn && lot.expiresOn < today ? ', expired' : ''
    if (partId === null)
      return { id, payload, name, unit, quantity, lot: 'not from the stores', onHand: null, short: 0 }
    const key = `${partId}/${lotId}`
    const onHand = left.get(key) ?? 0
    left.set(key, tidy(onHand - quantity))
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
  const uses = (await stockOfUses(state)).filter((use) => use.payload.partId !== null)
  await stockMovements.insertMany(
    uses.map(({ id, payload }) =>
      movement(actor, {
        partId: payload.partId!,
        lotId: payload.lotId,
        kind: 'use',
        quantity: -payload.quantity,
        at: now(),
        sheetId: sheet.id,
        entryId: id,
      }),
    ),
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
