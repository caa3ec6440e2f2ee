import 'server-only'
import { v7 as uuid } from 'uuid'
import {
  dutySchema,
  moveSchema,
  undoMoveSchema,
  type DutyInput,
  type MoveInput,
  type PlaceInput,
} from '@/core/fleet'
import { conflict, invalid, type ProblemError, check } from '@/core/problem'
import { showNumber } from '@/core/units'
import { Op, write } from '@/db/house'
import {
  assemblies,
  dutyShares,
  fittings,
  type AssemblyRow,
  type FittingRow,
  machines,
  type MachineRow,
  yards,
} from '@/db/fleet'
import { meters, type MeterRow } from '@/db/hours'
import { pumpModels } from '@/db/models'
import { requirePermission, type Actor, recordChange, now, requireFresh } from '../house'
import { pastInstant, keepReading } from '../hours'

/**
 * Moves an assembly to another machine, another place or the shelf; its hours and its record go with it.
 * @returns the meters whose reading of that moment is in doubt, and so does not count yet
 */
export async function moveAssembly(actor: Actor, input: MoveInput): Promise<{ doubted: string[] }> {
  requirePermission(actor, 'fleet.edit')
  const move = check(moveSchema, input)
  const at = await pastInstant(move.day, move.time)
  return write(async () => {
    if (await fittings.byId(move.id)) return { doubted: [] }
    const read = { id: move.assemblyId, version: move.version }
    const row = await requireFresh(assemblies, { entity: 'assembly', name: 'this pump' }, read)
    if (row.retiredOn) throw conflict(`${row.number} is retired. Bring it back into service first.`)
    const stays = await fittings.all({ assemblyId: row.id, status: 'active' }, [['at', 'ASC']])
    const last = stays.at(-1)
    if (last && at <= last.at) {
      throw invalid({ day: 'It was not yet at its present place then. Enter a later day or time.' })
    }
    const doubted = await readWhenMoved(actor, move, at, last?.machineId ? await countedByNow(row.id) : null)
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
    return { doubted }
  })
}

/** Keeps the readings taken as it moved, of the meter it leaves and of the one that counts it from then on; names those in doubt. */
async function readWhenMoved(
  actor: Actor,
  move: MoveInput,
  at: string,
  leaves: string | null,
): Promise<string[]> {
  const { place, offTyped, onTyped } = move
  const goesTo = place.where === 'machine' ? place.meterId : null
  const told = [
    { meterId: leaves, typed: offTyped, field: 'offTyped', part: 'off' },
    { meterId: goesTo === leaves ? null : goesTo, typed: onTyped, field: 'onTyped', part: 'on' },
  ]
  const doubted: string[] = []
  for (const { meterId, typed, field, part } of told) {
    if (!meterId || !typed) continue
    const id = `${move.id.slice(0, 32)}-${part}`
    const reading = { id, meterId, typed, vouched: false, readBy: actor.name, note: '' }
    const { status } = await keepReading(actor, reading, at, 'typed').catch((problem) => {
      throw renamed(problem, 'typed', field)
    })
    if (status === 'doubted') doubted.push((await meters.byId(meterId))!.name)
  }
  return doubted
}

/** A problem with a field told under the name that the form at hand gives it. */
function renamed(problem: unknown, from: string, to: string): unknown {
  const told = (problem as Partial<ProblemError>).problem
  return told?.kind === 'invalid' && told.fields[from] ? invalid({ [to]: told.fields[from] }) : problem
}

async function countedByNow(assemblyId: string): Promise<string | null> {
  const [share] = await dutyShares.all({ assemblyId, status: 'active' }, [['at', 'DESC']], 1)
  return share?.meterId ?? null
}

/**
 * From an instant on another meter of its machine, or another share of it, counts a fitted assembly.
 * Hours counted before that instant are never restated.
 */
