import 'server-only'
import {
  assemblyKinds,
  assemblySchema,
  newAssemblySchema,
  retireSchema,
  type AssemblyInput,
  type NewAssemblyInput,
  type PlaceInput,
  type RetireInput,
  type AssemblyPage,
  type AssemblyView,
} from '@/core/fleet'
import { assemblyLine } from '@/core/hours'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { derived, write } from '@/db/house'
import { assemblies, dutyShares, fittings, type AssemblyRow } from '@/db/fleet'
import { lives } from '@/db/wear'
import { meters } from '@/db/hours'
import { pumpModels, pumpModelVersions } from '@/db/models'
import {
  requirePermission,
  type Actor,
  changesAround,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  instantOf,
  editRow,
  requireUnique,
} from '../house'
import { loadAssemblies, loadCounting } from '../wear'
import { placeAssembly, titleOf } from './moves'
import { newestVersionId } from '../models'
import { loadKnown, spellsOf } from '../hours'

/** Every assembly with its place and its usage, from a handful of queries. */
export async function listAssemblies(_actor: Actor): Promise<AssemblyView[]> {
  const all = await loadAssemblies()
  return derived('assemblies', all, () => all.map(({ stays: _stays, ...assembly }) => assembly))
}

export async function getAssembly(actor: Actor, reference: string): Promise<AssemblyPage> {
  const row = (await assemblies.byId(reference)) ?? (await assemblies.find({ number: reference }))
  if (!row) throw notFound('This pump')
  const { timeZone } = await ourCompany()
  const [[assembly], counting, changes, meterRows] = await Promise.all([
    loadAssemblies([row.id]),
    loadCounting([row.id]),
    changesAround({ assemblyId: row.id }, timeZone),
    meters.every(),
  ])
  const { stretches, shares } = counting.of(row.id)
  const { place } = assembly!
  const present = stretches.at(-1)
  const counted = place.machineId && present && present.to === null ? present : null
  const known = await loadKnown(place.machineId ? [place.machineId] : [], counting.lines)
  return {
    ...assembly!,
    changes,
    line: assemblyLine({ kind: row.openingKind, usage: row.openingUsage }, stretches, now()),
    meterLine: counted && counted.line.points.map(({ at, hours, source }) => ({ at, hours, source })),
    known: known(place.machineId ?? '', counted?.meterId ?? ''),
    duties: shares
      .filter((share) => counted && share.at >= place.at)
      .map(({ at, meterId, share, basis }) => ({
        at,
        day: dayOf(at, timeZone),
        meterName: meterRows.find((meter) => meter.id === meterId)?.name ?? '',
        share,
        basis,
      }))
      .reverse(),
    spells: place.machineId ? await spellsOf(actor, place.machineId) : [],
  }
}

export async function addAssembly(actor: Actor, input: NewAssemblyInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { place, ...values } = check(newAssemblySchema, input)
  await write(async () => {
    if (await assemblies.byId(values.id)) return
    await insertAssembly(actor, values, place)
  })
}

/** Called inside `write()`; also when a machine is added with its pump. */
export async function insertAssembly(
  actor: Actor,
  input: Omit<AssemblyInput, 'version'>,
  place: PlaceInput,
  paths = { own: '', place: 'place.' },
): Promise<void> {
  const { takenOverOn, ...values } = input
  const company = await ourCompany()
  await requireUnique(
    assemblies,
    { number: values.number },
    values.id,
    `${paths.own}number`,
    'This number is taken by another pump, drive or accessory.',
  )
  await requireModel(values, paths.own)
  if (takenOverOn > present(company).today)
    throw invalid({ [`${paths.own}takenOverOn`]: 'This day is still to come.' })
  const takenOverAt = instantOf(takenOverOn, '00:00', company.timeZone)
  const row: AssemblyRow = {
    ...values,
    facts: {},
    takenOverAt,
    modelVersionId: values.modelId ? await newestVersionId(values.modelId) : null,
    retiredOn: null,
    retiredReason: '',
    createdAt: now(),
    version: 1,
  }
  await assemblies.insert(row)
  const where = await placeAssembly(actor, row, place, takenOverAt, '', paths.place)
  await recordChange(actor, {
    entity: 'assembly',
    entityId: row.id,
    entityVersion: 1,
    assemblyId: row.id,
    machineId: where.machineId,
    action: 'added',
    summary: `${await titleOf(row)} taken over, ${where.words}`,
    after: row,
  })
}

