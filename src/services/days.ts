import 'server-only'
import dayjs from 'dayjs'
import timezone from 'dayjs/plugin/timezone'
import utc from 'dayjs/plugin/utc'

dayjs.extend(utc)
dayjs.extend(timezone)

/** The calendar day an instant falls on in a time zone. The one place where instants become days. */
export function dayOf(instant: string, timeZone: string): string {
  return dayjs.utc(instant).tz(timeZone).format('YYYY-MM-DD')
}

/** The clock time of an instant in a time zone, `HH:mm`. */
export function timeOf(instant: string, timeZone: string): string {
  return dayjs.utc(instant).tz(timeZone).format('HH:mm')
}

/**
 * The instant of a day and time on the clocks of a time zone. A time that a clock change skips becomes
 * the one an hour later; one that it repeats is the first of the two.
 */
export function instantOf(day: string, time: string, timeZone: string): string {
  return dayjs.tz(`${day}T${time}:00`, timeZone).utc().toISOString()
}
