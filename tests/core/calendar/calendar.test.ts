import fc from 'fast-check'
import {
  addDays,
  daysBetween,
  showAge,
  showAhead,
  showDay,
  showFarDay,
  showLongDay,
  showSpan,
} from '@/core/calendar'

test.each([
  ['2026-02-27', 2, '2026-03-01'],
  ['2024-02-28', 1, '2024-02-29'],
  ['2026-12-31', 1, '2027-01-01'],
  ['2026-03-30', -30, '2026-02-28'],
])('%s and %d days is %s', (day, days, result) => {
  expect(addDays(day, days)).toBe(result)
})

test('adding days and counting them agree', () => {
  fc.assert(
    fc.property(fc.integer({ min: -20_000, max: 20_000 }), (days) => {
      expect(daysBetween('2026-10-14', addDays('2026-10-14', days))).toBe(days)
    }),
  )
})

test('days are said as people say them', () => {
  expect(showDay('2026-10-07', '2026-10-14')).toBe('7\u00a0Oct')
  expect(showDay('2024-03-01', '2026-10-14')).toBe('1\u00a0Mar 2024')
  expect([showLongDay('2026-10-14'), showLongDay('1970-01-01')]).toEqual([
    'Wednesday 14\u00a0October',
    'Thursday 1\u00a0January',
  ])
  expect(
    ['2026-10-14', '2026-10-13', '2026-10-05', '2026-01-05'].map((day) => showAge(day, '2026-10-14')),
  ).toEqual(['today', 'yesterday', '9 days ago', 'on 5\u00a0Jan'])
})

test('a day to come is told as precisely as it can be known', () => {
  const told = (day: string) => showFarDay(day, '2026-10-14')
  expect(
    ['2026-11-07', '2027-10-14', '2027-10-15', '2029-10-13', '2029-10-14', '2035-03-04'].map(told),
  ).toEqual(['7\u00a0Nov', '14\u00a0Oct 2027', 'Oct 2027', 'Oct 2029', '2029', '2035'])
})

test('time to come is told as people say it', () => {
  const told = [0, 1, 59, 60, 182, 183, 330, 351, 400, 457, 639, 640, 3423, 7305, 9000].map(showAhead)
  expect(told.map((words) => words.replaceAll('\u00a0', ' '))).toEqual([
    'about 0 days',
    'about 1 day',
    'about 59 days',
    'about 9 weeks',
    'about 26 weeks',
    'about 6 months',
    'about 11 months',
    'about a year',
    'about a year',
    'about a year and a half',
    'about a year and a half',
    'about 2 years',
    'about 9 years',
    'about 20 years',
    'more than 20 years',
  ])
})

test('the days between which something will be', () => {
  const told = (from: string, to: string | null) => showSpan(from, to, '2026-10-14').replaceAll('\u00a0', ' ')
  expect(told('2026-10-09', '2026-10-31')).toBe('9 to 31 Oct')
  expect(told('2026-10-29', '2026-11-03')).toBe('29 Oct to 3 Nov')
  expect(told('2026-10-29', '2026-10-29')).toBe('29 Oct')
  expect(told('2026-10-29', null)).toBe('from 29 Oct')
  expect(told('2027-12-01', '2028-02-03')).toBe('Dec 2027 to Feb 2028')
  expect(told('2028-02-01', '2028-02-20')).toBe('Feb 2028')
  expect(told('2031-02-01', '2035-02-20')).toBe('2031 to 2035')
})
