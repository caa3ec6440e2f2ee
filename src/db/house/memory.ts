import 'server-only'
import { ownTransaction } from './connection'
import { scope, within, type Basis, type Looks, type Touches } from './scope'
import { rowsOf, runs } from './statements'

/**
 * What was worked out from the database, kept while nothing that it rests on is written.
 *
 * A **topic** is a table (`readings`), or what a table holds of one thing (`readings/<meter>`). The table
 * helpers say which topics a write touches and which a reading looks at; nobody names or invalidates
 * anything by hand. What is kept is made anew when it is next asked for after one of the topics was
 * touched that were looked at while it was made. What is made of kept things is derived again only where
 * one of these is another one: `derived()`.
 *
 * Each commit also notes its topics in a table with a running number, by which another process on the
 * same database learns of them.
 */
type Memory = {
  /** Counts touches; what is kept remembers how many it has been held against. */
  count: number
  /** What was touched lately, oldest first. What was fresh once is held only against what came since. */
  recent: { count: number; topics: string[] }[]
  /** Of touches up to this one is no longer known what they were. */
  forgotten: number
  kept: Map<string, Kept>
  each: Map<string, Each>
  /** What only grows, as far as it was read; whatever was asked for longest ago comes first. */
  grown: Map<string, unknown[]>
  /** The last running number in the table that this process knows of. */
  sequence: number | null
  lookedAt: number
  looking: Promise<void> | null
}

type Kept = { basis: Basis; value: Promise<unknown> }

type Each = {
  of: Map<string, One>
  /** The touches that were held against each of these. */
  seen: number
  /** The last answer: it stands as long as nothing of these is touched and the same are asked for. */
  last: { basis: Basis; ids: string[]; found: Map<string, unknown> } | null
}

/** What is worked out of one thing; at hand without waiting once it is there. */
type One = { coming: Promise<unknown> } | { value: unknown }

/** The topic of a write that cannot say what it touches. */
const everything = '*'

const key = Symbol.for('atelier.memory')
const derivedKey = Symbol.for('atelier.derived')
const sameKey = Symbol.for('atelier.same')
const globals = globalThis as unknown as Record<symbol, unknown>

function memory(): Memory {
  return (globals[key] ??= fresh()) as Memory
}

const fresh = (): Memory => ({
  count: 0,
  recent: [],
  forgotten: 0,
  kept: new Map(),
  each: new Map(),
  grown: new Map(),
  sequence: null,
  lookedAt: 0,
  looking: null,
})

/**
 * Runs a transaction that gathers what it touches.
 *
 * @throws where it would be part of making something kept: a transaction that waits for that would never end
 */
export function gathering<T>(touches: Touches, work: () => Promise<T>): Promise<T> {
  if (scope().looks) throw new Error('What is kept is made by reading alone.')
  return within({ touches }, work)
}

/** Told by the table helpers: rows of a table were written, of these things, or of who knows which. */
export function touch(table: string, of: string[] | null): void {
  const topics = [table, ...(of === null ? [`${table}/*`] : of.map((each) => `${table}/${each}`))]
  const gathered = scope().touches
  if (gathered) for (const topic of topics) gathered.add(topic)
  else apply(topics)
}

/** Told by a write that cannot say what it touches, such as a change of shape. Called inside `write()`. */
export function touchEverything(): void {
  scope().touches!.add(everything)
}

function apply(topics: Iterable<string>): void {
  const now = memory()
  const own = [...topics]
  if (own.length === 0) return
  if (own.includes(everything)) now.grown.clear()
  now.count += 1
  now.recent.push({ count: now.count, topics: own })
  if (now.recent.length > mostRecent) now.forgotten = now.recent.shift()!.count
}

/** So many touches are remembered one by one; what nobody has asked for since then is made anew. */
const mostRecent = 2000

/** Forgets everything that is kept and derived: where the database is closed, and for tests that compare. */
export function forget(): void {
  globals[key] = fresh()
  delete globals[derivedKey]
  delete globals[sameKey]
}

