import 'server-only'
import { forecastUsage, type CumulativeLine, type KnownAhead, type UsageForecast } from '@/core/hours'

const kept = new Map<string, { from: string; forecast: UsageForecast | null }>()
const mostKept = 5000

/**
 * The forecast of a meter, made anew only when its line, its lay-ups and jobs, or the day have changed.
 * It is told by everything it is made from, so that nothing can go stale; what is kept can be thrown away.
 */
export function forecastOf(
  meterId: string,
  line: CumulativeLine,
  today: string,
  known: KnownAhead,
): UsageForecast | null {
  const from = `${today} ${JSON.stringify(known)} ${line.points.map(({ at, hours }) => `${at}${hours}`).join()}`
  const before = kept.get(meterId)
  if (before?.from === from) return before.forecast
  if (kept.size >= mostKept) kept.clear()
  const forecast = forecastUsage(line, today, known)
  kept.set(meterId, { from, forecast })
  return forecast
}
