import 'server-only'
import { retireSchema, type RetireInput } from '@/core/fleet'
import { meterSchema, type MeterInput } from '@/core/hours'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { write } from '@/db/house'
import { assemblies, dutyShares, fittings, machines } from '@/db/fleet'
import { meters, type MeterRow, readings } from '@/db/hours'
import { requirePermission, type Actor, recordChange, now, ourCompany, present, editRow } from '../house'

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

/** Takes a meter out of service: it is asked for no more. What it counted stays. */
export async function retireMeter(actor: Actor, input: RetireInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, reason } = check(retireSchema, input)
  await write(async () => {
    const meter = await meters.byId(id)
    if (!meter) throw notFound('This meter')
    const counted = await countedNowBy(meter)
    if (counted.length > 0)
      throw conflict(
        `${meter.name} still counts ${counted.join(', ')}. Say on the pump’s page which meter counts it from now on, then retire this one.`,
      )
    const { today } = present(await ourCompany())
    await editRow(
      actor,
      meters,
      { entity: 'meter', name: meter.name },
      { id, version },
      { retiredOn: today },
      { machineId: meter.machineId, action: 'retired', summary: `Meter retired: ${meter.name}`, reason },
    )
  })
}

export async function returnMeter(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const meter = await meters.byId(input.id)
    if (!meter) throw notFound('This meter')
    await editRow(
      actor,
      meters,
      { entity: 'meter', name: meter.name },
      input,
      { retiredOn: null },
      { machineId: meter.machineId, action: 'returned', summary: `Meter back in service: ${meter.name}` },
    )
  })
}

/** The numbers of the assemblies that stand on its machine and are counted by this meter now. */
async function countedNowBy(meter: MeterRow): Promise<string[]> {
  const byTime: [string, 'ASC'][] = [['at', 'ASC']]
  const shares = await dutyShares.all({ meterId: meter.id, status: 'active' })
  const ids = [...new Set(shares.map((share) => share.assemblyId))]
  const [rows, allShares, stays] = await Promise.all([
    assemblies.all({ id: ids }, [['number', 'ASC']]),
    dutyShares.all({ assemblyId: ids, status: 'active' }, byTime),
    fittings.all({ assemblyId: ids, status: 'active' }, byTime),
  ])
  return rows
    .filter(
      (row) =>
        stays.findLast((stay) => stay.assemblyId === row.id)?.machineId === meter.machineId &&
        allShares.findLast((share) => share.assemblyId === row.id)?.meterId === meter.id,
    )
    .map((row) => row.number)
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
