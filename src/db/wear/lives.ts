import { day, id, real, text, whole, table, type RowOf, orNull, recorded } from '../house'

export const lives = table(
  'lives',
  {
    id,
    assemblyId: text(),
    /** A position instance of the model: `hpSeal@2`. */
    position: text(),
    startedAt: text(),
    /** Usage it had when records of it begin: a part moved here, or there before the pump was taken over. */
    carriedUsage: real(),
    /** When it was really fitted, where that was before the pump was taken over. */
    carriedFrom: orNull(text()),
    /** 1 where its age is an estimate. */
    assumed: whole(),
    /** 1 where it is the first part since the pump was new. */
    first: whole(),
    continuesLifeId: orNull(text()),
    endedAt: orNull(text()),
    endReason: text<'' | 'preventive' | 'failed' | 'disturbed' | 'unknown' | 'moved'>(),
    /** The day it was first seen failing, where it failed and somebody knew. */
    seenFailingOn: orNull(day()),
    /** The sheets that began and ended it; null for what was recorded without one. */
    sheetId: orNull(text()),
    endSheetId: orNull(text()),
    /** The lot it came from. */
    lotId: orNull(text()),
    note: text(),
    status: text<'active' | 'superseded'>(),
    ...recorded,
  },
  'assemblyId',
)
/** One part in one position, from fitting to removal. */
export type LifeRow = RowOf<typeof lives>

/** A part's life as it begins; what is left out is nothing special. */
export function newLife(
  life: Pick<LifeRow, 'id' | 'assemblyId' | 'position' | 'startedAt' | 'recordedAt' | 'recordedById'> &
    Partial<LifeRow>,
): LifeRow {
  return {
    carriedUsage: 0,
    carriedFrom: null,
    assumed: 0,
    first: 0,
    continuesLifeId: null,
    endedAt: null,
    endReason: '',
    seenFailingOn: null,
    sheetId: null,
    endSheetId: null,
    lotId: null,
    note: '',
    status: 'active',
    ...life,
  }
}
