import type { VerdictKind } from '@/core/hours'
import { id, text, whole, select, table } from '../house'

export type ReadingRow = {
  id: string
  meterId: string
  at: string
  /** A whole number of the meter's smallest digit; `decimals` says where the point stands. */
  raw: number
  decimals: number
  /** What was typed, as typed. */
  typed: string
  status: 'accepted' | 'doubted' | 'superseded'
  verdict: VerdictKind
  reason: string
  /** Why a person vouched for it, corrected it or withdrew it. */
  vouchedReason: string
  source: 'typed' | 'round' | 'phone' | 'file' | 'gateway' | 'sheet' | 'start'
  readBy: string
  note: string
  supersedesId: string | null
  /** 1 where it counted until later readings contradicted it. */
  outvoted: number
  recordedAt: string
  recordedById: string
  settledAt: string | null
  settledById: string | null
}

export const readings = table<ReadingRow>('readings', {
  id,
  meterId: text,
  at: text,
  raw: whole,
  decimals: whole,
  typed: text,
  status: text,
  verdict: text,
  reason: text,
  vouchedReason: text,
  source: text,
  readBy: text,
  note: text,
  supersedesId: text,
  outvoted: whole,
  recordedAt: text,
  recordedById: text,
  settledAt: text,
  settledById: text,
})

/** The accepted readings of some meters (all of them when none are named), oldest first: what clocks stand on. */
export function acceptedReadings(meterIds?: string[]) {
  if (meterIds?.length === 0) return Promise.resolve([])
  return select<{ id: string; meterId: string; at: string; raw: number; decimals: number }>(
    `SELECT id, "meterId", at, raw, decimals FROM readings
     WHERE status = 'accepted' ${meterIds ? 'AND "meterId" IN (:meterIds)' : ''}
     ORDER BY "meterId", at`,
    { meterIds },
  )
}

/** How many readings of each meter are in doubt. */
export function doubtedCounts() {
  return select<{ meterId: string; count: number }>(
    `SELECT "meterId", COUNT(*) AS count FROM readings WHERE status = 'doubted' GROUP BY "meterId"`,
  )
}
