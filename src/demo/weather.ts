import { addDays, type Day } from '@/core/calendar'
import type { OutlookDay } from '@/core/winter'

/** What the stand-in of a weather service tells. */
export const weatherScenarios = {
  mild: 'ten nights well above freezing',
  earlyFrost: 'a first frost in three nights, mild again after it',
  coldSnap: 'frost tomorrow night, and ten hard nights',
  falseAlarm: 'a night at 1 °C tomorrow that comes to nothing',
  old: 'an outlook that was made five days ago',
  silent: 'no answer at all',
  nonsense: 'an answer that is no outlook',
} as const
export type WeatherScenario = keyof typeof weatherScenarios

/** How much colder a place is than the mildest one. */
const colder = (place: string) => (/upland/i.test(place) ? 3 : 0)

const nights: Record<'mild' | 'earlyFrost' | 'coldSnap' | 'falseAlarm' | 'old', number[]> = {
  mild: [9, 8.5, 8, 9, 9.5, 8, 7.5, 8, 8.5, 9],
  earlyFrost: [7, 6, 4, 0, 5, 7, 8, 8, 7, 7],
  coldSnap: [6, -1, -4, -6, -7, -7, -5, -4, -3, -1],
  falseAlarm: [8, 4, 8, 9, 9, 8, 8, 9, 9, 9],
  old: [9, 8, 8, 8, 9, 9, 9, 8, 8, 8],
}

/**
 * Answers as a weather service would. Invented, for trying every case without one.
 * @returns what is sent as JSON; null for a service that does not answer
 */
export function weatherAnswer(scenario: WeatherScenario, place: string, today: Day, now: string): unknown {
  if (scenario === 'silent') return null
  if (scenario === 'nonsense')
    return { source: 'Stand-in weather', issuedAt: now, days: [{ day: 'tomorrow', minC: 'cold' }] }
  const made = scenario === 'old' ? new Date(Date.parse(now) - 5 * 864e5).toISOString() : now
  const days: OutlookDay[] = nights[scenario].map((minC, at) => ({
    day: addDays(today, at),
    minC: minC - colder(place),
    sdC: 1.2 + 0.25 * at,
  }))
  return { source: 'Stand-in weather', issuedAt: made, days }
}
