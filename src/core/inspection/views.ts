import type { SymptomKey } from './symptoms'
import type { SignOutcome } from './schema'
import type { Triage } from './firstChecks'

/** A sign as pages show it. */
export type SignView = {
  id: string
  version: number
  machineId: string | null
  machineNumber: string | null
  machineName: string | null
  yardId: string | null
  assemblyId: string | null
  pump: string | null
  symptom: SymptomKey
  name: string
  seenOn: string
  words: string
  /** "12 drips a minute", "150 bar and 11 L/min through size 5"; blank. */
  figures: string
  /** The service it brings forward, in words; blank. */
  task: string
  service: string
  positions: string[]
  by: string
  reportedBy: string
  /** The service it followed, by the number of its sheet. */
  sheet: { id: string; number: string } | null
  triage: Triage
  /** How it ended; null while it is open. */
  settled: { outcome: SignOutcome; words: string; by: string; day: string } | null
}

/** An early check after a service: due once the pump has worked so many hours since. */
export type EarlyCheckView = {
  id: string
  version: number
  assemblyId: string
  pump: string
  machineNumber: string | null
  machineName: string | null
  yardId: string | null
  unit: 'h' | 'strokes'
  sheet: { id: string; number: string }
  workedOn: string
  /** What the service was, in words. */
  services: string
  afterHours: number
  /** Hours worked since. */
  worked: number
  /** The day on which the hours are reached as likely as not; null where it stands. */
  aboutDay: string | null
  result: { kind: 'good' | 'found' | 'dropped'; words: string; by: string; day: string } | null
}

/** One thing found on a pump: on a sheet, or as a sign. */
export type FindingLine = {
  kind: 'failed' | 'found' | 'measured' | 'remark' | 'sign'
  day: string
  what: string
  detail: string
  by: string
  sheet: { id: string; number: string } | null
}
