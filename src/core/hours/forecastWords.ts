import { showNumber } from '../units'
import type { UsageForecast } from './forecast'

const monthNames =
  'January February March April May June July August September October November December'.split(' ')

/** A month or weekday is worth a word where it has less than this, or more than that, of an average one. */
const quiet = 0.7
const busy = 1.3

/**
 * Says what a forecast rests on.
 * @example forecastWords(forecast, 'h') // '14 readings in 12 weeks, about 21 h a week, quiet in January'
 */
export function forecastWords(forecast: UsageForecast, unit: string, share = 1): string {
  const { rests, pattern } = forecast
  const perWeek = rests.weekly * share
  const amount = showNumber(perWeek < 9.95 ? Math.round(perWeek * 10) / 10 : Math.round(perWeek))
  const [weekdays, weekend] = [meanOf(pattern.weekdays.slice(0, 5)), meanOf(pattern.weekdays.slice(5))]
  return [
    `${count(rests.readings, 'reading')} in ${count(rests.weeks, 'week')}`,
    `about ${amount}\u00a0${unit} a week`,
    weekend < 0.35 * weekdays ? 'little at weekends' : weekend > 1.5 * weekdays ? 'mostly at weekends' : null,
    monthWords(pattern.months, (factor) => factor < quiet, 'quiet'),
    monthWords(pattern.months, (factor) => factor > busy, 'busy'),
  ]
    .filter(Boolean)
    .join(', ')
}

/** Months that stand out, neighbours as a stretch: "quiet from December to February". */
function monthWords(months: number[], stands: (factor: number) => boolean, words: string): string | null {
  const out = months.map(stands)
  if (!out.includes(true) || !out.includes(false)) return null
  const stretches = out.flatMap((each, index) => {
    if (!each || out[(index + 11) % 12]) return []
    let length = 1
    while (out[(index + length) % 12]) length += 1
    const last = monthNames[(index + length - 1) % 12]
    return [length === 1 ? `in ${monthNames[index]}` : `from ${monthNames[index]} to ${last}`]
  })
  return `${words} ${stretches.join(' and ')}`
}

const count = (number: number, thing: string) => `${number} ${thing}${number === 1 ? '' : 's'}`
const meanOf = (list: number[]) => list.reduce((sum, each) => sum + each, 0) / list.length
