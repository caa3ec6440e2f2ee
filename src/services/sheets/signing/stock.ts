import 'server-only'
import { bookUses, showAmount, tidy, takeForBench, withinReach, without, type Bucket } from '@/core/stores'
import { visitNumber } from '@/core/plan'
import type { SheetAssembly, SheetState, Signing, SigningView } from '@/core/sheets'
import type { SheetRow } from '@/db/sheets'
import { parts, stockLots, stockMovements } from '@/db/stores'
import { type Actor, recordChange, now, ourCompany, present } from '../../house'
import { afterUses, countsIn, movement, usesOnOpenSheets, yardsOfWork } from '../../stores'

/** Each part used with its lot, from where it was taken, and what lies there before it is taken and after. */
export async function stockOfUses(sheet: SheetRow, state: SheetState) {
  const partIds = [...new Set(state.uses.flatMap((use) => use.payload.partId ?? []))]
  const [partRows, lotRows, movementRows, company, open, yardOf] = await Promise.all([
    parts.all({ id: partIds }),
    stockLots.all({ partId: partIds }),
    stockMovements.all({ partId: partIds }),
    ourCompany(),
    usesOnOpenSheets(),
    yardsOfWork(),
  ])
  const counts = countsIn(movementRows)
  const own = new Map(open.filter((use) => use.sheetId === sheet.id).map((use) => [use.id, use]))
  // What other sheets have taken is not there either.
  const bucketsOf = new Map(
    partIds.map((partId) => [
      partId,
      afterUses(
        movementRows.filter((row) => row.partId === partId),
        open.filter((use) => use.partId === partId && use.sheetId !== sheet.id),
      ).buckets,
    ]),
  )
  const { today } = present(company)
  const mine = { visitId: sheet.visitId, placeId: yardOf(sheet) }
  return state.uses.map(({ id, payload }) => {
    const { partId, lotId, name, unit, quantity } = payload
    const lot = lotRows.find((each) => each.id === lotId)
    const expired = lot?.expiresOn && lot.expiresOn < today ? ', expired' : ''
    if (partId === null)
      return {
        ...{ id, payload, name, unit, quantity, shares: [] as Bucket[] },
        ...{ lot: 'not from the stores', onHand: null, short: 0, back: 0 },
      }
    const noted = own.get(id)
    // A count that found it gone already has booked it: it was there before that, and leaves nothing short.
    const [{ back } = { back: 0 }] = noted ? bookUses([noted], counts) : []
    const buckets = bucketsOf.get(partId)!
    const onHand = tidy(withinReach(buckets, { lotId, ...mine }) + back)
    const shares = takeForBench(buckets, { lotId, quantity, ...mine })
    if (back === 0) bucketsOf.set(partId, without(buckets, shares))
    const part = partRows.find((each) => each.id === partId)
    return {
      ...{ id, payload, unit, quantity, onHand, back, shares },
      name: part ? `${part.number} ${part.name}` : name,
      lot: lot ? `lot ${lot.number}${expired}` : 'no lot named',
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
  const uses = (await stockOfUses(sheet, state)).filter((use) => use.payload.partId !== null)
  await stockMovements.insertMany(
    uses.flatMap(({ id, payload, back, shares }) => {
      const { partId, lotId } = payload
      const of = { partId: partId!, lotId, at: now(), sheetId: sheet.id, entryId: id }
      const out = shares.map(({ placeId, state: from, visitId, quantity }) =>
        movement(actor, { ...of, kind: 'use', placeId, state: from, visitId, quantity: -quantity }),
      )
      if (back === 0) return out
      const reason = 'Missing already when its bin was counted: the count has it, it is not taken twice'
      const returned = shares.map(({ placeId, state: from, visitId, quantity }) =>
        movement(actor, { ...of, kind: 'correction', placeId, state: from, visitId, quantity, reason }),
      )
      return [...out, ...returned]
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
