import 'server-only'
import { toCsv } from '@/core/interchange'
import { visitNumber } from '@/core/plan'
import { notFound } from '@/core/problem'
import {
  causesOn,
  positionLines,
  recordKinds,
  recordLines,
  sheetState,
  workersOf,
  type SheetEntry,
} from '@/core/sheets'
import { assemblies, machines } from '@/db/fleet'
import { sheetEntries, sheets, type SheetEntryRow, type SheetRow } from '@/db/sheets'
import { type Actor, ourCompany, dayOf, timeOf, groupBy } from '../house'
import { asEntry, sheetRowsOf } from '../sheets'
import { listStock } from '../stores'
import { seasonReport } from '../winter'

/** What is handed out: a file's name, its kind and its text. */
export type Download = { name: string; type: string; text: string }
export type Format = 'csv' | 'json'

const types = { csv: 'text/csv; charset=utf-8; header=present', json: 'application/json; charset=utf-8' }

/** The service record of one sheet, or of every signed sheet of a machine or pump. */
export async function exportRecord(
  _actor: Actor,
  subject: { sheet: string } | { machine: string } | { pump: string },
  format: Format,
): Promise<Download> {
  const { rows, name } = await subjectOf(subject)
  const [entryRows, machineRows, company] = await Promise.all([
    sheetEntries.all({ sheetId: rows.map((row) => row.id) }, [['sequence', 'ASC']]),
    machines.every(),
    ourCompany(),
  ])
  const bySheet = groupBy(entryRows, (row) => row.sheetId)
  const records = rows.map((row) => {
    const entries: SheetEntry[] = (bySheet.get(row.id) ?? []).map((entry: SheetEntryRow) => asEntry(entry))
    const state = sheetState(entries)!
    const machine = machineRows.find((each) => each.id === row.machineId)
    return {
      sheet: visitNumber(row.number),
      state: row.state,
      machine: machine ? machine.number : null,
      machineName: machine ? machine.name : null,
      day: dayOf(row.signedAt ?? row.startedAt, company.timeZone),
      signedBy: state.signed?.byName ?? null,
      note: state.signed?.payload.note ?? '',
      pumps: state.content.assemblies.map(({ number, title, serial, modelVersion, tasks }) => ({
        number,
        model: title,
        modelVersion,
        serial,
        services: tasks.map(({ name: service, where, positions }) => ({ service, where, positions })),
      })),
      workedBy: workersOf(entries),
      minutes: { worked: state.workedMinutes, estimated: state.content.minutes },
      positions: positionLines(state),
      causes: causesOn(state),
      next: state.signed?.payload.next ?? [],
      earlyCheckHours: state.signed?.payload.earlyCheckHours ?? null,
      lines: recordLines(state),
      entries,
    }
  })
  if (format === 'json')
    return {
      name: `${name}.json`,
      type: types.json,
      text: JSON.stringify(
        { format: 'atelier-service-record', version: 1, company: company.name, sheets: records },
        null,
        2,
      ),
    }
  const columns = [
    'sheet',
    'state',
    'machine',
    'pump',
    'day',
    'time',
    'kind',
    'item',
    'where',
    'value',
    'unit',
    'detail',
    'by',
  ]
  return {
    name: `${name}.csv`,
    type: types.csv,
    text: toCsv(
      columns,
      records.flatMap((record) =>
        record.lines.map((line) => [
          record.sheet,
          record.state,
          record.machine ?? '',
          line.pump,
          dayOf(line.at, company.timeZone),
          timeOf(line.at, company.timeZone),
          recordKinds[line.kind],
          line.item,
          line.where,
          line.value,
          line.unit,
          line.detail,
          line.by,
        ]),
      ),
    ),
  }
}

async function subjectOf(
  subject: { sheet: string } | { machine: string } | { pump: string },
): Promise<{ rows: SheetRow[]; name: string }> {
  if ('sheet' in subject) {
    const row = await sheets.byId(subject.sheet)
    if (!row) throw notFound('This sheet')
    return { rows: [row], name: `sheet-${visitNumber(row.number)}` }
  }
  if ('machine' in subject) {
    const machine = await machines.find({ number: subject.machine })
    if (!machine) throw notFound('This machine')
    return {
      rows: signed(await sheetRowsOf({ machineId: machine.id })),
      name: fileName(`record-${machine.number}`),
    }
  }
  const pump = await assemblies.find({ number: subject.pump })
  if (!pump) throw notFound('This pump')
  return { rows: signed(await sheetRowsOf({ assemblyId: pump.id })), name: fileName(`record-${pump.number}`) }
}

const signed = (rows: SheetRow[]) => rows.filter((row) => row.state === 'signed')
const fileName = (text: string) => text.replace(/[^\w.-]+/g, '_')

/** The parts list with what is on hand. */
export async function exportParts(actor: Actor, format: Format): Promise<Download> {
  const [lines, company] = await Promise.all([listStock(actor), ourCompany()])
  const parts = lines.filter((line) => !line.retiredOn)
  if (format === 'json')
    return {
      name: 'parts.json',
      type: types.json,
      text: JSON.stringify(
        { format: 'atelier-parts', version: 1, company: company.name, currency: company.currency, parts },
        null,
        2,
      ),
    }
  const columns = [
    'number',
    'name',
    "maker's number",
    'bin',
    'unit',
    'on hand',
    'short',
    'minimum',
    'needed',
    'lead days',
    `price ${company.currency}`,
    'pack',
    'fits',
  ]
  return {
    name: 'parts.csv',
    type: types.csv,
    text: toCsv(
      columns,
      parts.map((part) => [
        part.number,
        part.name,
        part.makersNumber,
        part.bin,
        part.unit,
        part.onHand,
        part.short,
        part.minimum,
        part.needed,
        part.leadDays,
        part.priceCents / 100,
        part.packSize,
        part.fitsModels.join('; '),
      ]),
    ),
  }
}

/** The season report: a line for each zone of each machine. */
export async function exportWinter(actor: Actor, format: Format): Promise<Download> {
  const report = await seasonReport(actor)
  const name = `winter-${report.today}.${format}`
  if (format === 'json') return { name, type: types.json, text: JSON.stringify(report, null, 2) }
  const columns = [
    ...['machine', 'name', 'yard', 'zone', 'method', 'done', 'state', 'day', 'by', 'litres', 'down to °C'],
    ...['proof', 'proved on', `cost ${report.currency}`, 'why', 'damage'],
  ]
  return {
    name,
    type: types.csv,
    text: toCsv(
      columns,
      report.lines.map((line) => [
        ...[
          line.number,
          line.name,
          line.yard,
          line.zone,
          line.method,
          line.done,
          line.state,
          line.day,
          line.by,
        ],
        ...[line.litres, line.downToC === null ? null : Math.round(line.downToC * 10) / 10, line.proof],
        ...[line.provedOn, (line.cents / 100).toFixed(2), line.says, line.damage],
      ]),
    ),
  }
}
