import 'server-only'
import { v7 as uuid } from 'uuid'
import { modelTextSchema, publishSchema, type PublishInput } from '@/core/fleet'
import { isOpen } from '@/core/plan'
import { conflict, invalid, notFound, check, idSchema } from '@/core/problem'
import {
  changesBetween,
  checkModel,
  modelForSize,
  parsePumpModel,
  pumpModelFaults,
  titleOf,
  withTorque,
  type PumpModel,
  type PublishPreview,
} from '@/core/models'
import { showNumber } from '@/core/units'
import { write } from '@/db/house'
import { assemblies } from '@/db/fleet'
import { pumpModels, pumpModelVersions } from '@/db/models'
import { visits } from '@/db/plan'
import { requirePermission, type Actor, recordChange, now } from '../house'
import { settledTorques } from '../sheets'

/**
 * Reads a model's data without keeping it: its faults by path, or what publishing it would change. For
 * the person who is about to publish.
 */
export async function previewPumpModel(actor: Actor, text: string): Promise<PublishPreview> {
  requirePermission(actor, 'models.edit')
  const read = readModelText(check(modelTextSchema, text))
  if (!read.ok) return { faults: read.faults, models: [], checks: [] }
  const [rows, open] = await Promise.all([pumpModels.every(), visits.all()])
  const models = await Promise.all(
    sizesOf(read.model).map(async (data) => {
      const row = rows.find((each) => titleOf(each) === titleOf(data))
      const versions = row ? await pumpModelVersions.all({ modelId: row.id }, [['version', 'DESC']]) : []
      const ids = new Set(versions.map(({ id }) => id))
      return {
        title: titleOf(data),
        newest: versions[0]?.version ?? 0,
        pumps: row ? await assemblies.count({ modelId: row.id, retiredOn: null }) : 0,
        openVisits: open.filter(
          (visit) => isOpen(visit.state) && visit.items.some((item) => ids.has(item.modelVersionId)),
        ).length,
        changes: versions[0] ? changesBetween(versions[0].data, data) : [],
      }
    }),
  )
  return { faults: [], models, checks: checkModel(read.model) }
}

/**
 * Publishes model data as the next version of its model, and of each size where it is a family; a model
 * that the library does not have is added. Nothing published is ever changed; the pumps of the model go
 * over to the new version, which their record says; visits and sheets keep the one they were made with.
 *
 * @throws `invalid` with the faults by path under `text`; `conflict` where somebody published meanwhile
 */
export async function publishPumpModel(
  actor: Actor,
  input: PublishInput,
): Promise<{ published: { id: string; title: string; version: number; pumps: number }[] }> {
  requirePermission(actor, 'models.edit')
  const { text, seen = {}, news = '' } = check(publishSchema, input)
  const read = readModelText(text)
  if (!read.ok) {
    const listed = read.faults.slice(0, 8).map(({ path, words }) => `${path || 'the whole'}: ${words}`)
    const more = read.faults.length > 8 ? [`and ${read.faults.length - 8} more.`] : []
    throw invalid({ text: [...listed, ...more].join('\n') })
  }
  const family = read.model.sizes.length > 0 ? read.model : null
  return write(async () => {
    const published = []
    for (const data of sizesOf(read.model))
      published.push(await publishOne(actor, data, { family, seen: seen[titleOf(data)], news }))
    return { published }
  })
}

