import 'server-only'
import {
  pumpModelSchema,
  settleDoubtSchema,
  type PumpModelInput,
  type SettleDoubtInput,
  type PumpModelView,
} from '@/core/fleet'
import { visitNumber } from '@/core/plan'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import {
  allPositions,
  changesBetween,
  checkModel,
  titleOf,
  type ModelChange,
  type ModelCheck,
  type PumpModel,
  type CheckView,
} from '@/core/models'
import { kept, Op, write } from '@/db/house'
import { assemblies } from '@/db/fleet'
import { people } from '@/db/access'
import { practiceChoices } from '@/db/practices'
import { pumpModels, pumpModelVersions, settledDoubts } from '@/db/models'
import { sheetEntries } from '@/db/sheets'
import type { SettledTorque } from '@/core/sheets'
import { parts } from '@/db/stores'
import { visits } from '@/db/plan'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  dayOf,
  editRow,
  requireFresh,
} from '../house'
import { settledTorques } from '../sheets'

export function listPumpModels(_actor: Actor): Promise<PumpModelView[]> {
  return kept('pump models', loadPumpModels)
}

async function loadPumpModels(): Promise<PumpModelView[]> {
  const [rows, pumps, versions, doubts] = await Promise.all([
    pumpModels.all({}, [
      ['maker', 'ASC'],
      ['name', 'ASC'],
    ]),
    assemblies.all({ retiredOn: null }),
    pumpModelVersions.every(),
    settledDoubts.all(),
  ])
  const newest = new Map(
    [...versions].sort((a, b) => a.version - b.version).map((version) => [version.modelId, version]),
  )
  return rows.map(({ createdAt: _createdAt, ...model }) => {
    const published = newest.get(model.id)
    const checks = published ? checkModel(published.data) : []
    const open = (kind: ModelCheck['kind']) =>
      checks.filter(
        (found) =>
          found.kind === kind &&
          !doubts.some((doubt) => doubt.modelId === model.id && doubt.words === found.words),
      ).length
    return {
      ...model,
      pumps: pumps.filter((pump) => pump.modelId === model.id).length,
      published: published?.version ?? null,
      tasks: published?.data.tasks.length ?? 0,
      positions: published ? allPositions(published.data).length : 0,
      warnings: open('warning'),
      doubts: open('doubt'),
      written: published ? wordsIn(published.data) : '',
    }
  })
}

/** Everything a search may find: names of parts and positions, and what else they are called. */
function wordsIn(model: PumpModel): string {
  return [...model.positions, ...model.parts]
    .flatMap(({ name, synonyms }) => [name, ...synonyms])
    .concat(model.tasks.map((task) => task.name))
    .join(' ')
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
  /** The row's own version, for deleting it. */
  version: number
  maker: string
  name: string
  design: string
  note: string
  pumps: number
  versions: { version: number; day: string; by: string; news: string; changes: ModelChange[] }[]
  /** The version that is shown: the newest, or the one asked for. */
  shown: {
    version: number
    model: PumpModel
    checks: CheckView[]
    /** What the bench looked up where this version states no torque, or an unverified one. */
    lookedUp: SettledTorque[]
  } | null
  /** Sizes of one family that share this procedure, with their pages. */
  family: { id: string; name: string }[]
}

