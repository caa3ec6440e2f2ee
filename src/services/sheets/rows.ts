import 'server-only'
import type { SheetEntry } from '@/core/sheets'
import { Op } from '@/db/house'
import { sheets, type SheetEntryRow, type SheetRow } from '@/db/sheets'

/** The sheets of one machine or one pump, newest first. */
export function sheetRowsOf(subject: { machineId: string } | { assemblyId: string }): Promise<SheetRow[]> {
  const where =
    'machineId' in subject
      ? { machineId: subject.machineId }
      : { assemblyIds: { [Op.like]: `%${subject.assemblyId}%` } }
  return sheets.all(where as never, [['startedAt', 'DESC']])
}

export function asEntry(row: SheetEntryRow): SheetEntry {
  const { sheetId: _sheetId, receivedAt: _receivedAt, takenInById: _takenInById, late, ...entry } = row
  return { ...entry, late: late === 1 } as SheetEntry
}
