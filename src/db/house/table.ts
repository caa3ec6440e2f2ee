import 'server-only'
import { DataTypes, Op, type WhereOptions } from 'sequelize'
import type { Column } from './columns'
import { kept, keptEach, looked, touch } from './memory'
import { generator, rowsOf, runs, type Value } from './statements'

/**
 * One table as plain rows in and out. Sequelize writes the SQL of conditions; JSON columns are text in the database and
 * values outside, and rows that are edited carry a version.
 */
export type Table<Row extends { id: string }> = {
  insert: (row: Row) => Promise<void>
  insertMany: (rows: Row[]) => Promise<void>
  find: (where: WhereOptions) => Promise<Row | null>
  byId: (id: string) => Promise<Row | null>
  all: (where?: WhereOptions, order?: [string, 'ASC' | 'DESC'][], limit?: number) => Promise<Row[]>
  /** The ids alone of the rows that `all` would read. */
  idsOf: (where?: WhereOptions, order?: [string, 'ASC' | 'DESC'][], limit?: number) => Promise<string[]>
  count: (where?: WhereOptions) => Promise<number>
  /** Writes the named columns of the rows that match; says how many rows that were. */
  update: (where: WhereOptions, values: Partial<Row>) => Promise<number>
  remove: (where: WhereOptions) => Promise<number>
  /** Every row, kept while none of the table is written; in no order, and not to be changed. */
  every: () => Promise<Row[]>
  /** The rows of some of what the table is about, each kept while none of its own is written. */
  everyOf: (ids: string[]) => Promise<Map<string, Row[]>>
}

/** What of which rows is asked for, in which order. */
type Question = {
  columns?: string[]
  where?: WhereOptions
  order?: [string, 'ASC' | 'DESC'][]
  limit?: number
}

type Columns = { id: Column<string> } & Record<string, Column<unknown>>
type Held<Each> = Each extends Column<infer Value> ? Value : never
type Holds<All> = { -readonly [Name in keyof All]: Held<All[Name]> }

/** What a row of a table holds: the type follows from its columns. */
export type RowOf<Of> = Of extends Table<infer Row> ? Row : never

/**
 * @param of the column that says what a row is about, such as its meter: a write then touches what the
 *   table holds of that alone, and not the whole of it
 */
