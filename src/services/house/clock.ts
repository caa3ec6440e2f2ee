import 'server-only'
import { scope, within } from '@/db/house'

/**
 * The application's clock: the only place that reads the time.
 *
 * `ATELIER_TODAY` shifts it to start on an invented day and move on from there: `2026-10-14` keeps the
 * time of day (within working hours, so that no time zone is a day off), `2026-10-14T08:00:00Z` starts
 * at that very instant. Sessions and throttles use `realNow()`.
 */
const globals = globalThis as unknown as { atelierClockOffsetMs?: number }

function offsetMs(): number {
  globals.atelierClockOffsetMs ??= startOffset(process.env.ATELIER_TODAY, Date.now())
  return globals.atelierClockOffsetMs
}

/** Milliseconds to add to the real time so that the clock starts where `ATELIER_TODAY` says. */
export function startOffset(setting: string | undefined, realMs: number): number {
  if (!setting) return 0
  const start = /^\d{4}-\d{2}-\d{2}$/.test(setting)
    ? Date.parse(`${setting}T00:00:00Z`) + withinWorkingHours(realMs % 86_400_000)
    : Date.parse(setting)
  if (Number.isNaN(start)) throw new Error(`ATELIER_TODAY is “${setting}”; write a day such as 2026-10-14.`)
  return start - realMs
}

function withinWorkingHours(msOfDay: number): number {
  return Math.min(Math.max(msOfDay, 7 * 3_600_000), 15 * 3_600_000)
}

/** The present instant, ISO 8601 in UTC. */
export function now(): string {
  const fixed = scope().clock
  // Each reading of a fixed clock is a millisecond later, so that the order of events stays readable.
  if (fixed) return new Date(fixed.ms++).toISOString()
  return new Date(Date.now() + offsetMs()).toISOString()
}

export function realNow(): number {
  return Date.now()
}

/** Runs work as if it were a given instant: for demo data and tests, which tell two years of history. */
export function runAt<T>(instant: string, work: () => Promise<T>): Promise<T> {
  return within({ clock: { ms: Date.parse(instant) } }, work)
}
