import type { SignInput, SignOutcome } from '@/core/inspection'
import { day, id, json, real, text, whole, table } from '../house'

type Recorded = { recordedAt: string; recordedById: string; version: number }

/** Something that was seen on a machine or a pump, until it is settled. */
export type SignRow = SignInput &
  Recorded & {
    status: 'open' | 'settled'
    outcome: SignOutcome | ''
    settledWords: string
    settledAt: string | null
    settledById: string | null
    /** The sheet that settled it by doing its service. */
    settledSheetId: string | null
  }

const recorded = { recordedAt: text, recordedById: text, version: whole }

export const signs = table<SignRow>(
  'signs',
  {
    id,
    machineId: text,
    assemblyId: text,
    symptom: text,
    seenOn: day,
    words: text,
    dripsPerMinute: real,
    flow: json,
    task: text,
    positions: json,
    by: day,
    sheetId: text,
    status: text,
    outcome: text,
    settledWords: text,
    settledAt: text,
    settledById: text,
    settledSheetId: text,
    ...recorded,
  },
  ['flow', 'positions'],
)

/** A look at a pump after its first hours of work since a service. */
export type EarlyCheckRow = Recorded & {
  id: string
  sheetId: string
  assemblyId: string
  /** The instant of the service; its hours count from there. */
  at: string
  afterHours: number
  /** `dropped`: the pump was serviced again before anybody had looked. */
  status: 'open' | 'good' | 'found' | 'dropped'
  words: string
  doneAt: string | null
  doneById: string | null
  /** The sheet whose signing ended it. */
  endSheetId: string | null
}

export const earlyChecks = table<EarlyCheckRow>('early_checks', {
  id,
  sheetId: text,
  assemblyId: text,
  at: text,
  afterHours: real,
  status: text,
  words: text,
  doneAt: text,
  doneById: text,
  endSheetId: text,
  ...recorded,
})
