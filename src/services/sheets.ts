import 'server-only'
import { v7 as uuid } from 'uuid'
import { meterValue } from '@/core/hours'
import { isOpen, visitNumber, type VisitItem } from '@/core/planning'
import { conflict, notFound } from '@/core/problem'
import { check } from '@/core/problem/check'
import { allPositions, positionName } from '@/core/pump'
import { splitInstance, type Fastener } from '@/core/pump'
import {
  abandonSchema,
  startSheetSchema,
  unplannedSheetSchema,
  type AbandonInput,
  type SheetAssembly,
  type SheetContent,
  type SheetEntry,
  type StartSheetInput,
  type UnplannedSheetInput,
} from '@/core/sheet'
import type { BenchMeter, SheetLine, SheetPage } from '@/core/sheet/views'
import { wrenchWords } from '@/core/torque'
import { whereWords } from '@/core/wear'
import { Op, write } from '@/db'
import { assemblies } from '@/db/assemblies'
import { machines } from '@/db/machines'
import { meters } from '@/db/meters'
import { people } from '@/db/people'
import { pumpModelVersions } from '@/db/pumpModels'
import { sheetEntries, sheets, tickCounts, type SheetEntryRow, type SheetRow } from '@/db/sheets'
import { visits } from '@/db/visits'
import { yards } from '@/db/yards'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { now } from './clock'
import { ourCompany, present } from './company'
import { companyPractices } from './practices'
import { listWrenches } from './tools'
import { composeItems, composeOrRefuse, jobsOf, modelsOf, placeAndItems } from './composing'
import { dayOf } from './days'
import { editRow } from './edit'
import { faceOf, historyOf } from './meterHistory'
import { listBenchParts } from './stores'
import { getWear } from './wear'

/** Every open sheet, and the newest closed ones. */
export async function listSheets(
  _actor: Actor,
  closed = 100,
): Promise<{ open: SheetLine[]; closed: SheetLine[] }> {
  const [open, done] = await Promise.all([
    sheets.all({ state: 'open' }, [['startedAt', 'DESC']]),
    sheets.all({ state: ['signed', 'abandoned'] }, [['startedAt', 'DESC']], closed),
  ])
  const lines = await asLines([...open, ...done])
  return { open: lines.slice(0, open.length), closed: lines.slice(open.length) }
}

/** The sheets of one machine or one pump, newest first: its service record. */
export async function sheetsOf(
  _actor: Actor,
  subject: { machineId: string } | { assemblyId: string },
): Promise<SheetLine[]> {
  return asLines(await sheetRowsOf(subject))
}

export function sheetRowsOf(subject: { machineId: string } | { assemblyId: string }): Promise<SheetRow[]> {
  const where =
    'machineId' in subject
      ? { machineId: subject.machineId }
      : { assemblyIds: { [Op.like]: `%${subject.assemblyId}%` } }
  return sheets.all(where as never, [['startedAt', 'DESC']])
}

/** A sheet with all its entries and what the bench needs around it. */
export async function getSheet(actor: Actor, id: string): Promise<SheetPage> {
  const row = await sheets.byId(id)
  if (!row) throw notFound('This sheet')
  const [[line], entries, wear, parts, benchMeters] = await Promise.all([
    asLines([row]),
    entriesOf(id),
    Promise.all(row.assemblyIds.map((assemblyId) => getWear(actor, assemblyId))),
    listBenchParts(actor),
    metersOf(row),
  ])
  return {
    ...line!,
    entries,
    wear: wear.filter((view) => view !== null),
    parts,
    meters: benchMeters,
  }
}

async function metersOf(row: SheetRow): Promise<BenchMeter[]> {
  if (row.state !== 'open' || row.machineId === null) return []
  const [meterRows, { timeZone }] = await Promise.all([
    meters.all({ machineId: row.machineId, retiredOn: null }, [['name', 'ASC']]),
    ourCompany(),
  ])
  return Promise.all(
    meterRows.map(async (meter) => {
      const { rows, history } = await historyOf(meter)
      const last = rows.findLast((reading) => reading.status === 'accepted')
      return {
        id: meter.id,
        name: meter.name,
        face: faceOf(meter),
        history,
        last: last
          ? {
              value: meterValue(last.raw, last.decimals),
              day: dayOf(last.at, timeZone),
              readBy: last.readBy,
            }
          : null,
      }
    }),
  )
}

