import { addDays, dayNumber, isDay, type Day } from '../calendar'

/**
 * How long what ages may lie before it is used. Rubber by its group of ISO 2230, counted from the day it was
 * cured; `own` is what has a life of its own, such as adhesives, antifreeze and hoses.
 */
export const shelfGroups = {
  none: 'does not age',
  A: 'A: polyurethane, natural rubber: 5 years',
  B: 'B: NBR, HNBR, CR: 7 years',
  C: 'C: EPDM, FKM, silicone: 10 years',
  own: 'a life of its own',
} as const
export type ShelfGroup = keyof typeof shelfGroups

const groupMonths = { A: 60, B: 84, C: 120 } as const
/** What an inspection may add once, by ISO 2230, in months. */
const extensionMonths = { A: 24, B: 36, C: 60 } as const

export type Ageing = { group: ShelfGroup; /** Of an `own` life. */ months: number }

/** How many months something keeps; null where it does not age. */
export function keepsMonths({ group, months }: Ageing): number | null {
  if (group === 'none') return null
  return group === 'own' ? months : groupMonths[group]
}

/** How long it keeps from a day on which it is fresh, in days; null where it does not age. */
export function keepsDays(ageing: Ageing, from: Day): number | null {
  const months = keepsMonths(ageing)
  return months === null ? null : dayNumber(addMonths(from, months)) - dayNumber(from)
}

/**
 * The last day on which a lot is good.
 *
 * Counted from the day it was cured or made, not from its receipt. Where nobody knows that day, the day of
 * its receipt stands for it and the answer says that it is assumed: the true day can only be earlier.
 *
 * @param extended whether an inspection has lengthened its life, which can be done once
 * @returns null where it does not age
 * @example goodUntil({ group: 'B', months: 0 }, { curedOn: '2024-04-01', receivedOn: '2026-10-14' })
 * // { day: '2031-04-01', assumed: false }
 */
export function goodUntil(
  ageing: Ageing,
  { curedOn, receivedOn, extended = false }: { curedOn: Day | null; receivedOn: Day; extended?: boolean },
): { day: Day; assumed: boolean } | null {
  const months = keepsMonths(ageing)
  if (months === null) return null
  const { group } = ageing
  const more = extended && group !== 'own' && group !== 'none' ? extensionMonths[group] : 0
  return { day: addMonths(curedOn ?? receivedOn, months + more), assumed: curedOn === null }
}

/** The same date so many months on; the last of its month where that has fewer days. */
export function addMonths(day: Day, months: number): Day {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number]
  const total = year * 12 + (month - 1) + months
  const [newYear, newMonth] = [Math.floor(total / 12), (total % 12) + 1]
  const first = `${newYear}-${String(newMonth).padStart(2, '0')}-01`
  const next = `${newMonth === 12 ? newYear + 1 : newYear}-${String((newMonth % 12) + 1).padStart(2, '0')}-01`
  return addDays(first, Math.min(date, dayNumber(next) - dayNumber(first)) - 1)
}

/**
 * Reads the date of cure as it is printed on a bag: a day, a month, or a quarter of a year. The first day of
 * what is named counts, since nothing in it can be older.
 *
 * @returns the day, or a sentence that says what is wrong; null for a blank
 * @example readCured('2Q26') // { ok: true, day: '2026-04-01' }
 * @example readCured('2026-05') // { ok: true, day: '2026-05-01' }
 */
export function readCured(text: string): { ok: true; day: Day | null } | { ok: false; reason: string } {
  const typed = text.trim()
  if (typed === '') return { ok: true, day: null }
  if (isDay(typed)) return { ok: true, day: typed }
  const quarter =
    /^([1-4])\s*q[\s/.-]*(\d{2}|\d{4})$/i.exec(typed) ?? /^q\s*([1-4])[\s/.-]*(\d{2}|\d{4})$/i.exec(typed)
  if (quarter) return dayOf(quarter[2]!, (Number(quarter[1]) - 1) * 3 + 1)
  const month = /^(\d{4})[-/.](\d{1,2})$/.exec(typed)
  if (month) return dayOf(month[1]!, Number(month[2]))
  const monthFirst = /^(\d{1,2})[/.](\d{4})$/.exec(typed)
  if (monthFirst) return dayOf(monthFirst[2]!, Number(monthFirst[1]))
  return { ok: false, reason: 'Enter a day, a month (2026-05) or a quarter (2Q26) as it stands on the bag.' }
}

function dayOf(year: string, month: number): ReturnType<typeof readCured> {
  const full = year.length === 2 ? `20${year}` : year
  const day = `${full}-${String(month).padStart(2, '0')}-01`
  return isDay(day) ? { ok: true, day } : { ok: false, reason: 'There is no such month.' }
}
