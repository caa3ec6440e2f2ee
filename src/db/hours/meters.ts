import type { MeterInput } from '@/core/hours'
import { day, id, text, whole, table, type RowOf, orNull, recorded } from '../house'

export const meters = table('meters', {
  id,
  machineId: text(),
  name: text(),
  kind: text<MeterInput['kind']>(),
  digits: orNull(whole()),
  decimals: whole(),
  readingIntervalDays: whole(),
  retiredOn: orNull(day()),
  createdAt: text(),
  version: whole(),
})
export type MeterRow = RowOf<typeof meters>

export const meterEvents = table(
  'meter_events',
  {
    id,
    meterId: text(),
    kind: text<'change' | 'rollOver'>(),
    at: text(),
    lastRaw: orNull(whole()),
    firstRaw: orNull(whole()),
    span: orNull(whole()),
    decimals: whole(),
    note: text(),
    /** The reading that told of it: both are taken back together. */
    readingId: orNull(text()),
    /** 1 where nobody read the old meter and its last value is an estimate. */
    assumed: whole(),
    /** 1 where the digits of the meter were told with it. */
    digitsTold: whole(),
    status: text<'active' | 'superseded'>(),
    supersedesId: orNull(text()),
    ...recorded,
  },
  'meterId',
)
/** A meter change or a roll-over. Values are whole numbers of the smallest digit, `decimals` of them. */
export type MeterEventRow = RowOf<typeof meterEvents>

export const meterSkips = table(
  'meter_skips',
  {
    id,
    meterId: text(),
    day: text(),
    reason: text(),
    status: text<'active' | 'superseded'>(),
    ...recorded,
  },
  'meterId',
)
/** A meter that a round could not read on a day, and why. */
export type MeterSkipRow = RowOf<typeof meterSkips>