export function table<All extends Columns>(
  name: string,
  columns: All,
  of: (keyof All & string) | null = null,
): Table<Holds<All>> {
  type Row = Holds<All>
  const jsonColumns = Object.keys(columns).filter((column) => columns[column]!.isJson)
  const names = Object.keys(columns)
  const quoted = names.map((column) => `"${column}"`)
  /**
   * A value as it stands in its column.
   * @throws where it is none that the column holds: SQLite itself would keep anything anywhere
   */
  const packed = (column: string, value: unknown): Value => {
    const { isJson, type } = columns[column]!
    if (value === null || value === undefined) return null
    if (isJson) return JSON.stringify(value)
    const isNumber = type === DataTypes.INTEGER || type === DataTypes.DOUBLE
    if (isNumber ? typeof value === 'number' : typeof value === 'string') return value as Value
    throw new Error(`${name}.${column} cannot hold ${JSON.stringify(value)}.`)
  }
  const unpack = (row: unknown): Row => {
    const unpacked = { ...(row as Record<string, unknown>) }
    for (const column of jsonColumns) {
      const value = unpacked[column]
      unpacked[column] = typeof value === 'string' ? (JSON.parse(value) as unknown) : null
    }
    return unpacked as Row
  }
  const found = ({ columns: some = quoted, where = {}, order = [], limit }: Question) => {
    const inOrder = order.map(([column, way]) => `"${column}" ${way}`).join(', ')
    return rowsOf<Row>(
      [
        `SELECT ${some.join(', ')} FROM "${name}" ${whereOf(where)}`,
        inOrder && `ORDER BY ${inOrder}`,
        limit === undefined ? '' : `LIMIT ${limit}`,
      ].join(' '),
    )
  }
  const inserted = async (rows: Row[]) => {
    const places = `(${names.map(() => '?').join(', ')})`
    const atOnce = Math.floor(mostValues / names.length)
    for (let at = 0; at < rows.length; at += atOnce) {
      const some = rows.slice(at, at + atOnce)
      await runs(
        `INSERT INTO "${name}" (${quoted.join(', ')}) VALUES ${some.map(() => places).join(', ')}`,
        some.flatMap((row) => names.map((column) => packed(column, row[column as keyof Row]))),
      )
    }
    touch(name, subjects(rows))
  }
  const whereOf = (where: WhereOptions) => generator().whereQuery(where)
  /** What rows are about; null where the table does not say. */
  const subjects = (rows: Partial<Row>[]): string[] | null =>
    of === null ? null : [...new Set(rows.map((row) => String(row[of as keyof Row])))]
  const subjectsWhere = async (where: WhereOptions): Promise<string[] | null> => {
    if (of === null) return null
    const named = (where as Record<string, unknown>)[of]
    if (typeof named === 'string') return [named]
    return subjects(await found({ columns: [`DISTINCT "${of}"`], where }))
  }
  /** The topics that a reading looks at: what the table holds of what is named, or all of it. */
  const look = (where: WhereOptions) => {
    const named = of === null ? undefined : (where as Record<string, unknown>)[of]
    const ids = typeof named === 'string' ? [named] : Array.isArray(named) ? named : null
    looked(ids ? ids.map((each) => `${name}/${String(each)}`) : [name])
  }
  const all: Table<Row>['all'] = async (where = {}, order = [], limit) => {
    look(where)
    return isPossible(where) ? (await found({ where, order, limit })).map(unpack) : []
  }

  /**
   * The whole table in portions of one text each, which SQLite writes beside the thread that answers: a
   * row at a time would make an object with named values there for every row.
   */
  const whole = async (): Promise<Row[]> => {
    looked([name])
    const rows: Row[] = []
    for (let after = 0; ;) {
      const [portion] = await rowsOf<{ rows: string; last: number | null }>(
        `SELECT json_group_array(json_array(${names.map((each) => asText(each, columns[each]!)).join(', ')})) AS rows,
                MAX(rowid) AS last
         FROM (SELECT rowid, * FROM "${name}" WHERE rowid > :after ORDER BY rowid LIMIT ${inPortion})`,
        { after },
      )
      if (portion!.last === null) return rows
      after = portion!.last
      for (const values of JSON.parse(portion!.rows) as unknown[][]) {
        const row: Record<string, unknown> = {}
        for (const [at, each] of names.entries())
          row[each] = isReal(columns[each]!) && values[at] !== null ? Number(values[at]) : values[at]
        rows.push(unpack(row))
      }
    }
  }

  return {
    insert: (row) => inserted([row]),
    insertMany: async (rows) => {
      if (rows.length > 0) await inserted(rows)
    },
    find: async (where) => {
      look(where)
      const [row] = isPossible(where) ? await found({ where, limit: 1 }) : []
      return row ? unpack(row) : null
    },
    byId: async (id) => {
      look({ id })
      const [row] = isPossible({ id }) ? await found({ where: { id } }) : []
      return row ? unpack(row) : null
    },
    all,
    idsOf: async (where = {}, order = [], limit) => {
      look(where)
      if (!isPossible(where)) return []
      return (await found({ columns: ['"id"'], where, order, limit })).map((row) => row.id)
    },
    count: async (where = {}) => {
      look(where)
      if (!isPossible(where)) return 0
      const [counted] = await rowsOf<{ count: number }>(
        `SELECT COUNT(*) AS count FROM "${name}" ${whereOf(where)}`,
      )
      return counted!.count
    },
    update: async (where, values) => {
      const about = await subjectsWhere(where)
      const set = names.filter((column) => column in values)
      if (set.length === 0) return 0
      const count = await runs(
        `UPDATE "${name}" SET ${set.map((column) => `"${column}" = ?`).join(', ')} ${whereOf(where)}`,
        set.map((column) => packed(column, values[column as keyof Row])),
      )
      if (count > 0)
        touch(name, about && of !== null && of in values ? [...about, ...subjects([values])!] : about)
      return count
    },
    remove: async (where) => {
      const about = await subjectsWhere(where)
      const count = await runs(`DELETE FROM "${name}" ${whereOf(where)}`)
      if (count > 0) touch(name, about)
      return count
    },
    every: () => kept(`every ${name}`, whole),
    everyOf: async (ids) => {
      if (of === null) throw new Error(`The table ${name} is not kept by what its rows are about.`)
      const found = await keptEach(`of ${name}`, ids, [name], async (some) => {
        const rows = some.length > mostNamed ? await whole() : await all({ [of]: some } as WhereOptions)
        const byOne = new Map<string, Row[]>(some.map((id) => [id, []]))
        for (const row of rows) byOne.get(String(row[of as keyof Row]))?.push(row)
        return byOne
      })
      return found
    },
  }
}

/** Beyond so many the whole table is read: SQLite takes only so many values in one statement. */
const mostNamed = 400

/** So many values one statement takes at most, well below SQLite's own limit. */
const mostValues = 10_000

/** Rows in one portion of a whole table. */
const inPortion = 4000

const isReal = (column: Column<unknown>) => column.type === DataTypes.DOUBLE

/** A column in JSON. SQLite writes a real number there with fifteen digits, so it goes as a text with all of them. */
const asText = (name: string, column: Column<unknown>) =>
  isReal(column) ? `iif("${name}" IS NULL, NULL, printf('%!.17g', "${name}"))` : `"${name}"`

/** A text with a NUL in it can stand in no column, and SQLite would end the statement there. */
function isPossible(where: WhereOptions): boolean {
  return !Object.values(where).some((value) => typeof value === 'string' && value.includes('\0'))
}

/**
 * Rows of a plain SQL query, with named values; a list of them stands for each of its values.
 * @param topics what it reads: tables, or what a table holds of one thing
 */
export function select<Row extends object>(
  topics: string[],
  sql: string,
  values: Record<string, Value | string[] | undefined> = {},
): Promise<Row[]> {
  looked(topics)
  const single: Record<string, Value> = {}
  const spread = sql.replace(/:([a-z]\w*)/gi, (place, name: string) => {
    const value = values[name]
    if (value === undefined) return place
    if (!Array.isArray(value)) {
      single[name] = value
      return place
    }
    value.forEach((each, at) => (single[`${name}${at}`] = each))
    return value.map((_, at) => `:${name}${at}`).join(', ')
  })
  return rowsOf<Row>(spread, single)
}

export { Op }
