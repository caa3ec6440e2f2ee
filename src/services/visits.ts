import 'server-only'
import {
  bookingSchema,
  cancelSchema,
  isOpen,
  visitChangeSchema,
  visitNumber,
  visitStates,
  type BookingInput,
  type CancelInput,
  type VisitChangeInput,
  type VisitItem,
  type VisitState,
} from '@/core/planning'
import type { PreparedStep, VisitLine, VisitPage } from '@/core/planning/views'
import { showDay } from '@/core/calendar'
import { composeSheet, type ComposedSheet, type Job, type SheetStep } from '@/core/procedure'
import type { PumpModel } from '@/core/pump'
import { conflict, invalid, notFound, problemOf } from '@/core/problem'
import { check } from '@/core/problem/check'
import { showTorque } from '@/core/torque'
import { whereWords } from '@/core/wear'
import { Op, write } from '@/db'
import { assemblies, fittings, type AssemblyRow } from '@/db/assemblies'
import { machines } from '@/db/machines'
import { people } from '@/db/people'
import { pumpModelVersions } from '@/db/pumpModels'
import { visits, type VisitRow } from '@/db/visits'
import { yards } from '@/db/yards'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { now } from './clock'
import { ourCompany, present } from './company'
import { editRow } from './edit'

const openStates = (Object.keys(visitStates) as VisitState[]).filter(isOpen)

/** Visits of some days, in order. Cancelled ones are left out unless asked for. */
export async function listVisits(_actor: Actor, days: { from: string; to: string }): Promise<VisitLine[]> {
  const rows = await visits.all({ day: { [Op.between]: [days.from, days.to] } } as never, [
    ['day', 'ASC'],
    ['startTime', 'ASC'],
    ['number', 'ASC'],
  ])
  return asLines(rows.filter((row) => row.state !== 'cancelled'))
}

/** Every visit that still stands, whenever it is. */
export async function listOpenVisits(_actor: Actor): Promise<VisitLine[]> {
  return asLines(await visits.all({ state: openStates }, [['day', 'ASC']]))
}

/** The visits of one machine, newest first. */
export async function visitsOfMachine(_actor: Actor, machineId: string): Promise<VisitLine[]> {
  return asLines(await visits.all({ machineId }, [['day', 'DESC']]))
}

/** A visit with its preparation, composed from the very model versions it was booked with. */
export async function getVisit(_actor: Actor, id: string): Promise<VisitPage> {
  const row = await visits.byId(id)
  if (!row) throw notFound('This visit')
  const [line] = await asLines([row])
  const models = await modelsOf(row.items)
  const sheet = compose(row.items, models)
  const sheetModels = new Map(row.items.map((item) => [item.assemblyId, models.get(item.modelVersionId)]))
  return {
    ...line!,
    note: row.note,
    endReason: row.endReason,
    notice: [...new Set([...models.values()].map((model) => model.notice))].filter(Boolean).join(' '),
    parts: sheet.parts,
    tools: sheet.tools,
    minutesOneByOne: sheet.minutesOneByOne,
    steps: sheet.steps.map((step) => asPrepared(step, sheetModels.get(step.assemblyId))),
  }
}

function asPrepared(
  { key, phase, heading, where, step }: SheetStep,
  model: PumpModel | undefined,
): PreparedStep {
  const torque = model?.fasteners.find((fastener) => fastener.key === step.fastener)?.torque
  return {
    key,
    phase,
    heading,
    where,
    text: step.text,
    caution: step.caution,
    torque: torque ? showTorque(torque, step.stage) : '',
    unverified: torque?.state === 'stated' && !torque.verified,
    onlyIf: step.when?.is ?? '',
  }
}

/**
 * Books a visit: some services of the pumps of one machine, or of one pump on a shelf, on a day for a
 * technician. Its minutes are composed, with the shared way in counted once.
 *
 * @throws `invalid` beside the field; `conflict` where one of the services is booked already
 */