/** What was touched after one of the touches; null where that is no longer known. */
function touchedSince(at: number, { recent, forgotten, count }: Memory): string[] | null {
  if (at === count) return []
  if (at < forgotten) return null
  return recent.slice(at - forgotten).flatMap(({ topics }) => topics)
}

function isStale(basis: Basis, now: Memory): boolean {
  if (basis.isStale) return true
  if (basis.freshAt === now.count) return false
  const touched = touchedSince(basis.freshAt, now)
  basis.isStale =
    touched === null || touched.some(basis.restsOn) || [...basis.on].some((each) => isStale(each, now))
  if (basis.isMade && !basis.isStale) basis.freshAt = now.count
  return basis.isStale
}

/** Told by whatever reads the database: what is being made now rests on these topics. */
export function looked(topics: string[]): void {
  const looking = scope().looks
  if (!looking) return
  for (const topic of topics) {
    looking.topics.add(topic)
    const slash = topic.indexOf('/')
    // A write that cannot say which things it is about is about each of them.
    if (slash >= 0) looking.topics.add(`${topic.slice(0, slash)}/*`)
  }
}

/** Told by whatever gives a kept answer: what is being made now rests on it. */
function restingOn(basis: Basis): void {
  scope().looks?.basis.on.add(basis)
}

function startLooking(count: number): Looks {
  const topics = new Set<string>()
  const restsOn = (topic: string) => topic === everything || topics.has(topic)
  return { topics, basis: { freshAt: count, isStale: false, isMade: false, restsOn, on: new Set() } }
}

/**
 * What `make` works out, kept under a name while nothing of what it read is written. Whoever asks
 * meanwhile waits for the same answer, and must not change it. A transaction is ahead of what everybody else
 * sees: it is given what is kept where that rests on nothing it has written itself, and keeps nothing.
 *
 * @param name of what is worked out, with anything besides the database that it depends on
 */
export async function kept<T>(name: string, make: () => Promise<T>): Promise<T> {
  if (ownTransaction()) {
    const known = memory().kept.get(name)
    return known && standsHere(known.basis) ? (known.value as Promise<T>) : make()
  }
  await lookAround()
  const now = memory()
  let entry = now.kept.get(name)
  if (!entry || isStale(entry.basis, now)) {
    const looks = startLooking(now.count)
    const fresh: Kept = { basis: looks.basis, value: within({ looks }, make) }
    fresh.value.then(
      () => (fresh.basis.isMade = true),
      () => now.kept.get(name) === fresh && now.kept.delete(name),
    )
    // Names with a day in them would pile up; what is thrown away is made anew.
    if (now.kept.size >= mostKept) now.kept.clear()
    now.kept.set(name, fresh)
    entry = fresh
  }
  const value = (await entry.value) as T
  restingOn(entry.basis)
  return value
}

const mostKept = 300
/** Names come with ids, and an id may come from anybody: what piles up is thrown away and made anew. */
const mostOfEach = 50_000

/**
 * The same for many things at once, each kept for itself: those that are not kept any more are made
 * together, so what each rests on has to be said.
 *
 * @param name of what is worked out of each
 * @param ids which are asked for
 * @param tables what it rests on: what these tables hold of each id
 * @param make works it out for some; what it leaves out has nothing there
 */
export async function keptEach<T>(
  name: string,
  ids: string[],
  tables: string[],
  make: (ids: string[]) => Promise<Map<string, T>>,
): Promise<Map<string, T>> {
  if (ownTransaction()) return ofEachHere(name, ids, tables, make)
  await lookAround()
  const now = memory()
  const each: Each = now.each.get(name) ?? { of: new Map(), seen: now.count, last: null }
  now.each.set(name, each)
  const { last } = each
  if (last && isSame(last.ids, ids) && !isStale(last.basis, now)) {
    restingOn(last.basis)
    return last.found as Map<string, T>
  }
  const basis = basisOf(ids, tables, now.count)
  restingOn(basis)
  const own = each.of
  dropTouched(each, tables, now)
  const wanted = ids.filter((id) => !own.has(id))
  if (wanted.length > 0) {
    const made = within({ looks: startLooking(now.count) }, () => make(wanted))
    for (const id of wanted) {
      const one: One = { coming: made.then((all) => all.get(id)) }
      one.coming.then(
        (value) => own.get(id) === one && own.set(id, { value }),
        () => own.get(id) === one && own.delete(id),
      )
      own.set(id, one)
    }
  }
  // Taken out before it is waited for: what is touched meanwhile is dropped from there.
  const taken = ids.map((id) => own.get(id)!)
  const found = new Map<string, T>()
  for (const [at, one] of taken.entries()) {
    const value = ('value' in one ? one.value : await one.coming) as T | undefined
    if (value !== undefined) found.set(ids[at]!, value)
  }
  basis.isMade = true
  each.last = { basis, ids, found }
  return found
}

