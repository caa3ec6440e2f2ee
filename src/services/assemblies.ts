import 'server-only'
import { v7 as uuid } from 'uuid'
import {
  assemblySchema,
  moveSchema,
  newAssemblySchema,
  retireSchema,
  type AssemblyInput,
  type MoveInput,
  type NewAssemblyInput,
  type PlaceInput,
  type RetireInput,
} from '@/core/fleet'
import type { AssemblyPage, AssemblyView, Stay } from '@/core/fleet/views'
import { assemblyUsage, countedStretches, usageSinceTakeOver, type CumulativeLine } from '@/core/hours'
import { conflict, invalid, notFound } from '@/core/problem'
import { check } from '@/core/problem/check'
import { write } from '@/db'
import { assemblies, dutyShares, fittings, type AssemblyRow, type FittingRow } from '@/db/assemblies'
import { lives } from '@/db/lives'
import { machines } from '@/db/machines'
import { meters } from '@/db/meters'
import { pumpModels } from '@/db/pumpModels'
import { yards } from '@/db/yards'
import { requirePermission, type Actor } from './actor'
import { changesAround, recordChange } from './audit'
import { now } from './clock'
import { ourCompany, present } from './company'
import { dayOf, instantOf } from './days'
import { editRow, requireFresh, requireUnique } from './edit'
import { groupBy } from './group'
import { linesOf } from './meterHistory'
import { newestVersionId } from './pumpModels'
import { pastInstant } from './readings'

/** Every assembly with its place and its usage, from a handful of queries. */
export async function listAssemblies(_actor: Actor): Promise<AssemblyView[]> {
  return (await loadAssemblies()).map(({ stays: _stays, ...assembly }) => assembly)
}

export async function getAssembly(_actor: Actor, reference: string): Promise<AssemblyPage> {
  const row = (await assemblies.byId(reference)) ?? (await assemblies.find({ number: reference }))
  if (!row) throw notFound('This pump')
  const { timeZone } = await ourCompany()
  const [assembly] = await loadAssemblies([row.id])
  return { ...assembly!, changes: await changesAround({ assemblyId: row.id }, timeZone) }
}

/** The pumps on each machine now, without working out their hours. */
export async function pumpsByMachine(): Promise<Map<string, { number: string; title: string }[]>> {
  const [rows, fittingRows, modelRows] = await Promise.all([
    assemblies.all({ kind: 'pump', retiredOn: null }, [['number', 'ASC']]),
    fittings.all({ status: 'active' }, [['at', 'ASC']]),
    pumpModels.all(),
  ])
  const newest = new Map(fittingRows.map((fitting) => [fitting.assemblyId, fitting]))
  const titles = new Map(modelRows.map((model) => [model.id, `${model.maker} ${model.name}`]))
  const byMachine = new Map<string, { number: string; title: string }[]>()
  for (const { id, number, name, modelId } of rows) {
    const machineId = newest.get(id)?.machineId
    if (!machineId) continue
    const title = (modelId && titles.get(modelId)) || name
    byMachine.set(machineId, [...(byMachine.get(machineId) ?? []), { number, title }])
  }
  return byMachine
}

/** Where each assembly was when, and what counted it. All of them when none are named. */
export async function loadCounting(ids?: string[]) {
  const which = ids ? { assemblyId: ids } : {}
  const byTime: [string, 'ASC'][] = [['at', 'ASC']]
  const [fittingRows, shareRows] = await Promise.all([
    fittings.all({ ...which, status: 'active' }, byTime),
    dutyShares.all({ ...which, status: 'active' }, byTime),
  ])
  const lines = await linesOf(ids ? [...new Set(shareRows.map((share) => share.meterId))] : undefined)
  const fittingsOf = groupBy(fittingRows, (row) => row.assemblyId)
  const sharesOf = groupBy(shareRows, (row) => row.assemblyId)
  return (assemblyId: string) => {
    const moves = fittingsOf.get(assemblyId) ?? []
    const shares = sharesOf.get(assemblyId) ?? []
    const stretches = countedStretches(moves, shares).map((stretch) => ({
      ...stretch,
      line: lines.get(stretch.meterId) ?? emptyLine,
    }))
    return { moves, shares, stretches }
  }
}

