import 'server-only'
import { mkdirSync } from 'node:fs'
import path from 'node:path'
import { Sequelize, type Transaction } from 'sequelize'
import { scope } from './scope'

/**
 * The one connection of the process. A Next server loads a copy of this module for pages, for route
 * handlers and for start-up, so what must exist once lives on `globalThis`.
 */
export type Shared = {
  sequelize: Sequelize
  folder: string
  /** Settles when the newest queued write has ended, well or badly. */
  lastWrite: Promise<unknown>
}

const key = Symbol.for('atelier.database')
const globals = globalThis as unknown as Record<symbol, unknown>

/** What goes through Sequelize inside `write()`, such as a change of shape, finds its transaction here. */
function joinTransactions(): void {
  const begun = () => {
    throw new Error('A transaction is begun by write().')
  }
  // eslint-disable-next-line react-hooks/rules-of-hooks -- Sequelize's name for it, not a hook
  Sequelize.useCLS({
    bind: () => undefined,
    get: (name: string) => (name === 'transaction' ? scope().transaction : undefined),
    set: begun,
    run: begun,
  } as never)
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

export function shared(): Shared {
  const open = globals[key] as Shared | undefined
  if (open) return open
  joinTransactions()
  const folder = dataFolder()
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: databaseFile(),
    logging: false,
    pool: { max: 5 },
  })
  keepConnections(sequelize)
  const fresh: Shared = { sequelize, folder, lastWrite: Promise.resolve() }
  globals[key] = fresh
  return fresh
}

/** A connection of the driver's. */
type Connection = { run: (sql: string) => void; close: (done: () => void) => void }
type ConnectionManager = {
  connections: Record<string, Connection>
  getConnection: (options?: { uuid?: string }) => Promise<Connection>
  releaseConnection: (connection: Connection) => void
}

/**
 * One connection reads and one writes, for as long as the database is open. Sequelize would open another
 * file connection for each transaction, which reads the whole shape of the database before its first
 * statement; `write()` runs one transaction at a time, so that one is enough.
 */
function keepConnections(sequelize: Sequelize): void {
  const manager = sequelize.connectionManager as unknown as ConnectionManager
  const open = manager.getConnection.bind(manager)
  manager.getConnection = async (options = {}) => {
    const uuid = options.uuid ? 'writer' : 'default'
    const fresh = manager.connections[uuid] === undefined
    const connection = await open({ ...options, uuid })
    // For what can be made again after a power cut: demo data, and the databases of tests.
    if (fresh && process.env.ATELIER_UNFLUSHED === '1') connection.run('PRAGMA synchronous=OFF')
    return connection
  }
  manager.releaseConnection = () => undefined
}

/** After a commit or a roll-back that failed nobody knows what the writer is in: the next write opens another. */
export async function dropWriter({ sequelize }: Shared): Promise<void> {
  const { connections } = sequelize.connectionManager as unknown as ConnectionManager
  const { writer } = connections
  delete connections.writer
  if (writer) await new Promise<void>((done) => writer.close(() => done()))
}

/** The transaction that the running code is in, if any. */
export function ownTransaction(): Transaction | undefined {
  return scope().transaction
}

/** The database's connection, if it is open; it is closed to whoever asks next. */
export function takeOpen(): Shared | undefined {
  const open = globals[key] as Shared | undefined
  delete globals[key]
  return open
}
