import 'server-only'
import { forecastUsage, type CumulativeLine, type KnownAhead, type UsageForecast } from '@/core/hours'
import { derived } from '@/db/house'

/** The forecast of a meter, made anew only when its line, its lay-ups and jobs, or the day are others. */
export function forecastOf(
  meterId: string,
  line: CumulativeLine,
  today: string,
  known: KnownAhead,
): UsageForecast | null {
  return derived(`forecast ${meterId}`, [line, today, known], () => forecastUsage(line, today, known))
}
