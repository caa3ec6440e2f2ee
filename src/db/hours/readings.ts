import type { VerdictKind } from '@/core/hours'
import { id, keptEach, text, whole, select, table, type RowOf, orNull, recorded } from '../house'

export const readings = table(
  'readings',
  {
    id,
    meterId: text(),
    at: text(),
    /** A whole number of the meter's smallest digit; `decimals` says where the point stands. */
    raw: whole(),
    decimals: whole(),
    /** What was typed, as typed. */
    typed: text(),
    status: text<'accepted' | 'doubted' | 'superseded'>(),
    verdict: text<VerdictKind>(),
    reason: text(),
    /** Why a person vouched for it, corrected it or withdrew it. */
    vouchedReason: text(),
    source: text<'typed' | 'round' | 'phone' | 'file' | 'gateway' | 'sheet' | 'start'>(),
    readBy: text(),
    note: text(),
    supersedesId: orNull(text()),
    /** 1 where it counted until later readings contradicted it. */
    outvoted: whole(),
    ...recorded,
    settledAt: orNull(text()),
    settledById: orNull(text()),
  },
  'meterId',
)
export type ReadingRow = RowOf<typeof readings>

/** A reading that counts: its id, when, and a whole number of the meter's smallest digit with where the point stands. */
export type AcceptedReading = [id: string, at: string, raw: number, decimals: number]

/**
 * The accepted readings of each of some meters (all of them when none are named), oldest first: what
 * clocks stand on. SQLite hands over one text a meter, beside the thread that answers; a row a reading
 * would be a hundred thousand objects with named values to make on it.
 */
export async function acceptedReadings(meterIds?: string[]): Promise<Map<string, AcceptedReading[]>> {
  if (meterIds?.length === 0) return new Map()
  const rows = await select<{ meterId: string; packed: string }>(
    meterIds ? meterIds.map((each) => `readings/${each}`) : ['readings'],
    `SELECT "meterId", json_group_array(json_array(id, at, raw, decimals) ORDER BY at) AS packed
     FROM readings
     WHERE status = 'accepted' ${meterIds ? 'AND "meterId" IN (:meterIds)' : ''}
     GROUP BY "meterId"`,
    { meterIds },
  )
  return new Map(rows.map(({ meterId, packed }) => [meterId, JSON.parse(packed) as AcceptedReading[]]))
}

/** How many readings of some meters are in doubt. */
export function doubtedCounts(meterIds: string[]): Promise<Map<string, number>> {
  return keptEach('doubted', meterIds, ['readings'], async (ids) => {
    const rows = await select<{ meterId: string; count: number }>(
      ['readings'],
      `SELECT "meterId", COUNT(*) AS count FROM readings WHERE status = 'doubted' GROUP BY "meterId"`,
    )
    const counts = new Map(rows.map(({ meterId, count }) => [meterId, count]))
    return new Map(ids.map((id) => [id, counts.get(id) ?? 0]))
  })
}
