import { completeModel, type PumpModel } from '@/core/models'
import { id, json, longText, text, whole, table, type Table } from '../house'

export type PumpModelRow = {
  id: string
  maker: string
  name: string
  design: string
  note: string
  createdAt: string
  version: number
}

export const pumpModels = table<PumpModelRow>('pump_models', {
  id,
  maker: text,
  name: text,
  design: text,
  note: longText,
  createdAt: text,
  version: whole,
})

/** A published version of a model's data. Never changed: a correction is the next version. */
export type PumpModelVersionRow = {
  id: string
  modelId: string
  version: number
  data: PumpModel
  /** The whole family's data where this is one size of a family. */
  source: PumpModel | null
  /** What is new in it, in the publisher's words. */
  news: string | null
  publishedAt: string
  publishedById: string
}

const rows = table<PumpModelVersionRow>(
  'pump_model_versions',
  {
    id,
    modelId: text,
    version: whole,
    data: json,
    source: json,
    news: text,
    publishedAt: text,
    publishedById: text,
  },
  ['data', 'source'],
)

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

/** What somebody found out about a note of doubt: it holds for every version that has the same words. */
export type SettledDoubtRow = {
  id: string
  modelId: string
  words: string
  answer: string
  settledAt: string
  settledById: string
}

export const settledDoubts = table<SettledDoubtRow>('settled_doubts', {
  id,
  modelId: text,
  words: longText,
  answer: text,
  settledAt: text,
  settledById: text,
})
