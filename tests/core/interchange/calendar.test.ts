import ICAL from 'ical.js'
import { toICalendar, type CalendarEvent } from '@/core/interchange'

const visit: CalendarEvent = {
  uid: 'visit-1@atelier',
  title: 'T-04 visit 0155',
  place: 'Harbour yard, bay 4',
  text: 'Renew high-pressure seals, cylinders 1 and 2;\nchange oil, filter: “both”',
  when: { at: '2026-10-16T07:30:00.000Z', minutes: 110 },
}
const due: CalendarEvent = {
  uid: 'due-1@atelier',
  title: 'Due: T-12 renew outlet valves',
  place: '',
  text: '',
  when: { day: '2026-10-31' },
}
const parsed = (events: CalendarEvent[]) => {
  const calendar = new ICAL.Component(
    ICAL.parse(toICalendar('Harbour yard', events, '2026-10-14T08:00:00.000Z')),
  )
  return {
    calendar,
    events: calendar.getAllSubcomponents('vevent').map((each) => new ICAL.Event(each)),
  }
}

test('another library reads back what was written: times, text, place', () => {
  const [event] = parsed([visit]).events
  expect(event).toMatchObject({
    uid: 'visit-1@atelier',
    summary: 'T-04 visit 0155',
    location: 'Harbour yard, bay 4',
    description: visit.text,
  })
  expect(event!.startDate.toJSDate().toISOString()).toBe('2026-10-16T07:30:00.000Z')
  expect(event!.duration.toSeconds()).toBe(110 * 60)
})

test('a whole day has no time and ends the day after, also over the end of a month', () => {
  const [event] = parsed([due]).events
  expect(event!.startDate.isDate).toBe(true)
  expect([event!.startDate.toString(), event!.endDate.toString()]).toEqual(['2026-10-31', '2026-11-01'])
})

test('an empty calendar is a calendar, with its name', () => {
  const { calendar, events } = parsed([])
  expect(events).toEqual([])
  expect(calendar.getFirstPropertyValue('x-wr-calname')).toBe('Harbour yard')
  expect(calendar.getFirstPropertyValue('version')).toBe('2.0')
})

test('no line is longer than 75 octets, as the standard wants', () => {
  const text = toICalendar('Harbour yard', [{ ...visit, text: 'ö'.repeat(300) }], '2026-10-14T08:00:00.000Z')
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
})