/** All entries of a sheet, or those after a sequence, in order. */
export async function entriesOf(sheetId: string, after = 0): Promise<SheetEntry[]> {
  const rows = await sheetEntries.all({ sheetId, sequence: { [Op.gt]: after } } as never, [
    ['sequence', 'ASC'],
  ])
  return rows.map(asEntry)
}

export function asEntry(row: SheetEntryRow): SheetEntry {
  const { sheetId: _sheetId, receivedAt: _receivedAt, late, ...entry } = row
  return { ...entry, late: late === 1 } as SheetEntry
}

/**
 * Opens the sheet of a visit, composed from the model versions the visit was booked with. A visit has
 * one sheet: opening it again, from another tab or tablet, leads to the same one.
 */
export async function startSheet(actor: Actor, input: StartSheetInput): Promise<{ id: string }> {
  requirePermission(actor, 'sheets.work')
  const { id, visitId } = check(startSheetSchema, input)
  return write(async () => {
    if (await sheets.byId(id)) return { id }
    const visit = await visits.byId(visitId)
    if (!visit) throw notFound('This visit')
    const own = await sheets.find({ visitId, state: ['open', 'signed'] })
    if (own) return { id: own.id }
    if (!isOpen(visit.state)) throw conflict('This visit is over or cancelled; book a new one.')
    const { number } = await openSheet(actor, {
      id,
      visitId,
      place: { machineId: visit.machineId, assemblyId: visit.assemblyId },
      items: visit.items,
      trigger: 'planned',
      trouble: '',
    })
    await editRow(
      actor,
      visits,
      { entity: 'visit', name: `visit ${visitNumber(visit.number)}` },
      visit,
      { state: 'inWork' },
      {
        machineId: visit.machineId,
        assemblyId: visit.items[0]?.assemblyId ?? null,
        action: 'begun',
        summary: `Visit ${visitNumber(visit.number)} begun on sheet ${visitNumber(number)}`,
      },
    )
    return { id }
  })
}

/** Opens a sheet without a visit: something broke, and is being mended now. */
export async function startUnplannedSheet(actor: Actor, input: UnplannedSheetInput): Promise<{ id: string }> {
  requirePermission(actor, 'sheets.work')
  const { id, items: asked, trouble } = check(unplannedSheetSchema, input)
  return write(async () => {
    if (await sheets.byId(id)) return { id }
    const { items, place } = await placeAndItems(asked)
    const { number, row } = await openSheet(actor, {
      id,
      visitId: null,
      place,
      items,
      trigger: 'breakdown',
      trouble,
    })
    await recordChange(actor, {
      entity: 'sheet',
      entityId: id,
      machineId: row.machineId,
      assemblyId: row.assemblyIds[0] ?? null,
      action: 'opened',
      summary: `Sheet ${visitNumber(number)} opened for a breakdown`,
      reason: trouble,
    })
    return { id }
  })
}

type Opening = Pick<SheetRow, 'id' | 'visitId' | 'trigger' | 'trouble'> & {
  place: { machineId: string | null; assemblyId: string | null }
  items: VisitItem[]
}

/** Called inside `write()`: the sheet and its first entry, which holds everything it is worked from. */
async function openSheet(actor: Actor, opening: Opening): Promise<{ number: number; row: SheetRow }> {
  const { place, items, ...rest } = opening
  const content = await contentOf(opening)
  const [last] = await sheets.all({}, [['number', 'DESC']], 1)
  const number = (last?.number ?? 0) + 1
  const row: SheetRow = {
    ...rest,
    ...place,
    number,
    assemblyIds: [...new Set(items.map((item) => item.assemblyId))],
    state: 'open',
    startedAt: now(),
    startedById: actor.id,
    workedAt: null,
    signedAt: null,
    signedById: null,
    endReason: '',
    version: 1,
  }
  await sheets.insert(row)
  await appendOwn(actor, row.id, 'composed', content)
  return { number, row }
}

