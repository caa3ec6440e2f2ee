import fc from 'fast-check'
import {
  cumulativeHours,
  dueDays,
  fitUsage,
  forecastBy,
  forecastUsage,
  forecastWords,
  patternOfUse,
} from '@/core/hours'
import { monthOf, weekdayOf } from '@/core/hours/pattern'

const today = '2026-12-31'
const day = (index: number) => new Date(Date.UTC(2026, 0, 1 + index)).toISOString()
/** Readings every `every` days of a meter used so many hours on each day. */
function lineOf(days: number, hoursOn: (day: number) => number, every = 7) {
  let total = 100
  const readings: { id: string; at: string; value: number }[] = []
  for (let index = 0; index <= days; index += 1) {
    if (index > 0) total += hoursOn(index)
    if (index % every === 0 || index === days)
      readings.push({ id: String(index), at: day(index), value: total })
  }
  return cumulativeHours(readings, [])
}

test('20 h a week, every week: 100 h more in about 35 days, and the band holds that day', () => {
  const forecast = forecastUsage(
    lineOf(182, () => 20 / 7),
    '2026-07-02',
  )!
  expect(forecast.weekly).toBeCloseTo(20)
  expect(forecast.rests.readings).toBeGreaterThan(20)
  // 100 / 20 weeks = 35 days; the middle of a skewed distribution lies a little later than its mean.
  expect(forecast.daysReaching(100, 0.5)!).toBeGreaterThan(34)
  expect(forecast.daysReaching(100, 0.5)!).toBeLessThan(37)
  expect(forecast.daysReaching(100, 0.1)!).toBeLessThan(35)
  expect(forecast.daysReaching(100, 0.9)!).toBeGreaterThan(35)
  expect(forecast.hoursWithin(35).mean).toBeCloseTo(100)
  expect(dueDays(forecast, 100).median!.slice(0, 7)).toBe('2026-08')
})

test('jobs in bursts give a wider band than steady use of as many hours', () => {
  const width = (hoursOn: (day: number) => number) => {
    const forecast = forecastUsage(lineOf(364, hoursOn), today)!
    return forecast.daysReaching(100, 0.9)! - forecast.daysReaching(100, 0.1)!
  }
  const steady = width(() => 3)
  const bursts = width((index) => (Math.floor(index / 14) % 3 === 0 ? 9 : 0))
  expect(bursts).toBeGreaterThan(steady * 2)
})

test('a step in use is followed within weeks', () => {
  const forecast = forecastUsage(
    lineOf(300, (index) => (index < 244 ? 2 : 6)),
    today,
  )!
  expect(forecast.weekly).toBeGreaterThan(30)
})

test('nothing is said of a meter without history or without use', () => {
  expect(
    forecastUsage(
      lineOf(10, () => 3),
      today,
    ),
  ).toBeNull()
  expect(
    forecastUsage(
      lineOf(100, () => 0),
      today,
    ),
  ).toBeNull()
  expect(forecastUsage(cumulativeHours([], []), today)).toBeNull()
})

test('laws: more hours are never reached sooner, nor with more certainty sooner; the band holds the mean', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { minLength: 30, maxLength: 300 }),
      fc.double({ min: 1, max: 400, noNaN: true }),
      (daily, hours) => {
        const forecast = forecastUsage(
          lineOf(daily.length - 1, (index) => daily[index]!),
          today,
        )
        if (!forecast) return
        const days = (target: number, probability: number) =>
          forecast.daysReaching(target, probability) ?? Infinity
        expect(days(hours, 0.1)).toBeLessThanOrEqual(days(hours, 0.5))
        expect(days(hours, 0.5)).toBeLessThanOrEqual(days(hours, 0.9))
        expect(days(hours, 0.5)).toBeLessThanOrEqual(days(hours * 1.5, 0.5) + 0.5)
        const { mean, low, high } = forecast.hoursWithin(30)
        expect(low).toBeLessThanOrEqual(mean)
        expect(high).toBeGreaterThanOrEqual(mean)
      },
    ),
    { numRuns: 60 },
  )
})

