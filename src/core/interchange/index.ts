export { toCsv } from './csv'
export { toICalendar, type CalendarEvent } from './calendar'