/** What the server itself says on a sheet. Called inside `write()`. */
export async function appendOwn<Kind extends 'composed' | 'signed' | 'correction'>(
  actor: Actor,
  sheetId: string,
  kind: Kind,
  payload: SheetEntry<Kind>['payload'],
  id: string = uuid(),
): Promise<void> {
  const [last] = await sheetEntries.all({ sheetId }, [['sequence', 'DESC']], 1)
  const sequence = (last?.sequence ?? 0) + 1
  const at = now()
  await sheetEntries.insert({
    id,
    sheetId,
    sequence,
    deviceId: 'atelier',
    deviceSeq: sequence,
    seenUpTo: sequence - 1,
    deviceTime: at,
    at,
    receivedAt: at,
    stepKey: null,
    kind,
    payload,
    byId: actor.id,
    byName: actor.name,
    late: 0,
  })
}

async function contentOf({ place, items, trigger, trouble }: Opening): Promise<SheetContent> {
  const [models, practices, wrenches, company] = await Promise.all([
    modelsOf(items),
    companyPractices(),
    listWrenches(),
    ourCompany(),
  ])
  const { today } = present(company)
  const composed =
    trigger === 'planned' ? composeItems(items, models, practices) : composeOrRefuse(items, models, practices)
  const [pumpRows, versionRows, meterRows] = await Promise.all([
    assemblies.all({ id: items.map((item) => item.assemblyId) }),
    pumpModelVersions.all({ id: [...models.keys()] }),
    place.machineId ? meters.all({ machineId: place.machineId, retiredOn: null }, [['name', 'ASC']]) : [],
  ])
  const jobs = jobsOf(items, models)
  return {
    trigger,
    trouble,
    stripOrder: composed.practices.some(({ choice }) => choice === 'oneAtATime')
      ? 'oneAtATime'
      : 'itemByItem',
    meters: meterRows.map((meter) => ({
      id: meter.id,
      name: meter.name,
      unit: meter.kind === 'strokes' ? 'strokes' : 'h',
    })),
    assemblies: jobs.map(({ id: assemblyId, model, tasks }): SheetAssembly => {
      const pump = pumpRows.find((row) => row.id === assemblyId)!
      const versionId = items.find((item) => item.assemblyId === assemblyId)!.modelVersionId
      const version = versionRows.find((row) => row.id === versionId)!
      return {
        id: assemblyId,
        number: pump.number,
        title: `${model.maker} ${model.name}`,
        serial: pump.serial,
        unit: pump.usageScale,
        modelId: version.modelId,
        modelVersionId: versionId,
        modelVersion: version.version,
        notice: model.notice,
        tasks: [
          ...tasks.map((each) => ({ ...each, why: '' })),
          ...composed.implied.filter((each) => each.assemblyId === assemblyId),
        ].map(({ task: key, positions, why }) => {
          const task = model.tasks.find((each) => each.key === key)!
          return {
            task: key,
            name: task.name,
            kind: task.kind,
            positions,
            where: whereWords(model, positions),
            ...(why && { disturbed: why }),
          }
        }),
        positions: allPositions(model).map((key) => {
          const position = model.positions.find((each) => each.key === splitInstance(key).key)!
          return { key, name: positionName(model, key), part: position.part, pieces: position.pieces }
        }),
        parts: model.parts.map(({ key, name, unit }) => ({ key, name, unit })),
        fasteners: model.fasteners.map(
          (fastener) =>
            composed.fasteners.find(
              (each) => each.assemblyId === assemblyId && each.fastener.key === fastener.key,
            )?.fastener ?? fastener,
        ),
      }
    }),
    steps: composed.steps,
    parts: composed.parts,
    spares: composed.spares,
    cautions: composed.cautions,
    practices: composed.practices,
    torques: composed.fasteners.map((need) => ({
      ...need,
      wrenches: stagesOf(need.fastener).map((stage) => wrenchWords(need.fastener, stage, wrenches, today)),
    })),
    tools: composed.tools,
    minutes: composed.minutes,
  }
}

