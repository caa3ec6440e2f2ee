import { completeModel, type PumpModel } from '@/core/models'
import { id, json, longText, text, whole, table, type Table, type RowOf, orNull, kept } from '../house'

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
 * A version never changes: each is read, parsed and completed once (what a model's language has learnt
 * since it was published is filled in by its defaults), and further questions only ask which there are.
 */
const key = Symbol.for('atelier.completedModels')
const globals = globalThis as unknown as Record<symbol, Map<string, PumpModelVersionRow> | undefined>
const completed = (globals[key] ??= new Map<string, PumpModelVersionRow>())

async function known(ids: string[]): Promise<PumpModelVersionRow[]> {
  const unknown = ids.filter((each) => !completed.has(each))
  const read = unknown.length > 0 ? await rows.all({ id: unknown }) : []
  for (const row of read) completed.set(row.id, { ...row, data: completeModel(row.data) })
  return ids.flatMap((each) => completed.get(each) ?? [])
}

export const pumpModelVersions: Table<PumpModelVersionRow> = {
  ...rows,
  find: async (where) => {
    const row = await rows.find(where)
    return row && (await known([row.id]))[0]!
  },
  byId: async (rowId) => ((await rows.count({ id: rowId })) > 0 ? (await known([rowId]))[0]! : null),
  all: async (...asked) => known(await rows.idsOf(...asked)),
  every: () => kept('every pump_model_versions', async () => known(await rows.idsOf())),
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
