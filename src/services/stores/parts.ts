import 'server-only'
import { retireSchema, type RetireInput } from '@/core/fleet'
import { kitFault, partSchema, showAmount, type PartForm, type PartInput } from '@/core/stores'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { write } from '@/db/house'
import { parts, stockMovements, type PartRow } from '@/db/stores'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  editRow,
  requireUnique,
} from '../house'
import { loadStock } from './stock'

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
