import fc from 'fast-check'
import { addDays, readDay, readTime, writeDay, type DateOrder } from '@/core/calendar'

const orders: DateOrder[] = ['dmy', 'mdy', 'ymd']

test('a day is written in the company’s order', () => {
  expect(orders.map((order) => writeDay('2026-10-04', order))).toEqual([
    '04/10/2026',
    '10/04/2026',
    '2026-10-04',
  ])
})

test('a day is read as people type it, in that order', () => {
  for (const typed of ['4/10/2026', '04.10.26', '4-10-2026', ' 4 10 26 ', '4 Oct 2026', 'October 4, 2026'])
    expect([typed, readDay(typed, 'dmy')]).toEqual([typed, '2026-10-04'])
  expect(readDay('10/4/2026', 'mdy')).toBe('2026-10-04')
  expect(readDay('4 oct 26', 'mdy')).toBe('2026-10-04')
  for (const order of orders) expect(readDay('2026-10-04', order)).toBe('2026-10-04')
})

test('what is no day in that order is none: nothing is guessed', () => {
  for (const typed of [
    '10/14/2026',
    '31/2/2026',
    '14/10',
    '14/10/026',
    'soon',
    '',
    '1/2/3/4',
    '14 Ok 2026',
    '4/10/2026?',
  ])
    expect([typed, readDay(typed, 'dmy')]).toEqual([typed, null])
  expect(readDay('14/10/2026', 'mdy')).toBeNull()
})

test('law: what was written is read again as the same day', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 36_000 }), fc.constantFrom(...orders), (days, order) => {
      const day = addDays('2000-01-01', days)
      expect(readDay(writeDay(day, order), order)).toBe(day)
    }),
  )
})

test('law: whatever is typed, it is a day or nothing', () => {
  fc.assert(
    fc.property(fc.string(), fc.constantFrom(...orders), (text, order) => {
      const day = readDay(text, order)
      if (day !== null) expect(readDay(writeDay(day, order), order)).toBe(day)
    }),
  )
})

test('a time is read as people type it', () => {
  expect(['9:30', '9.30', '0930', '9', ' 17h05 ', '930'].map(readTime)).toEqual([
    '09:30',
    '09:30',
    '09:30',
    '09:00',
    '17:05',
    '09:30',
  ])
  expect(['24:00', '9:75', 'noon', '', '9:3'].map(readTime)).toEqual([null, null, null, null, null])
})