/** Assemblies with every stay of each, oldest first. All of them when none are named. */
export async function loadAssemblies(ids?: string[]): Promise<(AssemblyView & { stays: Stay[] })[]> {
  const [rows, machineRows, yardRows, modelRows, meterRows, counting, { timeZone }] = await Promise.all([
    assemblies.all(ids ? { id: ids } : {}, [['number', 'ASC']]),
    machines.all(),
    yards.all(),
    pumpModels.all(),
    meters.all(),
    loadCounting(ids),
    ourCompany(),
  ])
  const find = <T extends { id: string }>(list: T[]) => new Map(list.map((item) => [item.id, item]))
  const known = {
    machines: find(machineRows),
    yards: find(yardRows),
    models: find(modelRows),
    meters: find(meterRows),
  }
  const instant = now()
  const dayAt = (at: string) => dayOf(at, timeZone)

  return rows.map((row) => {
    const { moves, shares, stretches } = counting(row.id)
    const stays = moves.map((move, index): Stay => {
      const until = moves[index + 1]?.at ?? null
      const machine = move.machineId ? known.machines.get(move.machineId) : undefined
      const counted = stretches.filter(
        (stretch) => stretch.from >= move.at && (until === null || stretch.from < until),
      )
      return {
        id: move.id,
        at: move.at,
        day: dayAt(move.at),
        until,
        untilDay: until && dayAt(until),
        machineId: move.machineId,
        machineNumber: machine?.number ?? null,
        machineName: machine?.name ?? null,
        yardName: (move.yardId && known.yards.get(move.yardId)?.name) || null,
        slot: move.slot,
        reason: move.reason,
        used: usageSinceTakeOver(counted, instant),
      }
    })
    const place = stays.at(-1)
    if (!place) throw new Error(`Assembly ${row.number} has no place.`)
    const share = place.machineId ? shares.at(-1) : undefined
    const meter = share && known.meters.get(share.meterId)
    const model = row.modelId ? known.models.get(row.modelId) : undefined
    const { createdAt: _createdAt, ...values } = row
    return {
      ...values,
      takenOverOn: dayAt(row.takenOverAt),
      title: model ? `${model.maker} ${model.name}` : row.name,
      place,
      stays,
      usage: assemblyUsage({ kind: row.openingKind, usage: row.openingUsage }, stretches, instant),
      usedSinceTakeOver: usageSinceTakeOver(stretches, instant),
      countedBy:
        share && meter
          ? { meterId: meter.id, meterName: meter.name, share: share.share, basis: share.basis }
          : null,
    }
  })
}

