import 'server-only'
import { check, invalid } from '@/core/problem'
import { vanSchema, type VanInput } from '@/core/stores'
import { derived, kept, write } from '@/db/house'
import { yards } from '@/db/fleet'
import { vans, type VanRow } from '@/db/stores'
import { editRow, now, recordChange, requirePermission, type Actor } from '../house'

export type Place = { id: string; name: string; kind: 'yard' | 'van'; yardId: string }
export type Places = {
  /** Yards first, in the order in which they were added, each with its vans. */
  list: Place[]
  nameOf: (placeId: string) => string
  /** The yard that a place is in. */
  yardOf: (placeId: string) => string
  first: string
}

/** Where stock can lie: the shelves of the yards, and the vans that are kept there. */
export async function loadPlaces(): Promise<Places> {
  const [yardRows, vanRows] = await Promise.all([
    kept('yards in order', () => yards.all({}, [['createdAt', 'ASC']])),
    vans.every(),
  ])
  return derived('places', [yardRows, vanRows], () => {
    const list = yardRows.flatMap((yard): Place[] => [
      { id: yard.id, name: yard.name, kind: 'yard', yardId: yard.id },
      ...vanRows
        .filter((van) => van.yardId === yard.id && van.retiredOn === null)
        .sort((a, b) => (a.name < b.name ? -1 : 1))
        .map((van) => ({ id: van.id, name: van.name, kind: 'van' as const, yardId: yard.id })),
    ])
    const known = new Map(list.map((place) => [place.id, place]))
    for (const van of vanRows)
      known.set(van.id, { id: van.id, name: van.name, kind: 'van', yardId: van.yardId })
    const first = yardRows[0]?.id ?? ''
    return {
      list,
      nameOf: (placeId) => known.get(placeId)?.name ?? 'the stores',
      yardOf: (placeId) => known.get(placeId)?.yardId ?? first,
      first,
    }
  })
}

/** The place that was named, or the first yard. @throws a problem at `field` for one that is not known */
export async function requirePlace(placeId: string, field = 'placeId'): Promise<string> {
  const places = await loadPlaces()
  if (placeId === '') return places.first
  if (!places.list.some((place) => place.id === placeId))
    throw invalid({ [field]: 'Choose a yard or van from the list.' })
  return placeId
}

export async function listPlaces(_actor: Actor): Promise<Place[]> {
  return (await loadPlaces()).list
}

/** Adds a van, or changes one: without a version it is new. */
export async function saveVan(actor: Actor, input: VanInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, ...values } = check(vanSchema, input)
  await write(async () => {
    if (!(await yards.byId(values.yardId))) throw invalid({ yardId: 'Choose a yard from the list.' })
    const same = (await vans.every()).find((van) => van.name === values.name && van.id !== id)
    if (same) throw invalid({ name: 'There is a van of this name.' })
    if (version !== undefined) {
      await editRow(actor, vans, { entity: 'van', name: values.name }, { id, version }, values, {
        action: 'changed',
        summary: `${values.name} changed`,
      })
      return
    }
    if (await vans.byId(id)) return
    const row: VanRow = { ...values, id, retiredOn: null, retiredReason: '', createdAt: now(), version: 1 }
    await vans.insert(row)
    await recordChange(actor, {
      entity: 'van',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `Van ${values.name} added`,
      after: row,
    })
  })
}
