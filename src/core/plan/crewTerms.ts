import type { Qualification } from '../models'

export type Span = { from: string; to: string }

/** When a technician works, where, and what for. */
export type CrewInput = {
  personId: string
  version?: number
  /** The yard they start from; null where they have none. */
  yardId: string | null
  /** Weekdays, 1 Monday to 7. */
  days: number[]
  minutes: number
  skills: Qualification[]
  leave: Span[]
}

/** By their number less one, Monday first. */
export const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

/** Of a technician without a word: Monday to Friday, eight hours, for any work. Ours. */
export const usualCrew = { yardId: null, days: [1, 2, 3, 4, 5], minutes: 480, leave: [] as Span[] }

/** What planning goes by. */
export type PlanTermsInput = {
  version?: number
  hourCost: string
  visitCost: string
  downtimeCost: string
  moveCost: string
  /** The share of each day that stays free for breakdowns. */
  freePercent: number
  /** Days from today on in which nothing is moved. */
  frozenDays: number
  benches: { yardId: string; places: number | null }[]
  travel: { from: string; to: string; minutes: number }[]
  closed: Span[]
}

/** Money in cents, as planning counts it; all of it ours until the company says otherwise. */
export type PlanTerms = {
  hourCents: number
  visitCents: number
  downtimeCents: number
  moveCents: number
  freePercent: number
  frozenDays: number
  benches: { yardId: string; places: number | null }[]
  travel: { from: string; to: string; minutes: number }[]
  closed: Span[]
}
export const usualPlanTerms: PlanTerms = {
  hourCents: 5400,
  visitCents: 4000,
  downtimeCents: 12000,
  moveCents: 6000,
  freePercent: 20,
  frozenDays: 3,
  benches: [],
  travel: [],
  closed: [],
}