const emptyLine: CumulativeLine = { points: [], ignoredReadingIds: [] }

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
    'This number is taken by another pump or accessory.',
  )
  await requireModel(values, paths.own)
  if (takenOverOn > present(company).today)
    throw invalid({ [`${paths.own}takenOverOn`]: 'This day is still to come.' })
  const takenOverAt = instantOf(takenOverOn, '00:00', company.timeZone)
  const row: AssemblyRow = {
    ...values,
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
      'This number is taken by another pump or accessory.',
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

/** Moves an assembly to another machine, another place or the shelf; its hours and its record go with it. */
export async function moveAssembly(actor: Actor, input: MoveInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const move = check(moveSchema, input)
  const at = await pastInstant(move.day, move.time)
  await write(async () => {
    if (await fittings.byId(move.id)) return
    const read = { id: move.assemblyId, version: move.version }
    const row = await requireFresh(assemblies, { entity: 'assembly', name: 'this pump' }, read)
    if (row.retiredOn) throw conflict(`${row.number} is retired. Bring it back into service first.`)
    const stays = await fittings.all({ assemblyId: row.id, status: 'active' }, [['at', 'ASC']])
    const last = stays.at(-1)
    if (last && at <= last.at) {
      throw invalid({ day: 'It was not yet at its present place then. Enter a later day or time.' })
    }
    const where = await placeAssembly(actor, row, move.place, at, move.reason, 'place.', move.id)
    const title = await titleOf(row)
    const from = last?.machineId ?? null
    await assemblies.update({ id: row.id }, { version: row.version + 1 })
    const change = {
      entity: 'assembly',
      entityId: row.id,
      entityVersion: row.version + 1,
      action: 'moved',
      reason: move.reason,
      before: last ? { machineId: last.machineId, yardId: last.yardId, slot: last.slot } : null,
    }
    await recordChange(actor, {
      ...change,
      assemblyId: row.id,
      machineId: where.machineId ?? from,
      summary: `${title} ${where.words}`,
    })
    if (from && where.machineId && from !== where.machineId) {
      await recordChange(actor, { ...change, machineId: from, summary: `${title} taken off, ${where.words}` })
    }
  })
}

/** Takes back the newest move of an assembly, as if it had stayed; the record keeps both. */
export async function undoMove(
  actor: Actor,
  input: { assemblyId: string; fittingId: string },
): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  await write(async () => {
    const row = await assemblies.byId(input.assemblyId)
    const stays = await fittings.all({ assemblyId: input.assemblyId, status: 'active' }, [['at', 'ASC']])
    const last = stays.at(-1)
    const before = stays.at(-2)
    if (!row || !last || !before || last.id !== input.fittingId) {
      throw conflict('It has moved again since. Move it back instead.')
    }
    await fittings.update({ id: last.id }, { status: 'superseded' })
    await dutyShares.update({ assemblyId: row.id, status: 'active', at: last.at }, { status: 'superseded' })
    await assemblies.update({ id: row.id }, { version: row.version + 1 })
    const change = {
      entity: 'assembly',
      entityId: row.id,
      entityVersion: row.version + 1,
      action: 'moveUndone',
      summary: `${await titleOf(row)}: the last move was taken back`,
    }
    await recordChange(actor, { ...change, assemblyId: row.id, machineId: before.machineId })
    if (last.machineId && last.machineId !== before.machineId)
      await recordChange(actor, { ...change, machineId: last.machineId })
  })
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

export async function returnAssembly(actor: Actor, input: { id: string; version: number }): Promise<void> {
  requirePermission(actor, 'fleet.edit')
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

/** Called inside `write()`. Writes the stay and, on a machine, which meter counts it from then on. */
async function placeAssembly(
  actor: Actor,
  row: AssemblyRow,
  place: PlaceInput,
  at: string,
  reason: string,
  prefix: string,
  id: string = uuid(),
): Promise<{ machineId: string | null; words: string }> {
  const recorded = { recordedAt: now(), recordedById: actor.id, status: 'active' as const }
  const stay: Omit<FittingRow, 'machineId' | 'yardId' | 'slot'> = {
    id,
    assemblyId: row.id,
    at,
    reason,
    supersedesId: null,
    ...recorded,
  }
  if (place.where === 'shelf') {
    const yard = await yards.byId(place.yardId)
    if (!yard) throw invalid({ [`${prefix}yardId`]: 'Choose a yard.' })
    await fittings.insert({ ...stay, machineId: null, yardId: yard.id, slot: place.bin })
    return { machineId: null, words: `on the shelf, ${yard.name}` }
  }
  const machine = await machines.byId(place.machineId)
  if (!machine) throw invalid({ [`${prefix}machineId`]: 'Choose a machine.' })
  if (machine.retiredOn) throw invalid({ [`${prefix}machineId`]: `${machine.number} is retired.` })
  const meter = await meters.byId(place.meterId)
  if (!meter || meter.machineId !== machine.id) {
    throw invalid({ [`${prefix}meterId`]: `Choose a meter of ${machine.number}.` })
  }
  if ((meter.kind === 'strokes') !== (row.usageScale === 'strokes')) {
    throw invalid({
      [`${prefix}meterId`]: `${row.number} is counted in ${row.usageScale === 'h' ? 'hours' : 'strokes'}; choose such a meter.`,
    })
  }
  await fittings.insert({ ...stay, machineId: machine.id, yardId: null, slot: place.slot })
  await dutyShares.insert({
    id: uuid(),
    assemblyId: row.id,
    meterId: meter.id,
    share: place.shareBasis === 'own' ? 1 : place.share,
    basis: place.shareBasis,
    at,
    ...recorded,
  })
  return { machineId: machine.id, words: `fitted to ${machine.number}${place.slot ? `, ${place.slot}` : ''}` }
}

async function requireModel(values: Pick<AssemblyInput, 'modelId'>, prefix = ''): Promise<void> {
  if (values.modelId && !(await pumpModels.byId(values.modelId))) {
    throw invalid({ [`${prefix}modelId`]: 'Choose a pump model from the list.' })
  }
}

async function titleOf(row: AssemblyRow): Promise<string> {
  const model = row.modelId ? await pumpModels.byId(row.modelId) : null
  return `${row.number} ${model ? `${model.maker} ${model.name}` : row.name}`
}
