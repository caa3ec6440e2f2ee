import type { MeterInput } from '@/core/hours'
import { day, id, text, whole, table } from '../house'

export type MeterRow = Omit<MeterInput, 'version'> & {
  machineId: string
  retiredOn: string | null
  createdAt: string
  version: number
}

export const meters = table<MeterRow>('meters', {
  id,
  machineId: text,
  name: text,
  kind: text,
  digits: whole,
  decimals: whole,
  readingIntervalDays: whole,
  retiredOn: day,
  createdAt: text,
  version: whole,
})

/** A meter change or a roll-over. Values are whole numbers of the smallest digit, `decimals` of them. */
export type MeterEventRow = {
  id: string
  meterId: string
  kind: 'change' | 'rollOver'
  at: string
  lastRaw: number | null
  firstRaw: number | null
  span: number | null
  decimals: number
  note: string
  /** The reading that told of it: both are taken back together. */
  readingId: string | null
  /** 1 where nobody read the old meter and its last value is an estimate. */
  assumed: number
  /** 1 where the digits of the meter were told with it. */
  digitsTold: number
  status: 'active' | 'superseded'
  supersedesId: string | null
  recordedAt: string
  recordedById: string
}

export const meterEvents = table<MeterEventRow>('meter_events', {
  id,
  meterId: text,
  kind: text,
  at: text,
  lastRaw: whole,
  firstRaw: whole,
  span: whole,
  decimals: whole,
  note: text,
  readingId: text,
  assumed: whole,
  digitsTold: whole,
  status: text,
  supersedesId: text,
  recordedAt: text,
  recordedById: text,
})

/** A meter that a round could not read on a day, and why. */
export type MeterSkipRow = {
  id: string
  meterId: string
  day: string
  reason: string
  status: 'active' | 'superseded'
  recordedAt: string
  recordedById: string
}

export const meterSkips = table<MeterSkipRow>('meter_skips', {
  id,
  meterId: text,
  day: text,
  reason: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})
