import 'server-only'
import { v7 as uuid } from 'uuid'
import { meterValue } from '@/core/hours'
import { isOpen, visitNumber, type VisitItem } from '@/core/plan'
import { mayDo } from '@/core/access'
import { conflict, notFound, check } from '@/core/problem'
import {
  abandonSchema,
  startSheetSchema,
  unplannedSheetSchema,
  type AbandonInput,
  type SheetEntry,
  type StartSheetInput,
  type UnplannedSheetInput,
  type BenchMeter,
  type SheetLine,
  type SheetPage,
} from '@/core/sheets'
import { grown, Op, write } from '@/db/house'
import { machines, yards } from '@/db/fleet'
import { meters } from '@/db/hours'
import { people } from '@/db/access'
import { lastEntries, sheetEntries, sheets, tickCounts, type SheetRow } from '@/db/sheets'
import { visits, type VisitRow } from '@/db/plan'
import { requirePermission, type Actor, recordChange, now, ourCompany, dayOf, editRow } from '../house'
import { placeAndItems } from '../composing'
import { contentOf } from './content'
import { digestsOf, forgetDigest } from './digests'
import { earlierMeasures, settledTorques } from './history'
import { asEntry, sheetRowsOf } from './rows'
import { faceOf, historyOf } from '../hours'
import { listBenchParts } from '../stores'
import { pumpsOn } from '../winter'
import { getWear } from '../wear'

/** The sheets of one machine or one pump, newest first: its service record. */
export async function sheetsOf(
  _actor: Actor,
  subject: { machineId: string } | { assemblyId: string },
): Promise<SheetLine[]> {
  return asLines(await sheetRowsOf(subject))
}

/** A sheet with all its entries and what the bench needs around it. */
export async function getSheet(actor: Actor, id: string): Promise<SheetPage> {
  const row = await sheets.byId(id)
  if (!row) throw notFound('This sheet')
  const [[line], entries, wear, parts, benchMeters, earlier, settled, colleagues] = await Promise.all([
    asLines([row]),
    entriesOf(id),
    Promise.all(row.assemblyIds.map((assemblyId) => getWear(actor, assemblyId))),
    listBenchParts(actor, row.visitId),
    metersOf(row),
    earlierMeasures(row),
    settledTorques(row),
    people.all({ retiredOn: null }, [['name', 'ASC']]),
  ])
  return {
    ...line!,
    earlier,
    settled,
    now: now(),
    colleagues: colleagues
      .filter((person) => mayDo(person.role, 'sheets.work'))
      .map(({ id: personId, name }) => ({ id: personId, name })),
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

/** All entries of a sheet, in order. They are appended and never changed. */
export function entriesOf(sheetId: string): Promise<SheetEntry[]> {
  return grown<SheetEntry>(`entries/${sheetId}`, (last) => entriesAfter(sheetId, last?.sequence ?? 0))
}

/** Those after a sequence. */
export async function entriesAfter(sheetId: string, after: number): Promise<SheetEntry[]> {
  const rows = await sheetEntries.all({ sheetId, sequence: { [Op.gt]: after } } as never, [
    ['sequence', 'ASC'],
  ])
  return rows.map(asEntry)
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
      winter: visit.winter,
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
  winter?: VisitRow['winter']
}

/** Called inside `write()`: the sheet and its first entry, which holds everything it is worked from. */
async function openSheet(actor: Actor, opening: Opening): Promise<{ number: number; row: SheetRow }> {
  const { place, items, winter, ...rest } = opening
  const content = await contentOf(opening)
  const [last] = await sheets.all({}, [['number', 'DESC']], 1)
  const number = (last?.number ?? 0) + 1
  const row: SheetRow = {
    ...rest,
    ...place,
    number,
    // A sheet of winter alone is its machine's pumps' too.
    assemblyIds:
      items.length === 0 && winter && place.machineId
        ? await pumpsOn(place.machineId)
        : [...new Set(items.map((item) => item.assemblyId))],
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
    takenInById: null,
    takenInByName: '',
    takenInWhy: '',
    at,
    receivedAt: at,
    stepKey: null,
    kind,
    payload,
    byId: actor.id,
    byName: actor.name,
    late: 0,
  })
  await forgetDigest(sheetId)
}

/** Closes a sheet that was opened by mistake or given up; its readings stay, its visit stands again. */
export async function abandonSheet(actor: Actor, input: AbandonInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const { id, version, reason } = check(abandonSchema, input)
  await write(async () => {
    // Closed now: what was seen on it can be looked for.
    await forgetDigest(id)
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

/** Open sheets that somebody left or handed on, and nobody has taken up since. */
async function leftSheets(
  rows: SheetRow[],
): Promise<{ sheetId: string; byName: string; toName: string; words: string }[]> {
  const open = rows.filter((row) => row.state === 'open').map((row) => row.id)
  if (open.length === 0) return []
  const last = await lastEntries(open)
  return last.flatMap((entry) => {
    if (entry.kind !== 'left') return []
    const { toName, words } = entry.payload as SheetEntry<'left'>['payload']
    return [{ sheetId: entry.sheetId, byName: entry.byName, toName, words }]
  })
}

/** Sheets as lists show them, in the order given. */
export async function asLines(rows: SheetRow[]): Promise<SheetLine[]> {
  if (rows.length === 0) return []
  const [digests, ticks, machineRows, yardRows, peopleRows, visitRows, { timeZone }] = await Promise.all([
    digestsOf(rows.map((row) => row.id)),
    tickCounts(),
    machines.every(),
    yards.every(),
    people.every(),
    visits.all({ id: rows.flatMap((row) => row.visitId ?? []) }),
    ourCompany(),
  ])
  const lefts = await leftSheets(rows)
  const nameOf = (id: string | null) => peopleRows.find((person) => person.id === id)?.name ?? ''
  return rows.map((row) => {
    const digest = digests.get(row.id)!
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
      pumps: digest.pumps,
      services: digest.services,
      startedOn: dayOf(row.startedAt, timeZone),
      startedBy: nameOf(row.startedById),
      signedOn: row.signedAt && dayOf(row.signedAt, timeZone),
      signedBy: row.signedById && nameOf(row.signedById),
      endReason: row.endReason,
      extra: digest.extra,
      left: lefts.find((each) => each.sheetId === row.id) ?? null,
      ticked: ticks.find((each) => each.sheetId === row.id)?.ticks ?? 0,
      steps: digest.steps,
      version: row.version,
    }
  })
}
