import 'server-only'
import {
  bypassKinds,
  driveKinds,
  machineKinds,
  storageKinds,
  type MachineLine,
  type MachinePage,
  type MeterPanel,
  type ReadingLine,
} from '@/core/fleet'
import {
  laidUpOn,
  cumulativeHours,
  hoursAt,
  showMeterValue,
  weeklyUse,
  type CumulativeLine,
  type KnownAhead,
} from '@/core/hours'
import { addDays, daysBetween } from '@/core/calendar'
import { notFound } from '@/core/problem'
import { derived, kept } from '@/db/house'
import { fittings, machines, type MachineRow, yards } from '@/db/fleet'
import { meters, type MeterRow, type SpellRow, doubtedCounts } from '@/db/hours'
import { people } from '@/db/access'
import { type Actor, changesAround, ourCompany, present, groupBy, dayOf, timeOf } from '../house'
import { loadAssemblies, pumpsByMachine } from '../wear'
import {
  asReading,
  faceOf,
  historyOf,
  linesOf,
  loadKnown,
  spellsByMachine,
  spellsOf,
  spellToday,
} from '../hours'

/** Every machine by number; each line is derived from its own rows and the line of its meter. */
export async function listMachines(_actor: Actor): Promise<MachineLine[]> {
  const { timeZone } = await ourCompany()
  const { today } = present({ timeZone })
  return kept(`machines ${today}`, () => loadMachines(today, timeZone))
}

async function loadMachines(today: string, timeZone: string): Promise<MachineLine[]> {
  const [rows, yardRows, meterRows, pumps, spells] = await Promise.all([
    machines.every(),
    yards.every(),
    meters.every(),
    kept('pumps by machine', pumpsByMachine),
    spellsByMachine(),
  ])
  const meterIds = meterRows.map((meter) => meter.id)
  const [doubts, lines] = await Promise.all([doubtedCounts(meterIds), linesOf(meterIds)])
  const metersOf = derived('meters in use by machine', [meterRows], () =>
    groupBy(
      meterRows.filter((meter) => meter.retiredOn === null).sort(byCreation),
      (meter) => meter.machineId,
    ),
  )
  const views = [...rows].sort(byNumber).map((row) => {
    const own = metersOf.get(row.id) ?? noMeters
    const doubted = own.reduce((sum, each) => sum + (doubts.get(each.id) ?? 0), 0)
    const yard = yardRows.find((each) => each.id === row.yardId)
    const from = [
      row,
      yard,
      own,
      own[0] && lines.get(own[0].id),
      pumps.get(row.id),
      spells.get(row.id),
    ] as const
    return derived(`machine ${row.id}`, [...from, doubted, today, timeZone], () =>
      machineLine(from, doubted, today, timeZone),
    )
  })
  return derived('machines', views, () => views)
}

const noMeters: MeterRow[] = []
const byNumber = (a: MachineRow, b: MachineRow) => (a.number < b.number ? -1 : 1)
const byCreation = (a: MeterRow, b: MeterRow) => (a.createdAt < b.createdAt ? -1 : 1)

type OfMachine = readonly [
  row: MachineRow,
  yard: { name: string } | undefined,
  meters: MeterRow[],
  line: CumulativeLine | undefined,
  pumps: { number: string; title: string; serial: string }[] | undefined,
  spells: SpellRow[] | undefined,
]

function machineLine(
  [row, yard, own, line, pumps = [], spells = []]: OfMachine,
  doubts: number,
  today: string,
  timeZone: string,
): MachineLine {
  const meter = own[0]
  const newest = line?.points.filter((point) => point.source === 'reading').at(-1)
  const day = newest && dayOf(newest.at, timeZone)
  const ageDays = day === undefined ? null : daysBetween(day, today)
  return {
    yardName: yard?.name ?? '',
    pumps: pumps.map(({ number, title }) => ({ number, title })),
    written: writtenOn(
      row,
      pumps,
      own.map((each) => each.name),
    ),
    meter: meter ? { name: meter.name, unit: faceOf(meter).unit, decimals: meter.decimals } : null,
    lastReading: newest && day !== undefined ? { value: newest.shown, day, ageDays: ageDays! } : null,
    owesReading:
      meter !== undefined &&
      !row.retiredOn &&
      !laidUpOn(spells, today) &&
      (ageDays === null || ageDays > meter.readingIntervalDays),
    owesSince: day !== undefined && meter ? addDays(day, meter.readingIntervalDays + 1) : null,
    spell: spellToday(spells, today),
    weekly: line ? weeklyUse(line, 6) : null,
    doubts,
    ...pick(row),
  }
}

