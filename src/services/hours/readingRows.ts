import 'server-only'
import { showMeterValue, type Verdict } from '@/core/hours'
import { type MeterRow, type ReadingRow } from '@/db/hours'
import { type Actor, now } from '../house'
import { faceOf } from './meterHistory'

export type RecordedReading = { id: string; status: ReadingRow['status']; verdict: Verdict; shown: string }

export function newRow(
  actor: Actor,
  meter: MeterRow,
  values: Pick<
    ReadingRow,
    'id' | 'at' | 'raw' | 'typed' | 'status' | 'vouchedReason' | 'source' | 'readBy' | 'note' | 'supersedesId'
  > & {
    verdict: Verdict
  },
): ReadingRow {
  const { verdict, ...rest } = values
  return {
    ...rest,
    meterId: meter.id,
    decimals: meter.decimals,
    verdict: verdict.kind,
    reason: verdict.reason,
    recordedAt: now(),
    recordedById: actor.id,
    outvoted: 0,
    settledAt: null,
    settledById: null,
  }
}

export function shownOf(row: ReadingRow, meter: MeterRow): string {
  return showMeterValue(row.raw, { ...faceOf(meter), decimals: row.decimals })
}