/** A model with its versions, what changed between them, and what should be looked at. */
export async function getPumpModel(actor: Actor, id: string, version?: number): Promise<PumpModelDetails> {
  const listed = await listPumpModels(actor)
  const model = listed.find((each) => each.id === id)
  if (!model) throw notFound('This pump model')
  const [allVersions, doubts, names, company, lookedUp] = await Promise.all([
    pumpModelVersions.every(),
    settledDoubts.all({ modelId: id }),
    people.every(),
    ourCompany(),
    settledTorques(),
  ])
  const versions = allVersions.filter(({ modelId }) => modelId === id).sort((a, b) => b.version - a.version)
  const nameOf = (personId: string) => names.find((person) => person.id === personId)?.name ?? ''
  const dayOn = (at: string) => dayOf(at, company.timeZone)
  const shown = version === undefined ? versions[0] : versions.find((each) => each.version === version)
  if (version !== undefined && !shown) throw notFound('This version of the model')
  const { maker, name, design, note, pumps } = model
  return {
    id,
    version: model.version,
    maker,
    name,
    design,
    note,
    pumps,
    versions: versions.map((each, index) => ({
      version: each.version,
      day: dayOn(each.publishedAt),
      by: nameOf(each.publishedById),
      news: each.news ?? '',
      changes: versions[index + 1] ? changesBetween(versions[index + 1]!.data, each.data) : [],
    })),
    shown: shown
      ? {
          version: shown.version,
          model: shown.data,
          lookedUp: lookedUp.filter((each) => each.modelVersionId === shown.id),
          checks: checkModel(shown.data).map((found) => {
            const settled = doubts.findLast((doubt) => doubt.words === found.words)
            return {
              ...found,
              settled:
                found.kind === 'doubt' && settled
                  ? {
                      answer: settled.answer,
                      by: nameOf(settled.settledById),
                      day: dayOn(settled.settledAt),
                    }
                  : null,
            }
          }),
        }
      : null,
    family: (shown?.source?.sizes ?? []).flatMap((size) => {
      const row = listed.find((each) => each.maker === maker && each.name === size.name)
      return row && row.id !== id ? [{ id: row.id, name: size.name }] : []
    }),
  }
}

/** Called inside `write()`: the version that a new pump of this model gets. */
export async function newestVersionId(modelId: string): Promise<string | null> {
  const [newest] = await pumpModelVersions.all({ modelId }, [['version', 'DESC']], 1)
  return newest?.id ?? null
}

/** Says what was found out about a note of doubt. It stays on record, and the flag goes. */
export async function settleDoubt(actor: Actor, input: SettleDoubtInput): Promise<void> {
  requirePermission(actor, 'models.edit')
  const { id, modelId, words, answer } = check(settleDoubtSchema, input)
  await write(async () => {
    if ((await settledDoubts.byId(id)) !== null) return
    const model = await pumpModels.byId(modelId)
    if (!model) throw notFound('This pump model')
    await settledDoubts.insert({ id, modelId, words, answer, settledAt: now(), settledById: actor.id })
    await recordChange(actor, {
      entity: 'pumpModel',
      entityId: modelId,
      action: 'settled',
      summary: `${titleOf(model)}: doubt settled: ${words}`,
      reason: answer,
    })
  })
}

/**
 * Deletes a model that no pump is of. What went by it stays readable: a sheet holds its own copy.
 *
 * @throws `conflict` naming the pumps that are of it, or the visits that were booked with it
 */
export async function deletePumpModel(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'models.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const model = await pumpModels.byId(input.id)
    if (!model) throw notFound('This pump model')
    const name = titleOf(model)
    await requireFresh(pumpModels, { entity: 'pumpModel', name }, input)
    const pumps = await assemblies.all({ modelId: model.id }, [['number', 'ASC']])
    if (pumps.length > 0) {
      const numbers = pumps.map((pump) => pump.number)
      const listed =
        numbers.slice(0, 6).join(', ') + (numbers.length > 6 ? ` and ${numbers.length - 6} more` : '')
      throw conflict(`${name} is in use: ${listed} ${numbers.length === 1 ? 'is' : 'are'} of it. It stays.`)
    }
    const versions = await pumpModelVersions.all({ modelId: model.id })
    const booked = (await visits.all()).find((visit) =>
      visit.items.some((item) => versions.some((version) => version.id === item.modelVersionId)),
    )
    if (booked) throw conflict(`Visit ${visitNumber(booked.number)} was composed from ${name}. It stays.`)
    for (const { id } of versions) {
      const worked = await sheetEntries.find({ kind: 'composed', payload: { [Op.like]: `%${id}%` } } as never)
      if (worked)
        throw conflict(
          `A sheet was composed from ${name}. It stays, so that its record can be signed and read.`,
        )
    }
    for (const part of await parts.all()) {
      const fits = part.fits.filter((fit) => fit.modelId !== model.id)
      if (fits.length !== part.fits.length)
        await parts.update({ id: part.id }, { fits, version: part.version + 1 })
    }
    await settledDoubts.remove({ modelId: model.id })
    await practiceChoices.remove({ modelId: model.id })
    await pumpModelVersions.remove({ modelId: model.id })
    await pumpModels.remove({ id: model.id })
    await recordChange(actor, {
      entity: 'pumpModel',
      entityId: model.id,
      action: 'deleted',
      summary: `${name} deleted; no pump was of it`,
      before: model,
    })
  })
}
