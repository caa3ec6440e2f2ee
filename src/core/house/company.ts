import type { DateOrder } from '../calendar'
import type { UnitPreferences } from '../units'

export type CompanyInput = {
  version?: number
  name: string
  timeZone: string
  currency: string
  dateOrder?: DateOrder
  units: UnitPreferences
  /** Days a crew wants to know beforehand that a machine comes in. */
  noticeDays?: number
  /** Hours of work after a service until somebody looks at it again. */
  earlyCheckHours?: number
}

/** Setting up an empty company: who it is, its first yard, its first coordinator. */
export type SetUpInput = {
  code: string
  company: Omit<CompanyInput, 'version'>
  yard: { id: string; name: string }
  coordinator: { id: string; name: string; signInName: string; password: string }
}

/** The time zones to choose from, UTC first. */
export function timeZones(): string[] {
  return ['UTC', ...Intl.supportedValuesOf('timeZone').filter((zone) => zone !== 'UTC')]
}