export async function changeDuty(actor: Actor, input: DutyInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const duty = check(dutySchema, input)
  const at = await pastInstant(duty.day, duty.time)
  await write(async () => {
    if (await dutyShares.byId(duty.id)) return
    const read = { id: duty.assemblyId, version: duty.version }
    const row = await requireFresh(assemblies, { entity: 'assembly', name: 'this pump' }, read)
    const [place] = await fittings.all({ assemblyId: row.id, status: 'active' }, [['at', 'DESC']], 1)
    const machine = place?.machineId ? await machines.byId(place.machineId) : null
    if (!place || !machine)
      throw conflict(`${row.number} lies on the shelf: nothing counts it there. Fit it first.`)
    if (at <= place.at)
      throw invalid({ day: `It came onto ${machine.number} later than this. Enter a later day or time.` })
    const [last] = await dutyShares.all({ assemblyId: row.id, status: 'active' }, [['at', 'DESC']], 1)
    if (last && at <= last.at)
      throw invalid({ day: 'Its share was changed later than this already. Enter a later day or time.' })
    const meter = await meterThatCounts(row, machine, duty.meterId, 'meterId')
    const share = duty.shareBasis === 'own' ? 1 : duty.share
    if (last && last.meterId === meter.id && last.share === share && last.basis === duty.shareBasis)
      throw invalid({ share: 'This is how it is counted now.' })
    const after = {
      id: duty.id,
      assemblyId: row.id,
      meterId: meter.id,
      share,
      basis: duty.shareBasis,
      at,
      status: 'active' as const,
      recordedAt: now(),
      recordedById: actor.id,
    }
    await dutyShares.insert(after)
    await assemblies.update({ id: row.id }, { version: row.version + 1 })
    await recordChange(actor, {
      entity: 'assembly',
      entityId: row.id,
      entityVersion: row.version + 1,
      assemblyId: row.id,
      machineId: machine.id,
      action: 'dutyChanged',
      summary: `${row.number} counted by ${meter.name}, ${share === 1 ? 'all of it' : `${showNumber(Math.round(share * 1000) / 10)} % of it`}`,
      reason: duty.reason,
      before: last ? { share: last.share, basis: last.basis } : null,
      after: { share, basis: duty.shareBasis },
    })
  })
}

/** Takes back the newest move of an assembly, as if it had stayed; the record keeps both. */
export async function undoMove(
  actor: Actor,
  asked: { assemblyId: string; fittingId: string },
): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(undoMoveSchema, asked)
  await write(async () => {
    const row = await assemblies.byId(input.assemblyId)
    const stays = await fittings.all({ assemblyId: input.assemblyId, status: 'active' }, [['at', 'ASC']])
    const last = stays.at(-1)
    const before = stays.at(-2)
    if (!row || !last || !before || last.id !== input.fittingId) {
      throw conflict('It has moved again since. Move it back instead.')
    }
    await fittings.update({ id: last.id }, { status: 'superseded' })
    // What was said of its share since belongs to the stay that never was.
    await dutyShares.update({ assemblyId: row.id, status: 'active', at: { [Op.gte]: last.at } } as never, {
      status: 'superseded',
    })
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

/** Called inside `write()`. Writes the stay and, on a machine, which meter counts it from then on. */
export async function placeAssembly(
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
  const meter = await meterThatCounts(row, machine, place.meterId, `${prefix}meterId`)
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

/** A meter in service of that machine, on the assembly's own scale. @throws `invalid` at `field` */
async function meterThatCounts(
  row: AssemblyRow,
  machine: MachineRow,
  meterId: string,
  field: string,
): Promise<MeterRow> {
  const meter = await meters.byId(meterId)
  if (!meter || meter.machineId !== machine.id || meter.retiredOn)
    throw invalid({ [field]: `Choose a meter of ${machine.number}.` })
  if ((meter.kind === 'strokes') !== (row.usageScale === 'strokes'))
    throw invalid({
      [field]: `${row.number} is counted in ${row.usageScale === 'h' ? 'hours' : 'strokes'}; choose such a meter.`,
    })
  return meter
}

export async function titleOf(row: AssemblyRow): Promise<string> {
  const model = row.modelId ? await pumpModels.byId(row.modelId) : null
  return `${row.number} ${model ? `${model.maker} ${model.name}` : row.name}`
}
