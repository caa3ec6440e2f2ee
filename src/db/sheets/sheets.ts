import type { EntryKind, ExtraWork, SheetDigest } from '@/core/sheets'
import { id, json, text, whole, select, table, type RowOf, orNull, recorded } from '../house'

export const sheets = table('sheets', {
  id,
  number: whole(),
  /** Null for a sheet that was opened without a visit. */
  visitId: orNull(text()),
  /** One of the two: the machine it is on, or the shelved assembly. */
  machineId: orNull(text()),
  assemblyId: orNull(text()),
  /** Every assembly that it works on. */
  assemblyIds: json<string[]>(),
  state: text<'open' | 'signed' | 'abandoned'>(),
  trigger: text<'planned' | 'breakdown'>(),
  trouble: text(),
  startedAt: text(),
  startedById: text(),
  /** The instant of the sheet's reading: lives end and begin then. */
  workedAt: orNull(text()),
  signedAt: orNull(text()),
  signedById: orNull(text()),
  /** Why it was abandoned. */
  endReason: text(),
  version: whole(),
})
export type SheetRow = RowOf<typeof sheets>

export const sheetEntries = table(
  'sheet_entries',
  {
    id,
    sheetId: text(),
    sequence: whole(),
    deviceId: text(),
    deviceSeq: whole(),
    seenUpTo: whole(),
    deviceTime: text(),
    at: text(),
    receivedAt: text(),
    stepKey: orNull(text()),
    kind: text<EntryKind>(),
    payload: json<unknown>(),
    byId: text(),
    byName: text(),
    /** Whoever took it in for an author who could not send it any more, and why; null where the author did. */
    takenInById: orNull(text()),
    takenInByName: text(),
    takenInWhy: text(),
    /** 1 where it came in after the sheet was signed. */
    late: whole(),
  },
  'sheetId',
)
export type SheetEntryRow = RowOf<typeof sheetEntries>

/** What lists tell of each sheet, made when it is first asked for and dropped where it changes. */
export const sheetDigests = table('sheet_digests', { id, digest: json<SheetDigest>() })

/** Closed sheets of which nothing is told yet. */
export async function undigestedSheets(): Promise<string[]> {
  const rows = await select<{ id: string }>(
    ['sheets', 'sheet_digests'],
    `SELECT s.id AS id FROM sheets s LEFT JOIN sheet_digests d ON d.id = s.id
     WHERE d.id IS NULL AND s.state <> 'open'`,
  )
  return rows.map(({ id: sheetId }) => sheetId)
}

/** How many steps of each open sheet have been ticked or skipped, from one query. */
export function tickCounts() {
  return select<{ sheetId: string; ticks: number; newest: string }>(
    ['sheets', 'sheet_entries'],
    `SELECT e."sheetId" AS "sheetId", MAX(e.at) AS newest,
            COUNT(DISTINCT CASE WHEN e.kind IN ('done', 'skipped') THEN e."stepKey" END) AS ticks
     FROM sheet_entries e JOIN sheets s ON s.id = e."sheetId"
     WHERE s.state = 'open' GROUP BY e."sheetId"`,
  )
}

/** The sheets on which a torque was looked up. */
export async function sheetsWithTorques(): Promise<string[]> {
  const rows = await select<{ id: string }>(
    ['sheet_entries'],
    `SELECT DISTINCT "sheetId" AS id FROM sheet_entries WHERE kind = 'torqueSet' AND late = 0`,
  )
  return rows.map(({ id: sheetId }) => sheetId)
}

/** What was added to some sheets on the way; what they were composed into is long, and stays where it is. */
export async function extrasOn(sheetIds: string[]): Promise<Map<string, ExtraWork[]>> {
  const rows = await select<{ sheetId: string; extra: string | null }>(
    sheetIds.map((each) => `sheet_entries/${each}`),
    `SELECT "sheetId", json_extract(payload, '$.extra') AS extra FROM sheet_entries
     WHERE kind = 'composed' AND "sheetId" IN (:sheetIds) ORDER BY sequence`,
    { sheetIds },
  )
  return new Map(rows.map(({ sheetId, extra }) => [sheetId, JSON.parse(extra ?? '[]') as ExtraWork[]]))
}

/** The newest entry of each of some sheets. */
export async function lastEntries(sheetIds: string[]): Promise<SheetEntryRow[]> {
  const newest = await select<{ id: string }>(
    sheetIds.map((each) => `sheet_entries/${each}`),
    `SELECT e.id AS id FROM sheet_entries e
     JOIN (SELECT "sheetId", MAX(sequence) AS newest FROM sheet_entries
           WHERE "sheetId" IN (:sheetIds) GROUP BY "sheetId") n
       ON n."sheetId" = e."sheetId" AND n.newest = e.sequence`,
    { sheetIds },
  )
  return sheetEntries.all({ id: newest.map((row) => row.id) })
}

export const sheetPhotos = table(
  'sheet_photos',
  {
    id,
    sheetId: text(),
    name: text(),
    bytes: whole(),
    ...recorded,
  },
  'sheetId',
)
/** A photo taken at the bench; its file lies in the data folder under its id. */
export type SheetPhotoRow = RowOf<typeof sheetPhotos>

export const taskRecords = table(
  'task_records',
  {
    id,
    sheetId: orNull(text()),
    assemblyId: text(),
    task: text(),
    position: text(),
    at: text(),
    status: text<'active' | 'superseded'>(),
    ...recorded,
  },
  'assemblyId',
)
/** When a looking task was last done on a position; it restarts that task's clock, never a life. */
export type TaskRecordRow = RowOf<typeof taskRecords>