export async function bookVisit(actor: Actor, input: BookingInput): Promise<{ number: string }> {
  requirePermission(actor, 'visits.plan')
  const { id, items: asked, ...when } = check(bookingSchema, input)
  return write(async () => {
    const repeated = await visits.byId(id)
    if (repeated) return { number: visitNumber(repeated.number) }
    await requireDayToCome(when.day)
    await requireLead(when.leadId)
    const pumps = await assemblies.all({ id: [...new Set(asked.map((item) => item.assemblyId))] })
    const place = await sharedPlace(pumps)
    const items = asked.map((item): VisitItem => {
      const pump = pumps.find((each) => each.id === item.assemblyId)
      if (!pump?.modelVersionId) throw invalid({ items: 'One of these pumps has no published model.' })
      return { ...item, modelVersionId: pump.modelVersionId }
    })
    const sheet = composeOrRefuse(items, await modelsOf(items))
    await requireNotBooked(items)
    const number = await nextVisitNumber()
    const row: VisitRow = {
      id,
      number,
      ...place,
      day: when.day,
      startTime: when.startTime || null,
      minutes: Math.round(sheet.minutes),
      leadId: when.leadId,
      state: 'booked',
      items,
      note: when.note,
      endReason: '',
      createdAt: now(),
      version: 1,
    }
    await visits.insert(row)
    await recordChange(actor, {
      entity: 'visit',
      entityId: id,
      entityVersion: 1,
      machineId: place.machineId,
      assemblyId: items[0]!.assemblyId,
      action: 'booked',
      summary: `Visit ${visitNumber(number)} booked for ${showDay(when.day)}: ${(await asLines([row]))[0]!.services.map(({ name }) => name).join(', ')}`,
      after: row,
    })
    return { number: visitNumber(number) }
  })
}

export async function changeVisit(actor: Actor, input: VisitChangeInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { id, version, ...values } = check(visitChangeSchema, input)
  await write(async () => {
    const row = await visits.byId(id)
    if (!row) throw notFound('This visit')
    if (!isOpen(row.state)) throw conflict('This visit is over or cancelled; book a new one.')
    if (values.day !== row.day) await requireDayToCome(values.day)
    await requireLead(values.leadId)
    const what = { entity: 'visit', name: `visit ${visitNumber(row.number)}` }
    await editRow(
      actor,
      visits,
      what,
      { id, version },
      { ...values, startTime: values.startTime || null },
      {
        machineId: row.machineId,
        assemblyId: row.items[0]?.assemblyId ?? null,
        action: 'changed',
        summary: `Visit ${visitNumber(row.number)} changed`,
      },
    )
  })
}

export async function cancelVisit(actor: Actor, input: CancelInput): Promise<void> {
  requirePermission(actor, 'visits.plan')
  const { id, version, reason } = check(cancelSchema, input)
  await setState(actor, { id, version }, { state: 'cancelled', endReason: reason }, 'cancelled', reason)
}

/** Takes a cancelling back, unless its services were booked again meanwhile. */
export async function restoreVisit(actor: Actor, input: { id: string; version: number }): Promise<void> {
  requirePermission(actor, 'visits.plan')
  // In one write: nobody can book these services between looking and restoring.
  await write(async () => {
    const row = await visits.byId(input.id)
    if (row) await requireNotBooked(row.items)
    await setState(actor, input, { state: 'booked', endReason: '' }, 'booked again', '')
  })
}

async function setState(
  actor: Actor,
  read: { id: string; version: number },
  values: Partial<VisitRow>,
  verb: string,
  reason: string,
): Promise<void> {
  await write(async () => {
    const row = await visits.byId(read.id)
    if (!row) throw notFound('This visit')
    await editRow(
      actor,
      visits,
      { entity: 'visit', name: `visit ${visitNumber(row.number)}` },
      read,
      values,
      {
        machineId: row.machineId,
        assemblyId: row.items[0]?.assemblyId ?? null,
        action: values.state ?? 'changed',
        summary: `Visit ${visitNumber(row.number)} ${verb}`,
        reason,
      },
    )
  })
}

async function modelsOf(items: VisitItem[]): Promise<Map<string, PumpModel>> {
  const rows = await pumpModelVersions.all({ id: [...new Set(items.map((item) => item.modelVersionId))] })
  return new Map(rows.map((row) => [row.id, row.data]))
}

function compose(items: VisitItem[], models: Map<string, PumpModel>): ComposedSheet {
  const jobs = new Map<string, Job>()
  for (const { assemblyId, modelVersionId, task, positions } of items) {
    const model = models.get(modelVersionId)
    if (!model) throw notFound('The model version of this visit')
    const job = jobs.get(assemblyId) ?? { assemblyId, model, tasks: [] }
    const known = job.tasks.find((each) => each.task === task)
    if (known) known.positions = [...new Set([...known.positions, ...positions])]
    else job.tasks.push({ task, positions })
    jobs.set(assemblyId, job)
  }
  return composeSheet([...jobs.values()])
}

