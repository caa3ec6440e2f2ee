import 'server-only'
import { isOpen, visitNumber } from '@/core/plan'
import { invalid, notFound, check } from '@/core/problem'
import {
  answersTo,
  rangeFault,
  retireToolSchema,
  toolClashes,
  toolSchema,
  type RetireToolInput,
  type ToolBooking,
  type ToolInput,
  type ToolPage,
  type ToolView,
} from '@/core/tools'
import type { Wrench } from '@/core/torque'
import { write } from '@/db/house'
import { machines, yards } from '@/db/fleet'
import { tools, type ToolRow } from '@/db/tools'
import { visits } from '@/db/plan'
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
import { composeItems, unitsOf } from '../composing'
import { companyPractices } from '../practices'

/** The register: every wrench and special tool, what is out of calibration, and who takes what when. */
export async function getTools(_actor: Actor): Promise<ToolPage> {
  const [rows, yardRows, bookings, company] = await Promise.all([
    tools.all({}, [['number', 'ASC']]),
    yards.all({}, [['name', 'ASC']]),
    toolBookings(),
    ourCompany(),
  ])
  const { today } = present(company)
  const inUse = rows.filter((row) => !row.retiredOn)
  // Wrenches first, what is out of use last.
  const order = (row: ToolRow) => (row.retiredOn ? 2 : row.kind === 'torqueWrench' ? 0 : 1)
  return {
    tools: [...rows]
      .sort((a, b) => order(a) - order(b))
      .map((row): ToolView => {
        const { createdAt: _createdAt, ...tool } = row
        return {
          ...tool,
          yard: yardRows.find((yard) => yard.id === row.yardId)?.name ?? '',
          outOfCalibration: row.calibrationDue !== null && row.calibrationDue < today,
          visits: bookings
            .filter((booking) => booking.tools.some((name) => answersTo(row, name)))
            .map(({ visitId, number, day, yard }) => ({ visitId, number, day, yard })),
        }
      }),
    clashes: toolClashes(bookings, inUse),
    missing: askedFor(bookings).filter(({ name }) => !inUse.some((tool) => answersTo(tool, name))),
    yards: yardRows.map((yard) => ({ value: yard.id, label: yard.name })),
  }
}

/** The wrenches in use, for saying which one fits which step. */
export async function listWrenches(): Promise<Wrench[]> {
  const rows = await tools.all({ kind: 'torqueWrench', retiredOn: null }, [['number', 'ASC']])
  return rows.map(({ id, number, name, rangeFrom, rangeTo, rangeUnit, leverMm, calibrationDue }) => ({
    id,
    number,
    name,
    rangeFrom,
    rangeTo,
    rangeUnit,
    leverMm,
    calibrationDue,
  }))
}

/** The special tools of every open visit. */
export async function toolBookings(): Promise<ToolBooking[]> {
  const [rows, machineRows, yardRows, practices] = await Promise.all([
    visits.all({}, [['day', 'ASC']]),
    machines.every(),
    yards.every(),
    companyPractices(),
  ])
  const open = rows.filter((visit) => isOpen(visit.state))
  const units = await unitsOf(open.flatMap((visit) => visit.items))
  return open.map((visit) => {
    const machine = machineRows.find((each) => each.id === visit.machineId)
    return {
      visitId: visit.id,
      number: visitNumber(visit.number),
      day: visit.day,
      yard: yardRows.find((yard) => yard.id === machine?.yardId)?.name ?? 'the shelf',
      tools: composeItems(visit.items, units, practices)
        .tools.filter((tool) => tool.special)
        .map((tool) => tool.name),
    }
  })
}

/** Special tools that the visits to come ask for, with the visits. */
function askedFor(bookings: ToolBooking[]): ToolPage['missing'] {
  const asked = new Map<string, string[]>()
  for (const { tools: names, number } of bookings)
    for (const name of names) asked.set(name, [...(asked.get(name) ?? []), number])
  return [...asked].map(([name, numbers]) => ({ name, visits: numbers }))
}

export async function saveTool(actor: Actor, input: ToolInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, ...values } = check(toolSchema, input)
  const fault = rangeFault(values)
  if (fault) throw invalid(fault)
  await write(async () => {
    await requireUnique<ToolRow>(
      tools,
      { number: values.number },
      id,
      'number',
      `There is a tool ${values.number} already.`,
    )
    const what = { entity: 'tool', name: `tool ${values.number}` }
    if (version !== undefined) {
      await editRow(actor, tools, what, { id, version }, values, {
        action: 'changed',
        summary: `Tool ${values.number} changed`,
      })
      return
    }
    if (await tools.byId(id)) return
    const row: ToolRow = { id, ...values, retiredOn: null, retiredReason: '', createdAt: now(), version: 1 }
    await tools.insert(row)
    await recordChange(actor, {
      entity: 'tool',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `Tool ${values.number} ${values.name} added`,
      after: row,
    })
  })
}

/** Takes a tool out of use: lost, broken, sold. Its line in the record stays. */
export async function retireTool(actor: Actor, input: RetireToolInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, reason } = check(retireToolSchema, input)
  await write(async () => {
    const row = await tools.byId(id)
    if (!row) throw notFound('This tool')
    const { today } = present(await ourCompany())
    await editRow(
      actor,
      tools,
      { entity: 'tool', name: `tool ${row.number}` },
      { id, version },
      { retiredOn: today, retiredReason: reason },
      { action: 'retired', summary: `Tool ${row.number} taken out of use`, reason },
    )
  })
}
