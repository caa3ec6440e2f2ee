import { daysBetween, isDay, type Day } from '../calendar'
import type { OutlookDay } from './climate'

/** What a weather service told of one place, with when it was made and when it was fetched. */
export type Outlook = {
  source: string
  /** When the service made it, UTC. */
  issuedAt: string
  days: OutlookDay[]
}

/** Older than this an outlook is no outlook any more, in hours. Ours. */
export const outlookKeepsHours = 36

/**
 * Reads what a weather service answers: `{source, issuedAt, days: [{day, minC, sdC?}]}`.
 * @returns the outlook with at most ten days, or a sentence that says why it cannot be used
 */
export function readOutlook(answer: unknown): { ok: true; value: Outlook } | { ok: false; reason: string } {
  const fault = (reason: string) => ({ ok: false as const, reason })
  if (typeof answer !== 'object' || answer === null)
    return fault('It answered with something that is no outlook.')
  const { source, issuedAt, days } = answer as Record<string, unknown>
  if (typeof issuedAt !== 'string' || Number.isNaN(Date.parse(issuedAt)))
    return fault('It does not say when its outlook was made.')
  if (!Array.isArray(days) || days.length === 0) return fault('It names no days.')
  const read: OutlookDay[] = []
  for (const each of days.slice(0, 10) as unknown[]) {
    const { day, minC, sdC } = (each ?? {}) as Record<string, unknown>
    if (typeof day !== 'string' || !isDay(day)) return fault('One of its days is no day.')
    if (typeof minC !== 'number' || !Number.isFinite(minC) || minC < -75 || minC > 50)
      return fault(`Its minimum for ${day} is no temperature of a yard.`)
    if (read.some((other) => other.day === day)) return fault(`It names ${day} twice.`)
    const spread = typeof sdC === 'number' && Number.isFinite(sdC) && sdC >= 0 && sdC < 30 ? sdC : null
    read.push({ day, minC, sdC: spread })
  }
  return {
    ok: true,
    value: {
      source: typeof source === 'string' ? source.slice(0, 80) : 'a weather service',
      issuedAt: new Date(issuedAt).toISOString(),
      days: read.sort((a, b) => (a.day < b.day ? -1 : 1)),
    },
  }
}

/** The nights of an outlook that still count, and why none does. */
export function freshOutlook(
  outlook: Outlook | null,
  now: string,
  today: Day,
): { days: OutlookDay[] | null; says: string } {
  if (!outlook) return { days: null, says: 'No outlook: by the climate alone.' }
  const hours = (Date.parse(now) - Date.parse(outlook.issuedAt)) / 3.6e6
  const age = hours < 48 ? `${Math.max(0, Math.round(hours))} h old` : `${Math.round(hours / 24)} days old`
  if (hours > outlookKeepsHours)
    return { days: null, says: `${outlook.source}, ${age}: too old, by the climate alone.` }
  if (hours < -1)
    return { days: null, says: `${outlook.source} is dated ahead of now: by the climate alone.` }
  const days = outlook.days.filter(({ day }) => day >= today && daysBetween(today, day) < 10)
  if (days.length === 0)
    return { days: null, says: `${outlook.source}, ${age}: none of its days is to come.` }
  return { days, says: `${outlook.source}, ${age}, to ${days.at(-1)!.day}` }
}

/** An outlook that is so many degrees colder: what a worse one would change. */
export const colderBy = (days: readonly OutlookDay[] | null, degrees: number): OutlookDay[] | null =>
  days && days.map((night) => ({ ...night, minC: night.minC - degrees }))