/** The same inside a transaction: what it has not written itself is taken from what is kept. */
async function ofEachHere<T>(
  name: string,
  ids: string[],
  tables: string[],
  make: (ids: string[]) => Promise<Map<string, T>>,
): Promise<Map<string, T>> {
  const now = memory()
  const each = now.each.get(name)
  const { touches } = scope()
  if (!each || !touches) return make(ids)
  dropTouched(each, tables, now)
  const isOwn = basisOf(ids, tables, now.count).restsOn
  const written = new Set([...touches].filter(isOwn).map((topic) => topic.slice(topic.indexOf('/') + 1)))
  const taken = written.has(everything)
    ? []
    : ids.flatMap((id) => {
        const one = written.has(id) ? undefined : each.of.get(id)
        return one ? [{ id, one }] : []
      })
  const known = new Set(taken.map(({ id }) => id))
  const missing = ids.filter((id) => !known.has(id))
  const found = missing.length > 0 ? new Map(await make(missing)) : new Map<string, T>()
  for (const { id, one } of taken) {
    const value = ('value' in one ? one.value : await one.coming) as T | undefined
    if (value !== undefined) found.set(id, value)
  }
  return found
}

/** Whether something kept is also what the own transaction would find. */
function standsHere(basis: Basis): boolean {
  const { touches } = scope()
  if (!touches || isStale(basis, memory())) return false
  const written = [...touches]
  const isUntouched = (of: Basis): boolean => !written.some(of.restsOn) && [...of.on].every(isUntouched)
  return isUntouched(basis)
}

/** Resting on what some tables hold of some things. */
function basisOf(ids: string[], tables: string[], count: number): Basis {
  const own = new Set(ids)
  const restsOn = (topic: string) => {
    if (topic === everything) return true
    const slash = topic.indexOf('/')
    if (slash < 0 || !tables.includes(topic.slice(0, slash))) return false
    const id = topic.slice(slash + 1)
    return id === '*' || own.has(id)
  }
  return { freshAt: count, isStale: false, isMade: false, restsOn, on: new Set() }
}

/** Drops what is kept of things that were touched since it was last looked. */
function dropTouched(each: Each, tables: string[], now: Memory): void {
  const touched = touchedSince(each.seen, now)
  each.seen = now.count
  const isWhole = touched?.some(
    (topic) => topic === everything || tables.some((table) => topic === `${table}/*`),
  )
  if (touched === null || isWhole || each.of.size > mostOfEach) each.of.clear()
  else
    for (const topic of touched) {
      const slash = topic.indexOf('/')
      if (tables.includes(topic.slice(0, slash))) each.of.delete(topic.slice(slash + 1))
    }
}

function isSame(before: unknown[], now: unknown[]): boolean {
  return (
    before.length === now.length &&
    before.every((each, at) => Object.is(each, now[at]) || (isEmpty(each) && isEmpty(now[at])))
  )
}

// A Next server loads several copies of a module, each with a “none” of its own.
const isEmpty = (value: unknown) => Array.isArray(value) && value.length === 0

/** The value that was there before, where the new one says the same: what is derived of it then stands. */
export function same<T>(name: string, value: T): T {
  if (ownTransaction()) return value
  const all = (globals[sameKey] ??= new Map()) as Map<string, { words: string; value: unknown }>
  const words = JSON.stringify(value)
  const before = all.get(name)
  if (before?.words === words) return before.value as T
  if (all.size > mostOfEach) all.clear()
  all.set(name, { words, value })
  return value
}

