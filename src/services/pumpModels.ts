import 'server-only'
import { pumpModelSchema, type PumpModelInput } from '@/core/fleet'
import type { PumpModelView } from '@/core/fleet/views'
import { invalid, notFound } from '@/core/problem'
import { parsePumpModel, pumpModelFaults, type PumpModel } from '@/core/pump'
import { check } from '@/core/problem/check'
import { write } from '@/db'
import { assemblies } from '@/db/assemblies'
import { pumpModels, pumpModelVersions } from '@/db/pumpModels'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { v7 as uuid } from 'uuid'
import { now } from './clock'
import { editRow } from './edit'

export async function listPumpModels(_actor: Actor): Promise<PumpModelView[]> {
  const [rows, pumps, versions] = await Promise.all([
    pumpModels.all({}, [
      ['maker', 'ASC'],
      ['name', 'ASC'],
    ]),
    assemblies.all({ retiredOn: null }),
    pumpModelVersions.all({}, [['version', 'ASC']]),
  ])
  const published = new Map(versions.map((version) => [version.modelId, version.version]))
  return rows.map(({ createdAt: _createdAt, ...model }) => ({
    ...model,
    pumps: pumps.filter((pump) => pump.modelId === model.id).length,
    published: published.get(model.id) ?? null,
  }))
}

export async function savePumpModel(actor: Actor, input: PumpModelInput): Promise<void> {
  requirePermission(actor, 'models.edit')
  const { id, version, ...values } = check(pumpModelSchema, input)
  const name = `${values.maker} ${values.name}`
  await write(async () => {
    const other = await pumpModels.find({ maker: values.maker, name: values.name })
    if (other && other.id !== id) throw invalid({ name: `There is a model ${name} already.` })
    if (version !== undefined) {
      await editRow(actor, pumpModels, { entity: 'pumpModel', name }, { id, version }, values, {
        action: 'changed',
        summary: `${name} changed`,
      })
      return
    }
    if (await pumpModels.byId(id)) return
    const row = { id, ...values, createdAt: now(), version: 1 }
    await pumpModels.insert(row)
    await recordChange(actor, {
      entity: 'pumpModel',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `${name} added`,
      after: row,
    })
  })
}

export type PumpModelDetails = {
  id: string
  maker: string
  name: string
  design: string
  note: string
  pumps: number
  versions: { version: number; publishedAt: string }[]
  newest: PumpModel | null
}

export async function getPumpModel(actor: Actor, id: string): Promise<PumpModelDetails> {
  const model = (await listPumpModels(actor)).find((each) => each.id === id)
  if (!model) throw notFound('This pump model')
  const versions = await pumpModelVersions.all({ modelId: id }, [['version', 'DESC']])
  const { maker, name, design, note, pumps } = model
  return {
    id,
    maker,
    name,
    design,
    note,
    pumps,
    versions: versions.map(({ version, publishedAt }) => ({ version, publishedAt })),
    newest: versions[0]?.data ?? null,
  }
}

/** Called inside `write()`: the version that a new pump of this model gets. */
export async function newestVersionId(modelId: string): Promise<string | null> {
  const [newest] = await pumpModelVersions.all({ modelId }, [['version', 'DESC']], 1)
  return newest?.id ?? null
}

/**
 * Publishes model data as the next version. Nothing published is ever changed; the pumps of this model
 * go over to the new version, which their record says.
 *
 * @param text the model as JSON
 * @returns the version's number and how many pumps went over to it
 * @throws `invalid` with every fault by its path, under `data`
 */
export async function publishPumpModel(
  actor: Actor,
  input: { modelId: string; text: string },
): Promise<{ version: number; pumps: number }> {
  requirePermission(actor, 'models.edit')
  const data = readModelText(input.text)
  return write(async () => {
    const model = await pumpModels.byId(input.modelId)
    if (!model) throw notFound('This pump model')
    if (data.maker !== model.maker || data.name !== model.name) {
      throw invalid({
        data: `This data is for ${data.maker} ${data.name}, not for ${model.maker} ${model.name}.`,
      })
    }
    const [newest] = await pumpModelVersions.all({ modelId: model.id }, [['version', 'DESC']], 1)
    const version = (newest?.version ?? 0) + 1
    const row = { id: uuid(), modelId: model.id, version, data, publishedAt: now(), publishedById: actor.id }
    await pumpModelVersions.insert(row)
    const pumps = await assemblies.all({ modelId: model.id, retiredOn: null })
    await assemblies.update({ modelId: model.id, retiredOn: null }, { modelVersionId: row.id })
    await recordChange(actor, {
      entity: 'pumpModel',
      entityId: model.id,
      action: 'published',
      summary: `${model.maker} ${model.name}: version ${version} published, ${pumps.length} pumps go by it`,
    })
    return { version, pumps: pumps.length }
  })
}

function readModelText(text: string): PumpModel {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (error) {
    throw invalid({
      data: `This is not JSON: ${error instanceof Error ? error.message : 'it cannot be read'}`,
    })
  }
  const faults = Object.entries(pumpModelFaults(data))
  if (faults.length > 0) {
    const listed = faults.slice(0, 8).map(([path, fault]) => `${path || 'the whole'}: ${fault}`)
    const more = faults.length > listed.length ? [`and ${faults.length - listed.length} more.`] : []
    throw invalid({ data: [...listed, ...more].join('\n') })
  }
  return parsePumpModel(data)
}