/** A task the model does not have is told beside the list of services. */
function composeOrRefuse(items: VisitItem[], models: Map<string, PumpModel>): ComposedSheet {
  try {
    return compose(items, models)
  } catch (error) {
    const problem = problemOf(error)
    throw problem?.kind === 'invalid' ? invalid({ items: problem.message }) : error
  }
}

/** A visit is on one machine, or on one shelved pump. */
async function sharedPlace(
  pumps: AssemblyRow[],
): Promise<{ machineId: string | null; assemblyId: string | null }> {
  const moves = await fittings.all({ assemblyId: pumps.map((pump) => pump.id), status: 'active' }, [
    ['at', 'ASC'],
  ])
  const places = pumps.map(
    (pump) => moves.filter((move) => move.assemblyId === pump.id).at(-1)?.machineId ?? null,
  )
  const [machineId = null] = places
  if (places.some((place) => place !== machineId))
    throw invalid({ items: 'A visit is on one machine. Book a visit for each.' })
  if (machineId !== null) return { machineId, assemblyId: null }
  if (pumps.length !== 1) throw invalid({ items: 'Pumps on the shelf are serviced one visit each.' })
  return { machineId: null, assemblyId: pumps[0]!.id }
}

async function requireDayToCome(day: string): Promise<void> {
  if (day < present(await ourCompany()).today) throw invalid({ day: 'This day has passed.' })
}

async function requireLead(leadId: string): Promise<void> {
  const lead = await people.byId(leadId)
  if (!lead || lead.retiredOn || lead.role === 'viewer')
    throw invalid({ leadId: 'Choose a technician from the list.' })
}

async function requireNotBooked(items: VisitItem[]): Promise<void> {
  const open = await visits.all({ state: openStates })
  for (const visit of open) {
    const again = visit.items.find((booked) =>
      items.some(
        (item) =>
          item.assemblyId === booked.assemblyId &&
          item.task === booked.task &&
          item.positions.some((position) => booked.positions.includes(position)),
      ),
    )
    if (again)
      throw conflict(
        `One of these services is on visit ${visitNumber(visit.number)} already, on ${showDay(visit.day)}. Change that one instead.`,
      )
  }
}

async function nextVisitNumber(): Promise<number> {
  const [last] = await visits.all({}, [['number', 'DESC']], 1)
  return (last?.number ?? 0) + 1
}

async function asLines(rows: VisitRow[]): Promise<VisitLine[]> {
  if (rows.length === 0) return []
  const company = await ourCompany()
  const { today } = present(company)
  const [models, machineRows, yardRows, names, pumps] = await Promise.all([
    modelsOf(rows.flatMap((row) => row.items)),
    machines.all(),
    yards.all(),
    people.all(),
    assemblies.all({ id: [...new Set(rows.flatMap((row) => row.items.map((item) => item.assemblyId)))] }),
  ])
  return rows.map((row) => {
    const machine = machineRows.find((each) => each.id === row.machineId)
    const yard = yardRows.find((each) => each.id === machine?.yardId)
    return {
      id: row.id,
      number: row.number,
      day: row.day,
      startTime: row.startTime,
      minutes: row.minutes,
      state: row.state,
      machineNumber: machine?.number ?? null,
      machineName: machine?.name ?? null,
      place: machine
        ? [yard?.name, machine.bay && `bay ${machine.bay}`].filter(Boolean).join(', ')
        : 'on the shelf',
      leadId: row.leadId,
      lead: names.find((person) => person.id === row.leadId)?.name ?? '',
      services: row.items.map((item) => {
        const model = models.get(item.modelVersionId)
        return {
          assemblyId: item.assemblyId,
          pump: pumps.find((pump) => pump.id === item.assemblyId)?.number ?? '',
          task: item.task,
          name: model?.tasks.find((task) => task.key === item.task)?.name ?? item.task,
          where: model ? whereWords(model, item.positions) : '',
          positions: item.positions,
        }
      }),
      late: isOpen(row.state) && row.day < today,
      version: row.version,
    }
  })
}
