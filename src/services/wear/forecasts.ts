import 'server-only'
import { createHash } from 'node:crypto'
import {
  fitUsage,
  forecastBy,
  type CumulativeLine,
  type KnownAhead,
  type UsageFit,
  type UsageForecast,
} from '@/core/hours'
import { derived } from '@/db/house'
import { loadFits, saveFits } from '@/db/hours'

/** What was learned of each meter, with what it was learned from; `saved` once it outlives the process. */
type Known = Map<string, { from: string; fit: UsageFit | null; saved: boolean }>
const globals = globalThis as unknown as { atelierFits?: Promise<Known> }

/** What was learned before this process began: a start does not learn it all again. */
export function loadKnownFits(): Promise<Known> {
  globals.atelierFits ??= readFits().catch((error: unknown) => {
    delete globals.atelierFits
    throw error
  })
  return globals.atelierFits
}

async function readFits(): Promise<Known> {
  const rows = await loadFits()
  return new Map(
    rows.map(({ meterId, from, fit }) => [meterId, { from, fit: fit as UsageFit | null, saved: true }]),
  )
}

/** Lets what was learned since the last time outlive the process; every now and then, by the server. */
export async function keepFits(): Promise<number> {
  const known = await loadKnownFits()
  const fresh = [...known].filter(([, each]) => !each.saved)
  await saveFits(fresh.map(([meterId, { from, fit }]) => ({ meterId, from, fit })))
  for (const [, each] of fresh) each.saved = true
  return fresh.length
}

/** Forgets what was learned: for tests, and where another company's database is opened. */
export function forgetFits(): void {
  delete globals.atelierFits
}

/**
 * The forecast of a meter, made anew only when its line, its lay-ups and jobs, or the day are others.
 * What is learned from its history is known by a fingerprint of all it was learned from, so that nothing
 * can go stale.
 */
export function forecastOf(
  meterId: string,
  line: CumulativeLine,
  today: string,
  ahead: KnownAhead,
  known: Known,
): UsageForecast | null {
  return derived(`forecast ${meterId}`, [line, today, ahead], () => {
    const fit = fitOf(meterId, line, ahead, known)
    return fit && forecastBy(fit, today, ahead)
  })
}

function fitOf(meterId: string, line: CumulativeLine, ahead: KnownAhead, known: Known): UsageFit | null {
  const from = fingerprint(line, ahead)
  const before = known.get(meterId)
  if (before?.from === from) return before.fit
  const fit = fitUsage(line, ahead)
  known.set(meterId, { from, fit, saved: false })
  return fit
}

/** Grows where the way of learning changes: what an older version learned is then learned anew. */
const way = 1

function fingerprint({ points }: CumulativeLine, { layUps, offsetDays }: KnownAhead): string {
  const hash = createHash('sha1').update(JSON.stringify([way, layUps, offsetDays]))
  hash.update(points.map(({ at, hours, source }) => `${at} ${hours} ${source}`).join())
  return hash.digest('base64')
}
