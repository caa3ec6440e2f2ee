import 'server-only'
import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'

dayjs.extend(utc)
dayjs.extend(timezone)

// Making a formatter costs a hundred times what using it does; lists ask for thousands of days.
const formatters = new Map<string, Intl.DateTimeFormat>()

function clockFace(instant: string, timeZone: string): string {
  let formatter = formatters.get(timeZone)
  if (!formatter) {
    // Sweden writes 2026-10-14 09:30, which is what days and times look like here.
    formatter = new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short', timeStyle: 'short' })
    formatters.set(timeZone, formatter)
  }
  return formatter.format(Date.parse(instant))
}

/** The calendar day an instant falls on in a time zone. The one place where instants become days. */
export function dayOf(instant: string, timeZone: string): string {
  return clockFace(instant, timeZone).slice(0, 10)
}

/** The clock time of an instant in a time zone, `HH:mm`. */
export function timeOf(instant: string, timeZone: string): string {
  return clockFace(instant, timeZone).slice(11, 16)
}

/**
 * The instant of a day and time on the clocks of a time zone. A time that a clock change skips becomes
 * the one an hour later; one that it repeats is the first of the two.
 */
export function instantOf(day: string, time: string, timeZone: string): string {
  return dayjs.tz(`${day}T${time}:00`, timeZone).utc().toISOString()
}
