import 'server-only'
import {
  Op,
  QueryTypes,
  type ModelAttributes,
  type ModelStatic,
  type Model,
  type WhereOptions,
} from 'sequelize'
import type { Column } from './columns'
import { database } from './connection'

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
  count: (where?: WhereOptions) => Promise<number>
  /** Writes the named columns of the rows that match; says how many rows that were. */
  update: (where: WhereOptions, values: Partial<Row>) => Promise<number>
  remove: (where: WhereOptions) => Promise<number>
}

type Columns = { id: Column<string> } & Record<string, Column<unknown>>
type Held<Each> = Each extends Column<infer Value> ? Value : never
type Holds<All> = { -readonly [Name in keyof All]: Held<All[Name]> }

/** What a row of a table holds: the type follows from its columns. */
export type RowOf<Of> = Of extends Table<infer Row> ? Row : never

export function table<All extends Columns>(name: string, columns: All): Table<Holds<All>> {
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
  const all: Table<Row>['all'] = async (where = {}, order = [], limit) =>
    isPossible(where) ? (await model().findAll({ where, order, limit, raw: true })).map(unpack) : []

  return {
    model,
    insert: async (row) => void (await model().create(pack(row) as never)),
    insertMany: async (rows) => void (await model().bulkCreate(rows.map((row) => pack(row)) as never[])),
    find: async (where) => {
      const row = isPossible(where) ? await model().findOne({ where, raw: true }) : null
      return row ? unpack(row) : null
    },
    byId: async (id) => {
      const row = isPossible({ id }) ? await model().findOne({ where: { id }, raw: true }) : null
      return row ? unpack(row) : null
    },
    all,
    count: (where = {}) => model().count({ where }),
    update: async (where, values) => (await model().update(pack(values), { where }))[0],
    remove: (where) => model().destroy({ where }),
  }
}

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

/** Rows of a plain SQL query, with named parameters. */
export function select<Row extends object>(
  sql: string,
  replacements: Record<string, unknown> = {},
): Promise<Row[]> {
  return database().query<Row>(sql, { type: QueryTypes.SELECT, replacements })
}

export { Op }