export async function saveAssembly(actor: Actor, input: AssemblyInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, takenOverOn, ...values } = check(assemblySchema, input)
  await write(async () => {
    const company = await ourCompany()
    const before = await assemblies.byId(id)
    if (!before) throw notFound('This pump')
    await requireUnique(
      assemblies,
      { number: values.number },
      id,
      'number',
      'This number is taken by another pump, drive or accessory.',
    )
    await requireModel(values)
    const takenOverAt = instantOf(takenOverOn, '00:00', company.timeZone)
    const [first, second] = await fittings.all({ assemblyId: id, status: 'active' }, [['at', 'ASC']])
    if (takenOverOn > present(company).today) throw invalid({ takenOverOn: 'This day is still to come.' })
    if (second && takenOverAt >= second.at)
      throw invalid({ takenOverOn: 'It had moved on by this day: enter the day it came.' })
    await editRow(
      actor,
      assemblies,
      { entity: 'assembly', name: values.number },
      { id, version: version! },
      { ...values, takenOverAt, modelVersionId: await versionAfterEdit(before, values.modelId) },
      {
        assemblyId: id,
        machineId: first?.machineId ?? null,
        action: 'changed',
        summary: `${values.number} changed`,
      },
    )
    if (first && first.at !== takenOverAt) {
      await fittings.update({ id: first.id }, { at: takenOverAt })
      await dutyShares.update({ assemblyId: id, status: 'active', at: first.at }, { at: takenOverAt })
      await lives.update({ assemblyId: id, startedAt: first.at }, { startedAt: takenOverAt })
    }
  })
}

/** A pump keeps the version it goes by, unless it turns out to be another model. */
async function versionAfterEdit(before: AssemblyRow, modelId: string | null): Promise<string | null> {
  if (modelId === before.modelId) return before.modelVersionId
  return modelId ? newestVersionId(modelId) : null
}

export async function retireAssembly(actor: Actor, input: RetireInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, reason } = check(retireSchema, input)
  await write(async () => {
    const row = await assemblies.byId(id)
    if (!row) throw notFound('This pump')
    const last = (await fittings.all({ assemblyId: id, status: 'active' }, [['at', 'DESC']], 1))[0]
    if (last?.machineId) throw conflict(`${row.number} is still fitted to a machine. Take it off first.`)
    const { today } = present(await ourCompany())
    await editRow(
      actor,
      assemblies,
      { entity: 'assembly', name: row.number },
      { id, version },
      { retiredOn: today, retiredReason: reason },
      {
        assemblyId: id,
        action: 'retired',
        summary: `${row.number} retired`,
        reason,
      },
    )
  })
}

export async function returnAssembly(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const row = await assemblies.byId(input.id)
    if (!row) throw notFound('This pump')
    await editRow(
      actor,
      assemblies,
      { entity: 'assembly', name: row.number },
      input,
      { retiredOn: null, retiredReason: '' },
      {
        assemblyId: row.id,
        action: 'returned',
        summary: `${row.number} brought back into service`,
      },
    )
  })
}

async function requireModel(
  { kind, modelId }: Pick<AssemblyInput, 'modelId' | 'kind'>,
  prefix = '',
): Promise<void> {
  if (!modelId) return
  if (!(await pumpModels.byId(modelId)))
    throw invalid({ [`${prefix}modelId`]: 'Choose a pump model from the list.' })
  const newest = await newestVersionId(modelId)
  const written = newest ? await pumpModelVersions.byId(newest) : null
  if (written && written.data.kind !== kind)
    throw invalid({
      [`${prefix}modelId`]: `This is a model of another kind: ${assemblyKinds[written.data.kind].toLowerCase()}. Choose that kind, or another model.`,
    })
}