async function publishOne(
  actor: Actor,
  data: PumpModel,
  { family, seen, news }: { family: PumpModel | null; seen: number | undefined; news: string },
): Promise<{ id: string; title: string; version: number; pumps: number }> {
  const title = titleOf(data)
  const model =
    (await pumpModels.find({ maker: data.maker, name: data.name })) ?? (await addModel(actor, data))
  const [newest] = await pumpModelVersions.all({ modelId: model.id }, [['version', 'DESC']], 1)
  if (seen !== undefined && seen !== (newest?.version ?? 0))
    throw conflict(
      `Version ${newest?.version ?? 0} of ${title} was published while you were at it. Look at what changed, then publish again; nothing of yours is lost.`,
    )
  const version = (newest?.version ?? 0) + 1
  const row = {
    id: uuid(),
    modelId: model.id,
    version,
    data,
    source: family,
    news,
    publishedAt: now(),
    publishedById: actor.id,
  }
  await pumpModelVersions.insert(row)
  const pumps = await assemblies.all({ modelId: model.id, retiredOn: null })
  await assemblies.update({ modelId: model.id, retiredOn: null }, { modelVersionId: row.id })
  await recordChange(actor, {
    entity: 'pumpModel',
    entityId: model.id,
    action: 'published',
    summary: `${title}: version ${version} published, ${pumps.length} pumps go by it`,
    reason: news,
  })
  return { id: model.id, title, version, pumps: pumps.length }
}

async function addModel(actor: Actor, { maker, name, design }: PumpModel) {
  const row = { id: uuid(), maker, name, design, note: '', createdAt: now(), version: 1 }
  await pumpModels.insert(row)
  await recordChange(actor, {
    entity: 'pumpModel',
    entityId: row.id,
    entityVersion: 1,
    action: 'added',
    summary: `${maker} ${name} added`,
    after: row,
  })
  return row
}

/**
 * The newest data of a model with every torque in it that the bench looked up, to be published as its next
 * version: what somebody read in the manual once is stated from then on.
 *
 * @throws `conflict` where nothing was looked up for the newest version
 */
export async function withLookedUp(actor: Actor, asked: string): Promise<{ text: string; news: string }> {
  requirePermission(actor, 'models.edit')
  const modelId = check(idSchema, asked)
  const [newest] = await pumpModelVersions.all({ modelId }, [['version', 'DESC']], 1)
  const found = (await settledTorques()).filter((each) => each.modelVersionId === newest?.id)
  if (!newest || found.length === 0)
    throw conflict('Nothing was looked up for the newest version: look at it again.')
  const data = found.reduce(
    (model, { fastener, value, unit, page }) =>
      withTorque(model, newest.data.size, fastener, { value, unit, source: page }),
    newest.source ?? newest.data,
  )
  const news = found.map(({ fastener, value, unit, sheet, byName }) => {
    const name = newest.data.fasteners.find((each) => each.key === fastener)?.name ?? fastener
    return `${name} ${showNumber(value)} ${unit} (${byName}, sheet ${sheet})`
  })
  return {
    text: JSON.stringify(data, null, 2),
    news: `Looked up at the bench: ${news.join('; ')}`.slice(0, 300),
  }
}

/** A version's data as it can be read in again: the whole family where it is one size of it. */
export async function exportPumpModel(
  _actor: Actor,
  modelId: string,
  version?: number,
): Promise<{ name: string; data: PumpModel }> {
  const versions = await pumpModelVersions.all(
    version === undefined ? { modelId } : { modelId, version },
    [['version', 'DESC']],
    1,
  )
  const [found] = versions
  if (!found) throw notFound('This version of the model')
  const data = found.source ?? found.data
  const name = `${titleOf(data)} version ${found.version}`.toLowerCase().replace(/[^a-z0-9]+/g, '-')
  return { name: `${name}.json`, data }
}

function sizesOf(model: PumpModel): PumpModel[] {
  return model.sizes.length === 0 ? [model] : model.sizes.map((size) => modelForSize(model, size.key))
}

type Read = { ok: true; model: PumpModel } | { ok: false; faults: PublishPreview['faults'] }

function readModelText(text: string): Read {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (error) {
    const why = error instanceof Error ? error.message : 'it cannot be read'
    return { ok: false, faults: [{ path: '', words: `This is not JSON: ${why}` }] }
  }
  const faults = Object.entries(pumpModelFaults(data)).map(([path, words]) => ({ path, words }))
  return faults.length > 0 ? { ok: false, faults } : { ok: true, model: parsePumpModel(data) }
}
