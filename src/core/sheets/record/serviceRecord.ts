import type { Day } from '../../calendar'
import { isOpen, type VisitLine } from '../../plan'
import type { SheetLine } from '../views'

/** What was done at one time: a sheet with the visit it was worked on, or a visit that ended without one. */
export type WorkDone = { day: Day; sheet: SheetLine | null; visit: VisitLine | null }

/**
 * Visits and their sheets as one record: what is still to come, the next first, each visit with how far
 * its sheet is; and what is over, the newest first. A sheet without a visit, opened after a breakdown or
 * from a pump, stands by itself.
 */
export function recordOf(visits: VisitLine[], sheets: SheetLine[]): { coming: WorkDone[]; past: WorkDone[] } {
  const lines = [
    ...sheets.map((sheet): WorkDone => ({
      day: sheet.signedOn ?? sheet.startedOn,
      sheet,
      visit: visits.find(({ id }) => id === sheet.visitId) ?? null,
    })),
    ...visits
      .filter(({ id }) => !sheets.some((sheet) => sheet.visitId === id))
      .map((visit): WorkDone => ({ day: visit.day, sheet: null, visit })),
  ]
  const stillOpen = ({ sheet, visit }: WorkDone) => (sheet ? sheet.state === 'open' : isOpen(visit!.state))
  const number = ({ sheet, visit }: WorkDone) => sheet?.number ?? visit!.number
  const oldestFirst = (a: WorkDone, b: WorkDone) =>
    a.day < b.day ? -1 : a.day > b.day ? 1 : number(a) - number(b)
  return {
    coming: lines.filter(stillOpen).sort(oldestFirst),
    past: lines.filter((line) => !stillOpen(line)).sort((a, b) => oldestFirst(b, a)),
  }
}
