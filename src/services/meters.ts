import 'server-only'
import { meterSchema, type MeterInput } from '@/core/hours'
import { invalid, notFound } from '@/core/problem'
import { check } from '@/core/problem/check'
import { write } from '@/db'
import { machines } from '@/db/machines'
import { meters, type MeterRow } from '@/db/meters'
import { readings } from '@/db/readings'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { now } from './clock'
import { editRow } from './edit'

export async function saveMeter(actor: Actor, machineId: string, input: MeterInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, ...values } = check(meterSchema, input)
  await write(async () => {
    const machine = await machines.byId(machineId)
    if (!machine) throw notFound('This machine')
    if (version === undefined) {
      if (await meters.byId(id)) return
      await insertMeter(actor, machineId, { id, ...values })
      return
    }
    const before = await meters.byId(id)
    const read = before && before.kind !== values.kind && (await readings.count({ meterId: id })) > 0
    const strokes = (kind: string) => kind === 'strokes'
    if (read && strokes(before.kind) !== strokes(values.kind)) {
      throw invalid({
        kind: 'This meter has readings: hours cannot become strokes. Add a new meter instead.',
      })
    }
    await editRow(actor, meters, { entity: 'meter', name: values.name }, { id, version }, values, {
      machineId,
      action: 'changed',
      summary: `Meter changed: ${values.name}`,
    })
  })
}

/** Called inside `write()`. */
export async function insertMeter(
  actor: Actor,
  machineId: string,
  meter: Omit<MeterInput, 'version'>,
): Promise<MeterRow> {
  const { id, name, kind, digits, decimals, readingIntervalDays } = meter
  const row: MeterRow = {
    id,
    machineId,
    name,
    kind,
    digits,
    decimals,
    readingIntervalDays,
    retiredOn: null,
    createdAt: now(),
    version: 1,
  }
  await meters.insert(row)
  await recordChange(actor, {
    entity: 'meter',
    entityId: id,
    entityVersion: 1,
    machineId,
    action: 'added',
    summary: `Meter added: ${name}`,
    after: row,
  })
  return row
}
