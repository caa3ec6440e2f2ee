import 'server-only'
import { AsyncLocalStorage } from 'node:async_hooks'
import { mkdirSync } from 'node:fs'
import path from 'node:path'
import { Sequelize, Transaction } from 'sequelize'

/**
 * The one connection of the process. A Next server loads a copy of this module for pages, for route
 * handlers and for start-up, so what must exist once lives on `globalThis`.
 */
type Shared = {
  sequelize: Sequelize
  folder: string
  /** Settles when the newest queued write has ended, well or badly. */
  lastWrite: Promise<unknown>
  /** What was worked out from the database as it stands; thrown away with every write. */
  kept: Map<string, { key: string; value: Promise<unknown> }>
}

const key = Symbol.for('atelier.database')
const clsKey = Symbol.for('atelier.database.cls')
const globals = globalThis as unknown as Record<symbol, unknown>

/** Queries inside `write()` find their transaction here, so that each of them joins it. */
function transactionScope(): AsyncLocalStorage<Map<string, unknown>> {
  if (!globals[clsKey]) {
    const scope = new AsyncLocalStorage<Map<string, unknown>>()
    globals[clsKey] = scope
    // eslint-disable-next-line react-hooks/rules-of-hooks -- Sequelize's name for it, not a hook
    Sequelize.useCLS({
      bind: () => undefined,
      get: (name: string) => scope.getStore()?.get(name),
      set: (name: string, value: unknown) => scope.getStore()?.set(name, value),
      run: (callback: (context: unknown) => unknown) =>
        scope.run(new Map(scope.getStore()), () => callback(scope.getStore())),
    } as never)
  }
  return globals[clsKey] as AsyncLocalStorage<Map<string, unknown>>
}

/** The folder that holds a company's database and its photos. */
export function dataFolder(): string {
  return path.resolve(/* turbopackIgnore: true */ process.env.ATELIER_DATA ?? './data')
}

export function databaseFile(): string {
  return path.join(dataFolder(), 'atelier.sqlite')
}

/** The open database, opened on first use. */
export function database(): Sequelize {
  return shared().sequelize
}

function shared(): Shared {
  const open = globals[key] as Shared | undefined
  if (open) return open
  transactionScope()
  const folder = dataFolder()
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: databaseFile(),
    logging: false,
    pool: { max: 5 },
  })
  const fresh: Shared = { sequelize, folder, lastWrite: Promise.resolve(), kept: new Map() }
  globals[key] = fresh
  return fresh
}

/** Closes the database; the next use opens it again. For scripts and tests. */
export async function closeDatabase(): Promise<void> {
  const open = globals[key] as Shared | undefined
  if (!open) return
  await open.lastWrite.catch(() => undefined)
  delete globals[key]
  await open.sequelize.close()
}

/**
 * Runs one use case's writes in one transaction: all of them are kept, or none.
 *
 * SQLite has a single writer. Transactions that begin side by side fail as busy, so they are queued
 * here and begin one after another; `immediate` takes the write lock at once, before anything is read.
 * A `write()` inside another joins it.
 */
export function write<T>(work: () => Promise<T>): Promise<T> {
  const open = shared()
  const scope = transactionScope()
  if (scope.getStore()?.get('transaction')) return work()
  const run = () =>
    open.sequelize
      .transaction({ type: Transaction.TYPES.IMMEDIATE }, () => work())
      // After the commit and not before: what was begun on the old state goes with it.
      .finally(() => open.kept.clear())
  const result = open.lastWrite.then(run, run)
  open.lastWrite = result.catch(() => undefined)
  return result
}

/**
 * Runs a part of a write that alone may fail: what it wrote is undone and the write goes on.
 * Called inside `write()`.
 */
export function attempt<T>(work: () => Promise<T>): Promise<T> {
  const transaction = transactionScope().getStore()?.get('transaction') as Transaction | undefined
  if (!transaction) throw new Error('attempt() belongs inside write().')
  return shared().sequelize.transaction({ transaction }, () => work())
}

/**
 * Works something out from the database, or answers with what was worked out before if nothing has been
 * written since. Whoever asks meanwhile waits for the same answer, and must not change it.
 *
 * @param name of what is worked out
 * @param key anything besides the database that it depends on, such as the day
 */
export function kept<T>(name: string, key: string, make: () => Promise<T>): Promise<T> {
  // Inside a transaction the database is already ahead of what everybody else sees.
  if (transactionScope().getStore()?.get('transaction')) return make()
  const { kept: known } = shared()
  const before = known.get(name)
  if (before?.key === key) return before.value as Promise<T>
  const value = make()
  known.set(name, { key, value })
  value.catch(() => known.get(name)?.value === value && known.delete(name))
  return value
}
