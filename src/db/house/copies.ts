import 'server-only'
import { QueryTypes, Sequelize } from 'sequelize'
import { database, databaseFile } from './connection'
import { migrations } from '../migrations'

/**
 * Writes a consistent copy of the company's database, with everything its log still holds, to a new file.
 * It reads over a connection of its own: over the open one every page would wait until it is done.
 */
export async function copyTo(file: string): Promise<void> {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: databaseFile(), logging: false })
  try {
    await sequelize.query('VACUUM INTO :file', { replacements: { file } })
  } finally {
    await sequelize.close()
  }
}

/** The changes of shape that this version knows. */
export const knownShape = () => migrations.map(({ name }) => name)

/** The changes of shape that the open database has been through. */
export function shapeOf(): Promise<string[]> {
  return shapeIn(database())
}

async function shapeIn(sequelize: Sequelize): Promise<string[]> {
  const rows = await sequelize.query<{ name: string }>('SELECT name FROM migrations ORDER BY name', {
    type: QueryTypes.SELECT,
  })
  return rows.map(({ name }) => name)
}

/**
 * Looks into a database file that is not the open one.
 * @returns what is wrong with it in SQLite's words (blank where it is sound), its shape, and the files
 *   beside it that its rows name
 */
export async function inspectDatabase(
  file: string,
): Promise<{ fault: string; shape: string[]; files: string[] }> {
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: file, logging: false })
  const select = <Row extends object>(sql: string) => sequelize.query<Row>(sql, { type: QueryTypes.SELECT })
  try {
    const checked = await select<{ integrity_check: string }>('PRAGMA integrity_check')
    const said = checked.map((row) => row.integrity_check).join('; ')
    if (said !== 'ok') return { fault: said, shape: [], files: [] }
    const dangling = await select<{ table: string }>('PRAGMA foreign_key_check')
    if (dangling[0]) return { fault: `rows of ${dangling[0].table} lead nowhere`, shape: [], files: [] }
    const shape = await shapeIn(sequelize)
    const ids = (table: string) => select<{ id: string }>(`SELECT id FROM ${table}`)
    const [photos, documents] = await Promise.all([ids('sheet_photos'), ids('documents')])
    return {
      fault: '',
      shape,
      files: [...photos.map(({ id }) => `photos/${id}`), ...documents.map(({ id }) => `documents/${id}`)],
    }
  } catch (error) {
    return { fault: error instanceof Error ? error.message : String(error), shape: [], files: [] }
  } finally {
    await sequelize.close()
  }
}