/**
 * A list to whose end rows are added and of which none is ever changed or taken away: only what has come
 * since it was last read is read. A transaction is given its own rows too, and leaves nothing behind that
 * might be taken back.
 *
 * @param name of the list
 * @param later reads what comes after the last one known, or everything
 * @returns a list of the asker's own, of rows that must not be changed
 */
export async function grown<T>(name: string, later: (last: T | undefined) => Promise<T[]>): Promise<T[]> {
  const lists = memory().grown
  const known = (lists.get(name) ?? []) as T[]
  const list = [...known, ...(await later(known.at(-1)))]
  // Whoever read the same meanwhile may have read more.
  if (ownTransaction() || list.length <= (lists.get(name)?.length ?? 0)) return list
  lists.delete(name)
  lists.set(name, list)
  for (const oldest of lists.keys()) {
    if (lists.size <= mostGrown) break
    lists.delete(oldest)
  }
  return [...list]
}

/** So many lists are kept: of sheets, as many as may be worked on at once. */
const mostGrown = 20

type Derivation = { from: unknown[]; value: unknown }

/**
 * What follows from some values, made again only where one of them is another one than before. The values
 * are compared by identity, so that what is kept stays what it is made from.
 *
 * @param name of what is derived, with whatever it is of
 */
export function derived<T>(name: string, from: unknown[], make: () => T): T {
  const all = (globals[derivedKey] ??= new Map()) as Map<string, Derivation>
  const before = all.get(name)
  if (before && isSame(before.from, from)) return before.value as T
  const value = make()
  // What follows from rows that nobody else sees yet would only push out what everybody asks for.
  if (ownTransaction()) return value
  if (all.size > mostOfEach) all.clear()
  all.set(name, { from, value })
  return value
}

/** How long another process's writes may stay unseen, in milliseconds. */
const lookEvery = 250

/** Writes down what a transaction touched, inside it, so that other processes learn of it. */
export async function noteTouches(touches: Touches): Promise<number> {
  const [row] = await rowsOf<{ last: number | null }>('SELECT MAX(sequence) AS last FROM touches')
  const sequence = (row?.last ?? 0) + 1
  const topics = [...touches]
  for (let at = 0; at < topics.length; at += 200) {
    const some = topics.slice(at, at + 200)
    await runs(
      `INSERT INTO touches (topic, sequence) VALUES ${some.map(() => '(?, ?)').join(', ')}
       ON CONFLICT (topic) DO UPDATE SET sequence = excluded.sequence`,
      some.flatMap((topic) => [topic, sequence]),
    )
  }
  return sequence
}

/** After the commit and not before: what was begun on the old state goes with it. */
export function committed(touches: Touches, sequence: number): void {
  apply(touches)
  const now = memory()
  // Only where nobody else has written in between: else their notes are still to be read.
  if (now.sequence === sequence - 1) now.sequence = sequence
}

/**
 * Reads what other processes have written since it was last looked.
 *
 * @param atOnce at the start of a transaction, which nobody else writes beside
 */
export async function lookAround(atOnce = false): Promise<void> {
  const now = memory()
  if (!atOnce && Date.now() - now.lookedAt < lookEvery) return
  // Where nothing is kept nothing is out of date; before the first change of shape there is no such table either.
  if (atOnce && now.kept.size + now.each.size === 0) return
  if (atOnce) await now.looking
  now.looking ??= (async () => {
    const since = now.sequence
    const rows = await rowsOf<{ topic: string; sequence: number }>(
      since === null
        ? 'SELECT topic, sequence FROM touches ORDER BY sequence DESC LIMIT 1'
        : 'SELECT topic, sequence FROM touches WHERE sequence > ?',
      since === null ? [] : [since],
    )
    // What was kept before this was first asked rests on a database nobody else had written to yet.
    if (since !== null) apply(rows.map(({ topic }) => topic))
    now.sequence = Math.max(since ?? 0, ...rows.map(({ sequence }) => sequence))
    now.lookedAt = Date.now()
  })().finally(() => {
    now.looking = null
  })
  return now.looking
}
