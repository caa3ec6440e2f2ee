import 'server-only'
import {
  cumulativeHours,
  meterValue,
  type CumulativeLine,
  type History,
  type MeterEvent,
  type MeterFace,
  type Reading,
} from '@/core/hours'
import { keptEach } from '@/db/house'
import {
  meterEvents,
  meters,
  type MeterEventRow,
  type MeterRow,
  acceptedReadings,
  readings,
  type ReadingRow,
} from '@/db/hours'
import { breathe, groupBy } from '../house'
import { loadStanding } from './standing'

export function faceOf(meter: Pick<MeterRow, 'kind' | 'digits' | 'decimals'>): MeterFace {
  return { unit: meter.kind === 'strokes' ? 'strokes' : 'h', digits: meter.digits, decimals: meter.decimals }
}

export function asReading(row: Pick<ReadingRow, 'id' | 'at' | 'raw' | 'decimals'>): Reading {
  return { id: row.id, at: row.at, value: meterValue(row.raw, row.decimals) }
}

export function asMeterEvent(row: MeterEventRow): MeterEvent {
  const value = (raw: number | null) => (raw === null ? null : meterValue(raw, row.decimals))
  return row.kind === 'change'
    ? {
        kind: 'change',
        id: row.id,
        at: row.at,
        lastValue: value(row.lastRaw),
        firstValue: value(row.firstRaw) ?? 0,
        assumed: row.assumed === 1,
      }
    : { kind: 'rollOver', id: row.id, at: row.at, span: row.span ?? 0 }
}

/** Everything that was ever read on a meter, and what its clocks stand on. */
export async function historyOf(
  meter: MeterRow,
): Promise<{ rows: ReadingRow[]; eventRows: MeterEventRow[]; history: History }> {
  const [rows, eventRows, standingOf] = await Promise.all([
    readings.all({ meterId: meter.id }, [['at', 'ASC']]),
    meterEvents.all({ meterId: meter.id, status: 'active' }, [['at', 'ASC']]),
    loadStanding([meter.machineId]),
  ])
  const accepted = rows.filter((row) => row.status === 'accepted').map(asReading)
  return {
    rows,
    eventRows,
    history: {
      face: faceOf(meter),
      readings: accepted,
      events: eventRows.map(asMeterEvent),
      standing: standingOf(meter.machineId),
    },
  }
}

/** The cumulative lines of some meters, or of all that there are; each is kept until something is read on it. */
export async function linesOf(meterIds?: string[]): Promise<Map<string, CumulativeLine>> {
  const ids = meterIds ?? (await meters.every()).map((meter) => meter.id)
  return keptEach('line', ids, ['readings', 'meter_events'], makeLines)
}

/** Beyond so many meters all are read at once. */
const mostNamed = 100

async function makeLines(meterIds: string[]): Promise<Map<string, CumulativeLine>> {
  const some = meterIds.length > mostNamed ? undefined : meterIds
  const [accepted, events] = await Promise.all([
    acceptedReadings(some),
    meterEvents.all({ status: 'active', ...(some ? { meterId: some } : {}) }),
  ])
  const eventsOf = groupBy(events, (event) => event.meterId)
  const lines = new Map<string, CumulativeLine>()
  for (const meterId of new Set([...accepted.keys(), ...eventsOf.keys()])) {
    await breathe()
    const read = (accepted.get(meterId) ?? []).map(([id, at, raw, decimals]): Reading => ({
      id,
      at,
      value: meterValue(raw, decimals),
    }))
    lines.set(meterId, cumulativeHours(read, (eventsOf.get(meterId) ?? []).map(asMeterEvent)))
  }
  return lines
}
