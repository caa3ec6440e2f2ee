import 'server-only'
import { copyFileSync, readdirSync, rmSync } from 'node:fs'
import path from 'node:path'
import { QueryTypes } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { database, databaseFile } from './connection'
import { migrations } from './migrations'

const copiesKept = 5

function umzug() {
  const sequelize = database()
  return new Umzug({
    migrations,
    context: sequelize.getQueryInterface(),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  })
}

/**
 * Brings the database to this version's shape, after copying the file where there is something to lose.
 * @returns the names of the migrations that ran, and the copy that was made
 * @throws the migration's own error; the copy is then untouched beside the database
 */
export async function migrate(): Promise<{ ran: string[]; copy: string | null }> {
  const sequelize = database()
  await sequelize.query('PRAGMA journal_mode = WAL')
  const migrator = umzug()
  const pending = await migrator.pending()
  if (pending.length === 0) return { ran: [], copy: null }
  const executed = await migrator.executed()
  const copy = executed.length > 0 ? await copyDatabase() : null
  const ran = await migrator.up()
  return { ran: ran.map((migration) => migration.name), copy }
}

/** Copies the database file beside itself, with everything the write-ahead log still held. */
async function copyDatabase(): Promise<string> {
  const file = databaseFile()
  await database().query('PRAGMA wal_checkpoint(TRUNCATE)')
  const stamp = new Date().toISOString().replace(/[:.]/g, '-')
  const copy = `${file}.before-${stamp}`
  copyFileSync(file, copy)
  const folder = path.dirname(file)
  const copies = readdirSync(folder)
    .filter((name) => name.startsWith(`${path.basename(file)}.before-`))
    .sort()
  for (const name of copies.slice(0, -copiesKept)) rmSync(path.join(folder, name))
  return copy
}

/** Says whether the file is sound, in SQLite's own words: `ok`, or what is wrong with it. */
export async function checkDatabase(): Promise<string> {
  const rows = await database().query<{ integrity_check: string }>('PRAGMA integrity_check', {
    type: QueryTypes.SELECT,
  })
  return rows.map((row) => row.integrity_check).join('; ')
}
