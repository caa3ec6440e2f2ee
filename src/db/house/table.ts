import 'server-only'
import {
  DataTypes,
  Op,
  QueryTypes,
  type ModelAttributes,
  type ModelStatic,
  type Model,
  type WhereOptions,
} from 'sequelize'
import type { Column } from './columns'
import { database } from './connection'
import { kept, keptEach, looked, touch } from './memory'

/**
 * One table as plain rows in and out. Sequelize does the SQL; JSON columns are text in the database and
 * values outside, and rows that are edited carry a version.
 */
export type Table<Row extends { id: string }> = {
  model: () => ModelStatic<Model>
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
  const model = () => {
    const sequelize = database()
    if (!sequelize.isDefined(name)) {
      sequelize.define(name, ownCopy(columns), { tableName: name, timestamps: false })
    }
    return sequelize.model(name)
  }
  const pack = (row: Partial<Row>) => {
    const packed: Record<string, unknown> = { ...row }
    for (const column of jsonColumns) {
      if (column in packed) packed[column] = packed[column] == null ? null : JSON.stringify(packed[column])
    }
    return packed
  }
  const unpack = (row: unknown): Row => {
    const unpacked = { ...(row as Record<string, unknown>) }
    for (const column of jsonColumns) {
      const value = unpacked[column]
      unpacked[column] = typeof value === 'string' ? (JSON.parse(value) as unknown) : null
    }
    return unpacked as Row
  }
  /** What rows are about; null where the table does not say. */
  const subjects = (rows: Partial<Row>[]): string[] | null =>
    of === null ? null : [...new Set(rows.map((row) => String(row[of as keyof Row])))]
  const subjectsWhere = async (where: WhereOptions): Promise<string[] | null> => {
    if (of === null) return null
    const named = (where as Record<string, unknown>)[of]
    if (typeof named === 'string') return [named]
    const rows = await model().findAll({ where, attributes: [of], group: [of], raw: true })
    return subjects(rows as unknown as Partial<Row>[])
  }
  /** The topics that a reading looks at: what the table holds of what is named, or all of it. */
  const look = (where: WhereOptions) => {
    const named = of === null ? undefined : (where as Record<string, unknown>)[of]
    const ids = typeof named === 'string' ? [named] : Array.isArray(named) ? named : null
    looked(ids ? ids.map((each) => `${name}/${String(each)}`) : [name])
  }
  const all: Table<Row>['all'] = async (where = {}, order = [], limit) => {
    look(where)
    return isPossible(where) ? (await model().findAll({ where, order, limit, raw: true })).map(unpack) : []
  }

  /**
   * The whole table in portions of one text each, which SQLite writes beside the thread that answers: a
   * row at a time would make an object with named values there for every row.
   */
  const whole = async (): Promise<Row[]> => {
    looked([name])
    const names = Object.keys(columns)
    const rows: Row[] = []
    for (let after = 0; ;) {
      const [portion] = await database().query<{ rows: string; last: number | null }>(
        `SELECT json_group_array(json_array(${names.map((each) => asText(each, columns[each]!)).join(', ')})) AS rows,
                MAX(rowid) AS last
         FROM (SELECT rowid, * FROM "${name}" WHERE rowid > :after ORDER BY rowid LIMIT ${inPortion})`,
        { type: QueryTypes.SELECT, replacements: { after } },
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
    model,
    insert: async (row) => {
      await model().create(pack(row) as never)
      touch(name, subjects([row]))
    },
    insertMany: async (rows) => {
      if (rows.length === 0) return
      await model().bulkCreate(rows.map((row) => pack(row)) as never[])
      touch(name, subjects(rows))
    },
    find: async (where) => {
      look(where)
      const row = isPossible(where) ? await model().findOne({ where, raw: true }) : null
      return row ? unpack(row) : null
    },
    byId: async (id) => {
      look({ id })
      const row = isPossible({ id }) ? await model().findOne({ where: { id }, raw: true }) : null
      return row ? unpack(row) : null
    },
    all,
    idsOf: async (where = {}, order = [], limit) => {
      look(where)
      if (!isPossible(where)) return []
      const found = await model().findAll({ where, order, limit, attributes: ['id'], raw: true })
      return (found as unknown as { id: string }[]).map((row) => row.id)
    },
    count: (where = {}) => {
      look(where)
      return model().count({ where })
    },
    update: async (where, values) => {
      const about = await subjectsWhere(where)
      const [count] = await model().update(pack(values), { where })
      if (count > 0)
        touch(name, about && of !== null && of in values ? [...about, ...subjects([values])!] : about)
      return count
    },
    remove: async (where) => {
      const about = await subjectsWhere(where)
      const count = await model().destroy({ where })
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

// Sequelize writes into the attributes it is given; each model gets its own copy.
function ownCopy(columns: Columns): ModelAttributes {
  return Object.fromEntries(
    Object.entries(columns).map(([name, { isJson: _isJson, ...column }]) => [name, { ...column }]),
  ) as ModelAttributes
}

/**
 * Rows of a plain SQL query, with named parameters.
 * @param topics what it reads: tables, or what a table holds of one thing
 */
export function select<Row extends object>(
  topics: string[],
  sql: string,
  replacements: Record<string, unknown> = {},
): Promise<Row[]> {
  looked(topics)
  return database().query<Row>(sql, { type: QueryTypes.SELECT, replacements })
}

export { Op }
