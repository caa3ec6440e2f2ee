import { id, real, text, whole } from './columns'
import { table } from './table'

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
  endReason: '' | 'preventive' | 'failed' | 'disturbed' | 'unknown'
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
  note: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})
