import type { PumpModel } from './types'

type Faults = Record<string, string>

/**
 * One size of a family: the family's model with what differs in that size put in its place. A model of
 * one size is given back as it is.
 *
 * @param key the size
 * @throws when there is no such size, or a difference names no place (`sizeFaults` says which)
 * @example modelForSize(family, 's25').fasteners[0].torque // { state: 'stated', value: 55, … }
 */
export function modelForSize(model: PumpModel, key: string | null): PumpModel {
  if (model.sizes.length === 0) return model
  const size = model.sizes.find((each) => each.key === key)
  if (!size) throw new Error(`${model.maker} ${model.name} has no size “${key}”.`)
  const resolved: PumpModel = { ...structuredClone(model), name: size.name, size: size.key, sizes: [] }
  for (const [path, value] of Object.entries(size.differs)) {
    const place = placeOf(resolved, path)
    if (!place) throw new Error(`There is no place “${path}”.`)
    place.holder[place.last] = structuredClone(value)
  }
  return resolved
}

/** Differences that lead nowhere, by their path. */
export function sizeFaults(model: PumpModel): Faults {
  const faults: Faults = {}
  const names = new Set<string>()
  model.sizes.forEach((size, index) => {
    if (names.has(size.name)) faults[`sizes.${index}.name`] = `Two sizes are called “${size.name}”.`
    names.add(size.name)
    for (const path of Object.keys(size.differs)) {
      if (path.startsWith('sizes') || !placeOf(model, path))
        faults[`sizes.${index}.differs.${path}`] =
          'This leads nowhere: write keys with points between them, such as fasteners.plungerBolt.torque.value.'
    }
  })
  return faults
}

type Holder = Record<string, unknown>

/** Steps into lists by the key of their items, into objects by field. Null where the way ends early. */
function placeOf(model: PumpModel, path: string): { holder: Holder; last: string } | null {
  const parts = path.split('.')
  const last = parts.pop()!
  let at: unknown = model
  for (const part of parts) {
    at = Array.isArray(at)
      ? at.find((item: { key?: unknown }) => item?.key === part)
      : Object.hasOwn(at as Holder, part)
        ? (at as Holder)[part]
        : null
    if (typeof at !== 'object' || at === null) return null
  }
  // Only what the model itself has: what every object has by nature is nobody's to change.
  if (Array.isArray(at) || !Object.hasOwn(at as Holder, last)) return null
  return { holder: at as Holder, last }
}
