import 'server-only'
import type { Transaction, WhereOptions } from 'sequelize'
import { database, ownTransaction } from './connection'

/**
 * Statements given to the driver as they are. Sequelize writes the SQL of conditions and of everything else;
 * by its own way each reading would first ask SQLite for the types of the table's columns, which only rows that
 * become models need, and each row that is written would become one. That was half of the time of both.
 */
export type Driver = {
  all: (sql: string, values: unknown, done: (error: DriverError | null, rows: never[]) => void) => void
  run: (
    sql: string,
    values: unknown,
    done: (this: { changes: number }, error: DriverError | null) => void,
  ) => void
  serialize: (work: () => void) => void
}
type DriverError = Error & { code?: string }

export type Value = string | number | null
/** By place (`?`), or by name (`:name`). */
export type Values = Value[] | Record<string, Value>

/** A transaction, with what Sequelize's types leave out. */
export type Begun = Transaction & { connection?: Driver; finished?: 'commit' | 'rollback' }

async function driver(): Promise<Driver> {
  const transaction = ownTransaction() as Begun | undefined
  if (transaction?.finished) throw new Error(`The transaction has ended: ${transaction.finished}.`)
  if (transaction?.connection) return transaction.connection
  return (await database().connectionManager.getConnection({ type: 'read' } as never)) as Driver
}

/** The rows of a query. */
export async function rowsOf<Row extends object>(sql: string, values: Values = []): Promise<Row[]> {
  const connection = await driver()
  return again(
    () =>
      new Promise((resolve, reject) => {
        const ask = () =>
          connection.all(sql, named(values), (error, rows) =>
            error ? reject(told(error, sql)) : resolve(rows as Row[]),
          )
        // Inside a transaction a reading sees what was asked to be written before it.
        if (ownTransaction()) connection.serialize(ask)
        else ask()
      }),
  )
}

/** Runs a statement that writes, after whatever this connection was given before it; says how many rows it touched. */
export async function runs(sql: string, values: Values = []): Promise<number> {
  return runOn(await driver(), sql, values)
}

/** The same on a connection that is named. */
export function runOn(connection: Driver, sql: string, values: Values = []): Promise<number> {
  return again(
    () =>
      new Promise((resolve, reject) =>
        connection.serialize(() =>
          connection.run(sql, named(values), function (error) {
            if (error) reject(told(error, sql))
            else resolve(this.changes)
          }),
        ),
      ),
  )
}

/** SQLite waits a second for another connection by itself; outside of transactions it is asked so often. */
const mostTries = 5

async function again<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1)
    try {
      return await work()
    } catch (error) {
      if ((error as DriverError).code !== 'SQLITE_BUSY' || tries === mostTries || ownTransaction())
        throw error
    }
}

/** The driver's errors come from nowhere: this one tells who asked, and what. */
function told({ message, code }: DriverError, sql: string): DriverError {
  return Object.assign(new Error(`${message} (${sql.replace(/\s+/g, ' ').slice(0, 120)} …)`), { code })
}

const named = (values: Values) =>
  Array.isArray(values)
    ? values
    : Object.fromEntries(Object.entries(values).map(([name, value]) => [`:${name}`, value]))

type Generator = { whereQuery: (where: WhereOptions) => string }

/** What writes the SQL of conditions: it has no types of its own. */
export const generator = () => database().getQueryInterface().queryGenerator as Generator