describe('what is known of the days ahead', () => {
  // 3 h every day of the week, the newest reading on 2 July 2026.
  const line = lineOf(182, () => 3)
  const ask = (known: Parameters<typeof forecastUsage>[2]) => forecastUsage(line, '2026-07-02', known)!

  test('a lay-up puts the day off by as many days as it stands', () => {
    const plain = ask({ layUps: [], bookings: [] }).daysReaching(100, 0.5)!
    const layUps = [{ from: '2026-07-10', to: '2026-07-29' }]
    expect(ask({ layUps, bookings: [] }).daysReaching(100, 0.5)! - plain).toBeCloseTo(20, 0)
    // Hours stand still in between: from the end of 9 July to the end of 29 July.
    const forecast = ask({ layUps, bookings: [] })
    expect(forecast.hoursBy('2026-07-29')).toEqual(forecast.hoursBy('2026-07-09'))
  })

  test('laid up until further notice, more hours are not in sight', () => {
    const forecast = ask({ layUps: [{ from: '2026-07-05', to: null }], bookings: [] })
    expect(forecast.dayReaching(100, 0.5)).toBeNull()
    expect(forecast.dayReaching(5, 0.5)).not.toBeNull()
  })

  test('a booked job counts its own hours, and narrows the band', () => {
    const bookings = [{ from: '2026-07-03', to: '2026-07-12', hoursPerDay: 9 }]
    const booked = ask({ layUps: [], bookings })
    // A day at 3 h, as the reading was taken at midnight before 2 July, then ten days at 9 h.
    expect(booked.hoursBy('2026-07-12').mean).toBeCloseTo(3 + 90, 0)
    expect(booked.daysReaching(90, 0.5)!).toBeLessThan(12)
    expect(ask({ layUps: [], bookings: [] }).daysReaching(90, 0.5)!).toBeGreaterThan(29)
  })

  test('a lay-up that was told of teaches no low level', () => {
    // 4 h a day, laid up the last 60 days before the newest reading.
    const winter = lineOf(300, (index) => (index < 240 ? 4 : 0))
    const from = day(240).slice(0, 10)
    const told = forecastUsage(winter, day(300).slice(0, 10), {
      layUps: [{ from, to: day(310).slice(0, 10) }],
      bookings: [],
    })!
    expect(told.weekly).toBeGreaterThan(26)
    expect(told.weekly).toBeLessThan(30)
    const untold = forecastUsage(winter, today)
    expect(untold!.weekly).toBeLessThan(10)
  })
})

test('weekdays are learned from readings that lie several days apart', () => {
  // What is counted by the midnight of index n was run on the day before it.
  const weekday = (index: number) => new Date(Date.UTC(2026, 0, index)).getUTCDay()
  const fiveDays = lineOf(200, (index) => (weekday(index) % 6 === 0 ? 0 : 5), 3)
  const { weekdays } = patternOfUse(fiveDays, [])
  const mean = (list: number[]) => list.reduce((sum, each) => sum + each, 0) / list.length
  // Gaps of three days never show a single day: what is left over at the edges stays with their neighbours.
  expect(mean(weekdays.slice(0, 5))).toBeGreaterThan(1.2)
  expect(Math.max(...weekdays.slice(5))).toBeLessThan(0.4)
  expect(mean(weekdays)).toBeCloseTo(1, 9)
})

test('a quiet January is learned in the second year, and said in words', () => {
  const month = (index: number) => new Date(Date.UTC(2026, 0, index)).getUTCMonth()
  const quiet = lineOf(720, (index) => (month(index) === 0 ? 0.5 : 4))
  const forecast = forecastUsage(quiet, day(720).slice(0, 10))!
  expect(forecast.pattern.months[0]).toBeLessThan(0.65)
  expect(forecast.pattern.months[5]).toBeGreaterThan(0.95)
  expect(forecastWords(forecast, 'h')).toMatch(
    /readings in \d+ weeks, about 2\d\u00a0h a week, quiet in January$/,
  )
  expect(forecastWords(forecast, 'h', 0.5)).toContain('about 14\u00a0h a week')
})

test('months and weekdays of day numbers are those of the calendar', () => {
  for (let number = -40_000; number < 60_000; number += 7) {
    const date = new Date(number * 86_400_000)
    expect(monthOf(number)).toBe(date.getUTCMonth())
    expect(weekdayOf(number)).toBe((date.getUTCDay() + 6) % 7)
  }
})

test('law: what was learned foretells the same after it was written down and read again', () => {
  const history = fc.array(
    fc.record({ days: fc.integer({ min: 1, max: 20 }), hours: fc.integer({ min: 0, max: 90 }) }),
    {
      minLength: 3,
      maxLength: 40,
    },
  )
  fc.assert(
    fc.property(history, fc.integer({ min: -3, max: 14 }), fc.boolean(), (gaps, quarter, laidUp) => {
      let [at, total] = [Date.parse('2024-01-03T10:00:00.000Z'), 0]
      const points = gaps.map(({ days, hours }) => {
        at += days * 86_400_000
        total += hours
        return { at: new Date(at).toISOString(), hours: total, source: 'reading' as const }
      })
      const known = {
        layUps: laidUp ? [{ from: '2024-02-01', to: '2024-02-10' }] : [],
        bookings: [],
        offsetDays: quarter / 96,
      }
      const today = '2026-10-14'
      const fresh = forecastUsage({ points }, today, known)
      const written = JSON.parse(JSON.stringify(fitUsage({ points }, known))) as ReturnType<typeof fitUsage>
      const read = written && forecastBy(written, today, known)
      expect(read === null).toBe(fresh === null)
      if (!read || !fresh) return
      expect([read.weekly, read.rests, read.from, read.fromDay]).toEqual([
        fresh.weekly,
        fresh.rests,
        fresh.from,
        fresh.fromDay,
      ])
      for (const hours of [0, 10, 250, 5000])
        for (const probability of [0.1, 0.5, 0.9])
          expect(read.dayReaching(hours, probability)).toBe(fresh.dayReaching(hours, probability))
    }),
  )
})
