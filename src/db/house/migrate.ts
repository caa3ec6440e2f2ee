import 'server-only'
import { chmodSync, copyFileSync, readdirSync, rmSync } from 'node:fs'
import path from 'node:path'
import { QueryTypes, type QueryInterface } from 'sequelize'
import { SequelizeStorage, Umzug, type RunnableMigration } from 'umzug'
import { database, databaseFile } from './connection'
import { forget, touchEverything } from './memory'
import { write } from './writer'
import { migrations } from '../migrations'

const copiesKept = 5

/** A change of shape that failed: the file is as it was before, and a copy of it lies beside it. */
export class MigrationFailed extends Error {
  constructor(
    readonly migration: string,
    readonly copy: string | null,
    cause: unknown,
  ) {
    const why = cause instanceof Error ? cause.message : String(cause)
    const back = copy
      ? ` A copy from before lies at ${copy}. The way back: start the version of Atelier that ran before; should it not start either, remove ${path.basename(databaseFile())}, ${path.basename(databaseFile())}-wal and ${path.basename(databaseFile())}-shm, put the copy in their place under the name ${path.basename(databaseFile())}, and start again.`
      : ''
    super(
      `the database could not be brought to this version’s shape (${migration}: ${why}). Nothing of it was changed.${back}`,
    )
  }
}

function umzug() {
  const sequelize = database()
  const storage = new SequelizeStorage({ sequelize, tableName: 'migrations' })
  return new Umzug({
    migrations: migrations.map((migration) => inOneTransaction(migration, storage)),
    context: sequelize.getQueryInterface(),
    // A migration is noted as done inside its own transaction; umzug's own note would come after it.
    storage: {
      logMigration: async () => undefined,
      unlogMigration: (params) => storage.unlogMigration(params),
      executed: () => storage.executed(),
    },
    logger: undefined,
  })
}

/** What a migration does, and that it was done, are kept together or not at all, wherever it is cut off. */
function inOneTransaction(
  migration: RunnableMigration<QueryInterface>,
  storage: SequelizeStorage,
): RunnableMigration<QueryInterface> {
  return {
    ...migration,
    up: (params) =>
      write(async () => {
        await migration.up(params)
        await storage.logMigration({ name: migration.name })
      }),
  }
}

/**
 * Brings the database to this version's shape, after copying the file where there is something to lose.
 * @returns the names of the migrations that ran, and the copy that was made
 * @throws `MigrationFailed`; the copy is then untouched beside the database, and so are the earlier ones
 */
export async function migrate(): Promise<{ ran: string[]; copy: string | null }> {
  const sequelize = database()
  await sequelize.query('PRAGMA journal_mode = WAL')
  // What lies beside it gets the same: it is the owner's alone.
  chmodSync(databaseFile(), 0o600)
  const migrator = umzug()
  const pending = await migrator.pending()
  if (pending.length === 0) return { ran: [], copy: null }
  const executed = await migrator.executed()
  const first = pending[0]!.name
  const copy = executed.length > 0 ? await copyDatabase(first) : null
  try {
    const ran = await migrator.up()
    forget()
    if (await sequelize.getQueryInterface().tableExists('touches')) await write(async () => touchEverything())
    for (const name of copies().slice(0, -copiesKept)) dropCopy(name)
    return { ran: ran.map((migration) => migration.name), copy }
  } catch (error) {
    // A start that fails again and again must neither fill the disk nor push out the first good copy.
    for (const name of copies(first).slice(1, -1)) dropCopy(name)
    const failed = await firstPending(migrator)
    throw new MigrationFailed(failed ?? first, copy, (error as { cause?: unknown }).cause ?? error)
  }
}

async function firstPending(migrator: ReturnType<typeof umzug>): Promise<string | null> {
  const [next] = await migrator.pending().catch(() => [])
  return next?.name ?? null
}

/** Copies the database file beside itself, with everything the write-ahead log still held. */
async function copyDatabase(before: string): Promise<string> {
  const file = databaseFile()
  await database().query('PRAGMA wal_checkpoint(TRUNCATE)')
  const stamp = new Date().toISOString().replace(/[:.]/g, '-')
  const copy = `${file}.before-${stamp}-${before}`
  copyFileSync(file, copy)
  return copy
}

/** The copies beside the database, oldest first; of one migration or of all. */
function copies(before = ''): string[] {
  const start = `${path.basename(databaseFile())}.before-`
  return readdirSync(path.dirname(databaseFile()))
    .filter((name) => name.startsWith(start) && name.endsWith(before))
    .sort()
}

function dropCopy(name: string): void {
  rmSync(path.join(path.dirname(databaseFile()), name))
}

/** Says whether the file is sound, in SQLite's own words: `ok`, or what is wrong with it. */
export async function checkDatabase(): Promise<string> {
  const rows = await database().query<{ integrity_check: string }>('PRAGMA integrity_check', {
    type: QueryTypes.SELECT,
  })
  return rows.map((row) => row.integrity_check).join('; ')
}