/** The stages of a fastener, from 1; one where it has none. */
function stagesOf({ torque }: Fastener): number[] {
  const count = torque.state === 'stated' ? Math.max(torque.stages.length, 1) : 1
  return Array.from({ length: count }, (_, index) => index + 1)
}

/** Closes a sheet that was opened by mistake or given up; its readings stay, its visit stands again. */
export async function abandonSheet(actor: Actor, input: AbandonInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { id, version, reason } = check(abandonSchema, input)
  await write(async () => {
    const row = await sheets.byId(id)
    if (!row) throw notFound('This sheet')
    if (row.state !== 'open') throw conflict('This sheet is closed already.')
    const around = { machineId: row.machineId, assemblyId: row.assemblyIds[0] ?? null }
    await editRow(
      actor,
      sheets,
      { entity: 'sheet', name: `sheet ${visitNumber(row.number)}` },
      { id, version },
      { state: 'abandoned', endReason: reason },
      {
        ...around,
        action: 'abandoned',
        summary: `Sheet ${visitNumber(row.number)} given up, nothing of it counts`,
        reason,
      },
    )
    const visit = row.visitId ? await visits.byId(row.visitId) : null
    if (visit && isOpen(visit.state))
      await editRow(
        actor,
        visits,
        { entity: 'visit', name: `visit ${visitNumber(visit.number)}` },
        visit,
        { state: 'booked' },
        {
          ...around,
          action: 'booked',
          summary: `Visit ${visitNumber(visit.number)} stands again`,
          reason,
        },
      )
  })
}

async function asLines(rows: SheetRow[]): Promise<SheetLine[]> {
  if (rows.length === 0) return []
  const [composedRows, ticks, machineRows, yardRows, peopleRows, visitRows, { timeZone }] = await Promise.all(
    [
      sheetEntries.all({ sheetId: rows.map((row) => row.id), kind: 'composed' }, [['sequence', 'ASC']]),
      tickCounts(),
      machines.all(),
      yards.all(),
      people.all(),
      visits.all({ id: rows.flatMap((row) => row.visitId ?? []) }),
      ourCompany(),
    ],
  )
  const contents = new Map(composedRows.map((entry) => [entry.sheetId, entry.payload as SheetContent]))
  const nameOf = (id: string | null) => peopleRows.find((person) => person.id === id)?.name ?? ''
  return rows.map((row) => {
    const content = contents.get(row.id)!
    const machine = machineRows.find((each) => each.id === row.machineId)
    const yard = yardRows.find((each) => each.id === machine?.yardId)
    return {
      id: row.id,
      number: row.number,
      state: row.state,
      trigger: row.trigger,
      trouble: row.trouble,
      visitId: row.visitId,
      visitNumber: visitRows.find((visit) => visit.id === row.visitId)?.number ?? null,
      machineNumber: machine?.number ?? null,
      machineName: machine?.name ?? null,
      place: machine
        ? [yard?.name, machine.bay && `bay ${machine.bay}`].filter(Boolean).join(', ')
        : 'on the shelf',
      pumps: content.assemblies.map((assembly) => assembly.number),
      services: content.assemblies.flatMap((assembly) =>
        assembly.tasks.map(({ name, where }) => ({ name, where, pump: assembly.number })),
      ),
      startedOn: dayOf(row.startedAt, timeZone),
      startedBy: nameOf(row.startedById),
      signedOn: row.signedAt && dayOf(row.signedAt, timeZone),
      signedBy: row.signedById && nameOf(row.signedById),
      endReason: row.endReason,
      ticked: ticks.find((each) => each.sheetId === row.id)?.ticks ?? 0,
      steps: content.steps.length,
      version: row.version,
    }
  })
}
