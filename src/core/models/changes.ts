import type { PumpModel } from './types'

/** One difference between two versions of a model: where, and what it said before and says now. */
export type ModelChange = { path: string; before: string; after: string }

/**
 * What changed from one version of a model to the next, readably. Lists of things with keys are compared
 * by key, so that moving something is no change; steps also say when their order changed.
 *
 * @returns paths of keys such as `fasteners.plungerBolt.torque.value`; empty where nothing changed
 * @example changesBetween(v1, v2) // [{ path: 'tasks.hpSeals.limit.hours', before: '800', after: '700' }]
 */
export function changesBetween(before: PumpModel, after: PumpModel): ModelChange[] {
  return differences(before, after, '')
}

function differences(before: unknown, after: unknown, path: string): ModelChange[] {
  if (JSON.stringify(before) === JSON.stringify(after)) return []
  if (isKeyed(before) && isKeyed(after)) {
    const keys = [...new Set([...before, ...after].map((item) => item.key))]
    const found = keys.flatMap((key) =>
      differences(
        before.find((item) => item.key === key),
        after.find((item) => item.key === key),
        join(path, key),
      ),
    )
    const order = (list: Keyed[], other: Keyed[]) =>
      list.map(({ key }) => key).filter((key) => other.some((item) => item.key === key))
    const [old, now] = [order(before, after), order(after, before)]
    return old.join() === now.join()
      ? found
      : [...found, { path: join(path, 'order'), before: old.join(', '), after: now.join(', ') }]
  }
  if (isObject(before) && isObject(after)) {
    const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])]
    return fields.flatMap((field) => differences(before[field], after[field], join(path, field)))
  }
  return [{ path, before: words(before), after: words(after) }]
}

type Keyed = { key: string }

function isKeyed(value: unknown): value is Keyed[] {
  return Array.isArray(value) && value.every((item) => isObject(item) && typeof item['key'] === 'string')
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}

const join = (path: string, last: string) => (path === '' ? last : `${path}.${last}`)

function words(value: unknown): string {
  if (value === undefined || value === null || value === '') return 'nothing'
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map(words).join(', ')
  if (!isObject(value)) return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value)
  const said = value['name'] ?? value['text'] ?? value['key']
  if (typeof said === 'string') return said
  return Object.entries(value)
    .map(([field, each]) => `${field} ${words(each)}`)
    .join(', ')
}
