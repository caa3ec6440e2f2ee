import type { EntryKind } from '@/core/sheets'
import { id, json, text, whole, select, table } from '../house'

export type SheetRow = {
  id: string
  number: number
  /** Null for a sheet that was opened without a visit. */
  visitId: string | null
  /** One of the two: the machine it is on, or the shelved assembly. */
  machineId: string | null
  assemblyId: string | null
  /** Every assembly that it works on. */
  assemblyIds: string[]
  state: 'open' | 'signed' | 'abandoned'
  trigger: 'planned' | 'breakdown'
  trouble: string
  startedAt: string
  startedById: string
  /** The instant of the sheet's reading: lives end and begin then. */
  workedAt: string | null
  signedAt: string | null
  signedById: string | null
  /** Why it was abandoned. */
  endReason: string
  version: number
}

export const sheets = table<SheetRow>(
  'sheets',
  {
    id,
    number: whole,
    visitId: text,
    machineId: text,
    assemblyId: text,
    assemblyIds: json,
    state: text,
    trigger: text,
    trouble: text,
    startedAt: text,
    startedById: text,
    workedAt: text,
    signedAt: text,
    signedById: text,
    endReason: text,
    version: whole,
  },
  ['assemblyIds'],
)

export type SheetEntryRow = {
  id: string
  sheetId: string
  sequence: number
  deviceId: string
  deviceSeq: number
  seenUpTo: number
  deviceTime: string
  at: string
  receivedAt: string
  stepKey: string | null
  kind: EntryKind
  payload: unknown
  byId: string
  byName: string
  /** Whoever took it in for an author who could not send it any more, and why; null where the author did. */
  takenInById: string | null
  takenInByName: string
  takenInWhy: string
  /** 1 where it came in after the sheet was signed. */
  late: number
}

export const sheetEntries = table<SheetEntryRow>(
  'sheet_entries',
  {
    id,
    sheetId: text,
    sequence: whole,
    deviceId: text,
    deviceSeq: whole,
    seenUpTo: whole,
    deviceTime: text,
    at: text,
    receivedAt: text,
    stepKey: text,
    kind: text,
    payload: json,
    byId: text,
    byName: text,
    takenInById: text,
    takenInByName: text,
    takenInWhy: text,
    late: whole,
  },
  ['payload'],
)

/** How many steps of each open sheet have been ticked or skipped, from one query. */
export function tickCounts() {
  return select<{ sheetId: string; ticks: number; newest: string }>(
    `SELECT e."sheetId" AS "sheetId", MAX(e.at) AS newest,
            COUNT(DISTINCT CASE WHEN e.kind IN ('done', 'skipped') THEN e."stepKey" END) AS ticks
     FROM sheet_entries e JOIN sheets s ON s.id = e."sheetId"
     WHERE s.state = 'open' GROUP BY e."sheetId"`,
  )
}

/** The newest entry of each of some sheets. */
export async function lastEntries(sheetIds: string[]): Promise<SheetEntryRow[]> {
  const newest = await select<{ id: string }>(
    `SELECT e.id AS id FROM sheet_entries e
     JOIN (SELECT "sheetId", MAX(sequence) AS newest FROM sheet_entries
           WHERE "sheetId" IN (:sheetIds) GROUP BY "sheetId") n
       ON n."sheetId" = e."sheetId" AND n.newest = e.sequence`,
    { sheetIds },
  )
  return sheetEntries.all({ id: newest.map((row) => row.id) })
}

/** A photo taken at the bench; its file lies in the data folder under its id. */
export type SheetPhotoRow = {
  id: string
  sheetId: string
  name: string
  bytes: number
  recordedAt: string
  recordedById: string
}

export const sheetPhotos = table<SheetPhotoRow>('sheet_photos', {
  id,
  sheetId: text,
  name: text,
  bytes: whole,
  recordedAt: text,
  recordedById: text,
})

/** When a looking task was last done on a position; it restarts that task's clock, never a life. */
export type TaskRecordRow = {
  id: string
  sheetId: string | null
  assemblyId: string
  task: string
  position: string
  at: string
  status: 'active' | 'superseded'
  recordedAt: string
  recordedById: string
}

export const taskRecords = table<TaskRecordRow>('task_records', {
  id,
  sheetId: text,
  assemblyId: text,
  task: text,
  position: text,
  at: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})
