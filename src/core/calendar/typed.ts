import { isDay, type Day } from './calendar'

/** In which order a company writes the parts of a day. */
export const dateOrders = {
  dmy: 'Day, month, year: 14/10/2026',
  mdy: 'Month, day, year: 10/14/2026',
  ymd: 'Year, month, day: 2026-10-14',
} as const
export type DateOrder = keyof typeof dateOrders

const monthNames = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

/**
 * A day as it stands in a field, in the company's order.
 * @example writeDay('2026-10-14', 'mdy') // '10/14/2026'
 */
export function writeDay(day: Day, order: DateOrder): string {
  const [year, month, date] = day.split('-') as [string, string, string]
  return order === 'ymd' ? day : order === 'mdy' ? `${month}/${date}/${year}` : `${date}/${month}/${year}`
}

/**
 * A day as somebody types it: numbers in the company's order with anything between them, two digits of the
 * year, the month as a word wherever it stands; year first is always read. A month of 14 is no month: it is
 * never taken for the day of another order.
 *
 * @returns null where it is no day, so that nothing is guessed
 * @example readDay('3.2.27', 'dmy') // '2027-02-03'
 * @example readDay('14 October 2026', 'mdy') // '2026-10-14'
 */
export function readDay(text: string, order: DateOrder): Day | null {
  const parts = text
    .trim()
    .toLowerCase()
    .match(/[a-z]+|\d+/g)
  if (parts?.length !== 3 || /[^\da-z\s./,'-]/.test(text.trim().toLowerCase())) return null
  const named = parts.findIndex((part) => /^[a-z]/.test(part))
  const numbers = parts.filter((_, index) => index !== named)
  if (numbers.some((part) => !/^\d+$/.test(part))) return null
  let year: string, month: string, date: string
  if (named >= 0) {
    const found = monthNames.findIndex((name) => parts[named]!.startsWith(name))
    if (found < 0) return null
    month = String(found + 1)
    ;[year, date] = numbers[0]!.length === 4 ? [numbers[0]!, numbers[1]!] : [numbers[1]!, numbers[0]!]
  } else if (order === 'ymd' || parts[0]!.length === 4)
    [year, month, date] = parts as [string, string, string]
  else if (order === 'mdy') [month, date, year] = parts as [string, string, string]
  else [date, month, year] = parts as [string, string, string]
  if (year.length !== 2 && year.length !== 4) return null
  if (month.length > 2 || date.length > 2) return null
  const day = `${year.length === 2 ? `20${year}` : year}-${month.padStart(2, '0')}-${date.padStart(2, '0')}`
  return isDay(day) ? day : null
}

/**
 * A time of day as somebody types it: `9:30`, `9.30`, `0930`, `9`.
 * @returns `HH:mm`, or null where it is none
 */
export function readTime(text: string): string | null {
  const parts = /^(\d{1,2})(?:[:.h ]?(\d{2}))?$/.exec(text.trim())
  if (!parts) return null
  const [hours, minutes] = [Number(parts[1]), Number(parts[2] ?? 0)]
  if (hours > 23 || minutes > 59) return null
  return `${String(hours).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`
}
