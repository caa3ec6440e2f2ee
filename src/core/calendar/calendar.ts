/** Plain calendar days, `YYYY-MM-DD`. No time zones here: the services turn instants into days. */
export type Day = string

const msPerDay = 86_400_000

// A fleet’s figures name the same few thousand days a million times.
const days = new Map<number, Day>()
const numbers = new Map<Day, number>()
const mostRemembered = 50_000

/** Days since 1970-01-01. */
export function dayNumber(day: Day): number {
  const known = numbers.get(day)
  if (known !== undefined) return known
  const number = Math.round(Date.parse(`${day}T00:00:00Z`) / msPerDay)
  if (numbers.size < mostRemembered) numbers.set(day, number)
  return number
}

export function dayFromNumber(number: number): Day {
  const known = days.get(number)
  if (known !== undefined) return known
  const day = new Date(number * msPerDay).toISOString().slice(0, 10)
  if (days.size < mostRemembered && Number.isInteger(number)) days.set(number, day)
  return day
}

/** Whether a text is a day that exists, in the centuries that anything here is about. */
export function isDay(text: string): boolean {
  const date = /^\d{4}-\d{2}-\d{2}$/.test(text) ? new Date(`${text}T00:00:00Z`) : null
  if (date === null || Number.isNaN(date.getTime()) || date.toISOString().slice(0, 10) !== text) return false
  return text >= '1950-01-01' && text <= '2199-12-31'
}

/** @example addDays('2026-02-27', 2) // '2026-03-01' */
export function addDays(day: Day, days: number): Day {
  return dayFromNumber(dayNumber(day) + days)
}

/** Whole days from one day to another; negative when `to` is earlier. */
export function daysBetween(from: Day, to: Day): number {
  return dayNumber(to) - dayNumber(from)
}

/** Days between two instants, with fractions. */
export function daysBetweenInstants(from: string, to: string): number {
  return (Date.parse(to) - Date.parse(from)) / msPerDay
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/**
 * A day as a person says it: `7 Oct`, with the year where it is not the year of `today`.
 * @example showDay('2026-10-07', '2026-10-14') // '7 Oct'
 * @example showDay('2024-03-01', '2026-10-14') // '1 Mar 2024'
 */
export function showDay(day: Day, today?: Day): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number]
  const short = `${date}\u00a0${months[month - 1]}`
  return today !== undefined && today.startsWith(String(year)) ? short : `${short} ${year}`
}

const longMonths =
  'January February March April May June July August September October November December'.split(' ')
const longWeekdays = 'Sunday Monday Tuesday Wednesday Thursday Friday Saturday'.split(' ')

/** @example showLongDay('2026-10-14') // 'Wednesday 14 October' */
export function showLongDay(day: Day): string {
  const [, month, date] = day.split('-').map(Number) as [number, number, number]
  return `${longWeekdays[(dayNumber(day) + 4) % 7]} ${date}\u00a0${longMonths[month - 1]}`
}

/** @example showMonth('2026-10') // 'October 2026' */
export function showMonth(month: string): string {
  return `${longMonths[Number(month.slice(5, 7)) - 1]}\u00a0${month.slice(0, 4)}`
}

/** How long ago a day was: `today`, `yesterday`, `9 days ago`, `on 3 Nov`. */
export function showAge(day: Day, today: Day): string {
  const days = daysBetween(day, today)
  if (days === 0) return 'today'
  if (days === 1) return 'yesterday'
  if (days > 1 && days < 60) return `${days} days ago`
  return `on ${showDay(day, today)}`
}

/**
 * A day to come as precisely as it can be known: beyond a year the month, beyond three the year alone. A
 * forecast that names a day in 2035 claims what nobody can know.
 * @example showFarDay('2026-11-07', '2026-10-14') // '7 Nov'
 * @example showFarDay('2028-03-04', '2026-10-14') // 'Mar 2028'
 * @example showFarDay('2035-03-04', '2026-10-14') // '2035'
 */
export function showFarDay(day: Day, today: Day): string {
  const days = daysBetween(today, day)
  if (days <= 365) return showDay(day, today)
  return days <= 3 * 365 ? `${months[Number(day.slice(5, 7)) - 1]} ${day.slice(0, 4)}` : day.slice(0, 4)
}

/**
 * The days between which something will be, as precisely as they can be known; without an end it may never.
 * @example showSpan('2026-10-09', '2026-10-31', '2026-10-14') // '9 to 31 Oct'
 */
export function showSpan(from: Day, to: Day | null, today: Day): string {
  const early = showFarDay(from, today)
  if (to === null) return `from ${early}`
  const late = showFarDay(to, today)
  if (to <= from || early === late) return early
  const sameMonth = from.slice(0, 7) === to.slice(0, 7) && late === showDay(to, today)
  return `${sameMonth ? Number(from.slice(8)) : early} to ${late}`
}

/**
 * How long it is to a day to come, as people say it. Under two months days, under half a year weeks.
 * @param days whole days from today, 0 or more
 * @example showAhead(9) // 'about 9 days'
 * @example showAhead(3423) // 'about 9 years'
 */
export function showAhead(days: number): string {
  const about = (count: number, one: string) => `about ${count}\u00a0${count === 1 ? one : `${one}s`}`
  if (days < 60) return about(days, 'day')
  if (days < 183) return about(Math.round(days / 7), 'week')
  const years = days / 365.25
  if (years < 0.96) return about(Math.round(years * 12), 'month')
  if (years < 1.25) return 'about a\u00a0year'
  if (years < 1.75) return 'about a\u00a0year and a half'
  return years <= 20 ? about(Math.round(years), 'year') : 'more than 20\u00a0years'
}
