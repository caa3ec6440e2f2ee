import ical, { ICalCalendarMethod } from 'ical-generator'
import { addDays, type Day } from '../calendar'

/** One thing in a calendar: a whole day, or an instant and how long it takes. */
export type CalendarEvent = {
  /** The same for the same thing each time, so that a calendar updates it instead of doubling it. */
  uid: string
  title: string
  place: string
  text: string
  when: { day: Day } | { at: string; minutes: number }
}

/**
 * Events as an iCalendar text (RFC 5545) that ordinary calendars subscribe to. Whole days are days of
 * the company, without a time; instants are in UTC. Asking again within the hour is not worth it.
 *
 * @param name what the calendar is called
 * @param madeAt the instant it is made, ISO UTC
 */
export function toICalendar(name: string, events: CalendarEvent[], madeAt: string): string {
  const calendar = ical({
    name,
    prodId: { company: 'Atelier', product: 'Atelier', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 3600,
  })
  for (const { uid, title, place, text, when } of events) {
    const stamp = new Date(madeAt)
    const common = {
      id: uid,
      summary: title,
      location: place || undefined,
      description: text || undefined,
      stamp,
    }
    if ('day' in when) {
      // Its end is the first day after it, by the standard.
      const start = new Date(`${when.day}T00:00:00Z`)
      const end = new Date(`${addDays(when.day, 1)}T00:00:00Z`)
      calendar.createEvent({ ...common, start, end, allDay: true, timezone: 'UTC' })
    } else {
      const start = new Date(when.at)
      calendar.createEvent({ ...common, start, end: new Date(start.getTime() + when.minutes * 60_000) })
    }
  }
  return calendar.toString()
}
