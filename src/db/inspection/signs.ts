import type { SignInput, SignOutcome } from '@/core/inspection'
import { day, id, json, orNull, real, text, whole, table, type RowOf } from '../house'

const recorded = { recordedAt: text(), recordedById: text(), version: whole() }

export const signs = table('signs', {
  id,
  machineId: orNull(text()),
  assemblyId: orNull(text()),
  symptom: text<SignInput['symptom']>(),
  seenOn: day(),
  words: text(),
  dripsPerMinute: orNull(real()),
  flow: orNull(json<NonNullable<SignInput['flow']>>()),
  task: text(),
  positions: json<string[]>(),
  by: day(),
  sheetId: orNull(text()),
  status: text<'open' | 'settled'>(),
  outcome: text<SignOutcome | ''>(),
  settledWords: text(),
  settledAt: orNull(text()),
  settledById: orNull(text()),
  /** The sheet that settled it by doing its service. */
  settledSheetId: orNull(text()),
  ...recorded,
})
/** Something that was seen on a machine or a pump, until it is settled. */
export type SignRow = RowOf<typeof signs>

export const earlyChecks = table('early_checks', {
  id,
  sheetId: text(),
  assemblyId: text(),
  /** The instant of the service; its hours count from there. */
  at: text(),
  afterHours: real(),
  /** `dropped`: the pump was serviced again before anybody had looked. */
  status: text<'open' | 'good' | 'found' | 'dropped'>(),
  words: text(),
  doneAt: orNull(text()),
  doneById: orNull(text()),
  /** The sheet whose signing ended it. */
  endSheetId: orNull(text()),
  ...recorded,
})
/** A look at a pump after its first hours of work since a service. */
export type EarlyCheckRow = RowOf<typeof earlyChecks>
