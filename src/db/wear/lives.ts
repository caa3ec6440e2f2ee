import { day, id, real, text, whole, table } from '../house'

/** One part in one position, from fitting to removal. */
export type LifeRow = {
  id: string
  assemblyId: string
  /** A position instance of the model: `hpSeal@2`. */
  position: string
  startedAt: string
  /** Usage it had when records of it begin: a part moved here, or there before the pump was taken over. */
  carriedUsage: number
  /** When it was really fitted, where that was before the pump was taken over. */
  carriedFrom: string | null
  /** 1 where its age is an estimate. */
  assumed: number
  /** 1 where it is the first part since the pump was new. */
  first: number
  continuesLifeId: string | null
  endedAt: string | null
  endReason: '' | 'preventive' | 'failed' | 'disturbed' | 'unknown' | 'moved'
  /** The day it was first seen failing, where it failed and somebody knew. */
  seenFailingOn: string | null
  /** The sheets that began and ended it; null for what was recorded without one. */
  sheetId: string | null
  endSheetId: string | null
  /** The lot it came from. */
  lotId: string | null
  note: string
  status: 'active' | 'superseded'
  recordedAt: string
  recordedById: string
}

export const lives = table<LifeRow>('lives', {
  id,
  assemblyId: text,
  position: text,
  startedAt: text,
  carriedUsage: real,
  carriedFrom: text,
  assumed: whole,
  first: whole,
  continuesLifeId: text,
  endedAt: text,
  endReason: text,
  seenFailingOn: day,
  sheetId: text,
  endSheetId: text,
  lotId: text,
  note: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})

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
