/** Plain data as one string. The type it had is known to the compiler alone. */
export type Packed<T> = { text: string; readonly packs?: T }

const list = -1
const oddNumber = -2

/**
 * A long list for a part of the page that lives in the browser. Handed over as objects, every key of
 * every row is visited, written and escaped three times on the way; packed, each shape of object tells
 * its keys once and the rest is one string.
 *
 * The same data gives the same package: it must not be changed afterwards.
 *
 * @param data plain: objects, arrays, strings, numbers, booleans, null; what is undefined is left out
 * @throws Error for anything else
 */
export function pack<T extends object>(data: T): Packed<T> {
  const before = packageOf.get(data)
  if (before) return before as Packed<T>
  const packed: Packed<T> = { text: written(data) }
  packageOf.set(data, packed)
  return packed
}

const packageOf = new WeakMap<object, Packed<unknown>>()

function written(data: unknown): string {
  const shapes: string[][] = []
  const known = new Map<string, number>()
  const packed = (value: unknown): unknown => {
    if (value === null || typeof value === 'string' || typeof value === 'boolean') return value
    if (typeof value === 'number')
      return Number.isFinite(value) && !Object.is(value, -0) ? value : [oddNumber, numberName(value)]
    if (Array.isArray(value)) {
      const items: unknown[] = [list]
      for (const each of value) items.push(packed(each ?? null))
      return items
    }
    if (typeof value !== 'object' || !isPlain(value))
      throw new Error(`This cannot be packed: ${typeof value}`)
    const own = value as Record<string, unknown>
    const values: unknown[] = [0]
    let name = ''
    for (const key of Object.keys(own)) {
      const each = own[key]
      if (each === undefined) continue
      name += `${key.length} ${key}`
      values.push(packed(each))
    }
    let shape = known.get(name)
    if (shape === undefined) {
      shape = shapes.push(Object.keys(own).filter((key) => own[key] !== undefined)) - 1
      known.set(name, shape)
    }
    values[0] = shape
    return values
  }
  const body = packed(data)
  return JSON.stringify([shapes, body])
}

const unpackedOf = new WeakMap<object, unknown>()

/** What was packed: the same objects for the same text while it is remembered, and not to be changed. */
export function unpack<T>(packed: Packed<T>): T {
  if (!unpackedOf.has(packed)) unpackedOf.set(packed, readOnce(packed.text))
  return unpackedOf.get(packed) as T
}

/** What texts read as, the latest last. The server is given the same ones with every page it draws. */
const readBefore = new Map<string, unknown>()
/** So many characters of them are kept. */
const mostKept = 1_000_000

function readOnce(text: string): unknown {
  if (text.length > mostKept) return read(text)
  const value = readBefore.has(text) ? readBefore.get(text) : read(text)
  readBefore.delete(text)
  readBefore.set(text, value)
  let length = 0
  for (const { length: own } of readBefore.keys()) length += own
  for (const oldest of readBefore.keys()) {
    if (length <= mostKept) break
    readBefore.delete(oldest)
    length -= oldest.length
  }
  return value
}

function read(text: string): unknown {
  const [shapes, body] = JSON.parse(text) as [string[][], unknown]
  const unpacked = (value: unknown): unknown => {
    if (!Array.isArray(value)) return value
    const [kind] = value as [number]
    if (kind === oddNumber) return Number(value[1])
    if (kind === list) {
      const items = new Array<unknown>(value.length - 1)
      for (let at = 1; at < value.length; at += 1) items[at - 1] = unpacked(value[at])
      return items
    }
    const keys = shapes[kind]!
    const object: Record<string, unknown> = {}
    for (let at = 0; at < keys.length; at += 1) put(object, keys[at]!, unpacked(value[at + 1]))
    return object
  }
  return unpacked(body)
}

/** As a value of its own, also under the one name that an assignment would take for something else. */
function put(object: Record<string, unknown>, key: string, value: unknown): void {
  if (key === '__proto__')
    Object.defineProperty(object, key, { value, enumerable: true, configurable: true, writable: true })
  else object[key] = value
}

const numberName = (value: number) => (Object.is(value, -0) ? '-0' : String(value))

function isPlain(value: object): boolean {
  const prototype: unknown = Object.getPrototypeOf(value)
  return prototype === null || Object.getPrototypeOf(prototype as object) === null
}
