import { completeModel, type PumpModel } from '@/core/models'
import { id, json, longText, text, whole, table, type Table, type RowOf, orNull } from '../house'

export const pumpModels = table('pump_models', {
  id,
  maker: text(),
  name: text(),
  design: text(),
  note: longText(),
  createdAt: text(),
  version: whole(),
})
export type PumpModelRow = RowOf<typeof pumpModels>

const rows = table('pump_model_versions', {
  id,
  modelId: text(),
  version: whole(),
  data: json<PumpModel>(),
  /** The whole family's data where this is one size of a family. */
  source: orNull(json<PumpModel>()),
  /** What is new in it, in the publisher's words. */
  news: orNull(text()),
  publishedAt: text(),
  publishedById: text(),
})
/** A published version of a model's data. Never changed: a correction is the next version. */
export type PumpModelVersionRow = RowOf<typeof rows>

/**
 * What a model's language has learnt since it was published is filled in by its defaults. A version
 * never changes, so each is completed once.
 */
const key = Symbol.for('atelier.completedModels')
const globals = globalThis as unknown as Record<symbol, Map<string, PumpModel> | undefined>
const completed = (globals[key] ??= new Map<string, PumpModel>())

function complete(row: PumpModelVersionRow): PumpModelVersionRow {
  const known = completed.get(row.id)
  const data = known ?? completeModel(row.data)
  if (!known) completed.set(row.id, data)
  return { ...row, data }
}

export const pumpModelVersions: Table<PumpModelVersionRow> = {
  ...rows,
  find: async (where) => {
    const row = await rows.find(where)
    return row && complete(row)
  },
  byId: async (rowId) => {
    const row = await rows.byId(rowId)
    return row && complete(row)
  },
  all: async (...asked) => (await rows.all(...asked)).map(complete),
}

export const settledDoubts = table('settled_doubts', {
  id,
  modelId: text(),
  words: longText(),
  answer: text(),
  settledAt: text(),
  settledById: text(),
})
/** What somebody found out about a note of doubt: it holds for every version that has the same words. */
export type SettledDoubtRow = RowOf<typeof settledDoubts>
