export { readCsv, toCsv, type CsvRow } from './csv'
export { toICalendar, type CalendarEvent } from './calendar'