/** Every word of a machine that somebody may look for. */
function writtenOn(
  row: MachineRow,
  pumps: { number: string; title: string; serial: string }[],
  meterNames: string[],
): string {
  return [
    row.number,
    row.name,
    machineKinds[row.kind],
    row.bay,
    row.crew,
    storageKinds[row.storage],
    driveKinds[row.drive],
    row.driveName,
    bypassKinds[row.bypass],
    row.note,
    ...meterNames,
    ...pumps.flatMap((pump) => [pump.number, pump.title, pump.serial]),
  ]
    .filter(Boolean)
    .join(' ')
    .toLowerCase()
}

function pick({ id, number, name, kind, yardId, bay, crew, storage, retiredOn }: MachineRow) {
  return { id, number, name, kind, yardId, bay, crew, storage, retiredOn }
}

export async function getMachine(actor: Actor, reference: string): Promise<MachinePage> {
  const row = (await machines.byId(reference)) ?? (await machines.find({ number: reference }))
  if (!row) throw notFound(`Machine ${reference}`)
  const { timeZone } = await ourCompany()
  const [yard, meterRows, stays, changes, names, spells, known] = await Promise.all([
    yards.byId(row.yardId),
    meters.all({ machineId: row.id }, [['createdAt', 'ASC']]),
    fittings.all({ machineId: row.id, status: 'active' }),
    changesAround({ machineId: row.id }, timeZone),
    people.every(),
    spellsOf(actor, row.id),
    loadKnown([row.id]),
  ])
  const nameOf = new Map(names.map((person) => [person.id, person.name]))
  const assemblies =
    stays.length > 0 ? await loadAssemblies([...new Set(stays.map((stay) => stay.assemblyId))]) : []
  const { createdAt: _createdAt, ...values } = row
  return {
    ...values,
    yardName: yard?.name ?? '',
    meters: await Promise.all(
      meterRows.map((meter) => meterPanel(meter, timeZone, actor, nameOf, known(row.id, meter.id))),
    ),
    fitted: assemblies
      .filter((assembly) => assembly.place.machineId === row.id)
      .map(({ stays: _stays, ...assembly }) => assembly),
    past: assemblies
      .flatMap((assembly) =>
        assembly.stays
          .filter((stay) => stay.machineId === row.id && stay.until !== null)
          .map((stay) => ({ ...stay, number: assembly.number, title: assembly.title })),
      )
      .sort((a, b) => (a.at < b.at ? 1 : -1)),
    spells,
    changes,
  }
}

async function meterPanel(
  meter: MeterRow,
  timeZone: string,
  actor: Actor,
  nameOf: Map<string, string>,
  known: KnownAhead,
): Promise<MeterPanel> {
  const { rows, eventRows, history } = await historyOf(meter)
  const line = (await linesOf([meter.id])).get(meter.id) ?? cumulativeHours([], [])
  const { id, name, kind, digits, decimals, readingIntervalDays, retiredOn, version } = meter
  return {
    id,
    name,
    kind,
    digits,
    decimals,
    readingIntervalDays,
    retiredOn,
    version,
    face: faceOf(meter),
    readings: rows
      .map((row): ReadingLine => ({
        // Five years of readings are on the page: each tells what is shown of it and no more.
        decimals: row.decimals,
        typed: row.typed,
        status: row.status,
        verdict: row.verdict,
        reason: row.status === 'doubted' ? row.reason : '',
        vouchedReason: row.vouchedReason,
        readBy: row.readBy,
        note: row.note,
        supersedesId: row.supersedesId,
        day: dayOf(row.at, timeZone),
        time: timeOf(row.at, timeZone),
        cumulative: row.status === 'accepted' ? hoursAt(line, row.at) : null,
        recordedBy: nameOf.get(row.recordedById) ?? '',
        mine: row.recordedById === actor.id,
        tells: eventRows.find((event) => event.readingId === row.id)?.kind ?? null,
        ...asReading(row),
      }))
      .reverse(),
    history: { readings: history.readings, events: history.events, standing: history.standing ?? [] },
    events: eventRows.map((event) => ({
      id: event.id,
      kind: event.kind,
      at: event.at,
      note: event.note,
      day: dayOf(event.at, timeZone),
      oldLast: event.lastRaw === null ? null : showMeterValue(event.lastRaw, faceOf(meter)),
      assumed: event.assumed === 1,
    })),
    line: line.points.map(({ at, hours, source }) => ({ at, hours, source })),
    total: line.points.at(-1)?.hours ?? null,
    weekly: weeklyUse(line, 6),
    known,
  }
}
