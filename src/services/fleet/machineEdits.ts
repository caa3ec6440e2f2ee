import 'server-only'
import {
  machineSchema,
  newMachineSchema,
  retireSchema,
  type MachineInput,
  type NewMachineInput,
  type RetireInput,
} from '@/core/fleet'
import { meterValue, readMeterValue } from '@/core/hours'
import { conflict, invalid, notFound, check, referenceSchema, type Reference } from '@/core/problem'
import { write } from '@/db/house'
import { fittings, machines, type MachineRow, yards } from '@/db/fleet'
import { type MeterRow } from '@/db/hours'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  editRow,
  requireUnique,
} from '../house'
import { insertAssembly } from './assemblies'
import { loadAssemblies } from '../wear'
import { faceOf, insertMeter, recordReading } from '../hours'
import { recordMoved } from '../winter'

/** Adds a machine with its first meter, that meter's first reading, and its pump: all of it or nothing. */
export async function addMachine(actor: Actor, input: NewMachineInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { meter, pump, version: _version, ...machine } = check(newMachineSchema, input)
  await write(async () => {
    if (await machines.byId(machine.id)) return
    await requireFreeNumber(machine.number, machine.id)
    await requireYard(machine.yardId)
    const row: MachineRow = { ...machine, retiredOn: null, retiredReason: '', createdAt: now(), version: 1 }
    await machines.insert(row)
    await recordChange(actor, {
      entity: 'machine',
      entityId: row.id,
      entityVersion: 1,
      machineId: row.id,
      action: 'added',
      summary: `${row.number} ${row.name} added`,
      after: row,
    })
    const { firstTyped, firstDay, ...meterInput } = meter
    const meterRow = await insertMeter(actor, row.id, meterInput)
    if (firstTyped !== '') await recordFirstReading(actor, meterRow, firstTyped, firstDay)
    if (pump) {
      const { slot, share, shareBasis, ...assembly } = pump
      const place = {
        where: 'machine' as const,
        machineId: row.id,
        meterId: meterRow.id,
        slot,
        share,
        shareBasis,
      }
      await insertAssembly(actor, { ...assembly, kind: 'pump', name: '' }, place, {
        own: 'pump.',
        place: 'pump.',
      })
    }
  })
}

async function recordFirstReading(actor: Actor, meter: MeterRow, typed: string, day: string): Promise<void> {
  const { today, time } = present(await ourCompany())
  const parsed = readMeterValue(typed, faceOf(meter))
  if (!parsed.ok) throw invalid({ 'meter.firstTyped': parsed.reason })
  if (meter.digits !== null && meterValue(parsed.raw, meter.decimals) >= 10 ** meter.digits) {
    throw invalid({ 'meter.firstTyped': `This meter has only ${meter.digits} digits before the point.` })
  }
  if (day > today) throw invalid({ 'meter.firstDay': 'This day is still to come.' })
  await recordReading(
    actor,
    {
      id: meter.id,
      meterId: meter.id,
      day,
      time: day === today ? time : '08:00',
      typed,
      readBy: '',
      note: '',
      vouched: true,
    },
    'start',
  )
}

export async function saveMachine(actor: Actor, input: MachineInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, ...values } = check(machineSchema, input)
  await write(async () => {
    await requireFreeNumber(values.number, id)
    await requireYard(values.yardId)
    const before = await machines.byId(id)
    await editRow(
      actor,
      machines,
      { entity: 'machine', name: values.number },
      { id, version: version! },
      values,
      {
        machineId: id,
        action: 'changed',
        summary: `${values.number} changed`,
      },
    )
    if (before) await recordMoved(actor, id, before, values)
  })
}

export async function retireMachine(actor: Actor, input: RetireInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, reason } = check(retireSchema, input)
  await write(async () => {
    const row = await machines.byId(id)
    if (!row) throw notFound('This machine')
    const stays = await fittings.all({ machineId: id, status: 'active' })
    const here =
      stays.length === 0 ? [] : await loadAssemblies([...new Set(stays.map((stay) => stay.assemblyId))])
    const fitted = here
      .filter((assembly) => assembly.place.machineId === id)
      .map((assembly) => assembly.number)
    if (fitted.length > 0) {
      throw conflict(
        `${row.number} still has ${fitted.join(', ')} on it. Move them to the shelf or another machine first.`,
      )
    }
    const { today } = present(await ourCompany())
    await editRow(
      actor,
      machines,
      { entity: 'machine', name: row.number },
      { id, version },
      { retiredOn: today, retiredReason: reason },
      {
        machineId: id,
        action: 'retired',
        summary: `${row.number} retired`,
        reason,
      },
    )
  })
}

export async function returnMachine(actor: Actor, asked: Reference): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const input = check(referenceSchema, asked)
  await write(async () => {
    const row = await machines.byId(input.id)
    if (!row) throw notFound('This machine')
    await editRow(
      actor,
      machines,
      { entity: 'machine', name: row.number },
      input,
      { retiredOn: null, retiredReason: '' },
      {
        machineId: row.id,
        action: 'returned',
        summary: `${row.number} brought back into service`,
      },
    )
  })
}

async function requireFreeNumber(number: string, ownId: string): Promise<void> {
  await requireUnique(machines, { number }, ownId, 'number', 'Another machine has this number.')
}

async function requireYard(yardId: string): Promise<void> {
  if (!(await yards.byId(yardId))) throw invalid({ yardId: 'Choose a yard from the list.' })
}
