import fc from 'fast-check'
import { cumulativeHours, dueDays, forecastUsage } from '@/core/hours'

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
  const forecast = forecastUsage(lineOf(182, () => 20 / 7))!
  expect(forecast.weekly).toBeCloseTo(20)
  expect(forecast.weeks).toBe(26)
  // 100 / 20 weeks = 35 days; the middle of a skewed distribution lies a little later than its mean.
  expect(forecast.daysReaching(100, 0.5)!).toBeGreaterThan(34)
  expect(forecast.daysReaching(100, 0.5)!).toBeLessThan(37)
  expect(forecast.daysReaching(100, 0.1)!).toBeLessThan(35)
  expect(forecast.daysReaching(100, 0.9)!).toBeGreaterThan(35)
  expect(forecast.hoursWithin(35).mean).toBeCloseTo(100)
  expect(dueDays(forecast, '2026-07-02', 100).median!.slice(0, 7)).toBe('2026-08')
})

test('jobs in bursts give a wider band than steady use of as many hours', () => {
  const width = (hoursOn: (day: number) => number) => {
    const forecast = forecastUsage(lineOf(364, hoursOn))!
    return forecast.daysReaching(100, 0.9)! - forecast.daysReaching(100, 0.1)!
  }
  const steady = width(() => 3)
  const bursts = width((index) => (Math.floor(index / 14) % 3 === 0 ? 9 : 0))
  expect(bursts).toBeGreaterThan(steady * 2)
})

test('a step in use is followed within weeks', () => {
  const forecast = forecastUsage(lineOf(300, (index) => (index < 244 ? 2 : 6)))!
  expect(forecast.weekly).toBeGreaterThan(30)
})

test('nothing is said of a meter without history or without use', () => {
  expect(forecastUsage(lineOf(10, () => 3))).toBeNull()
  expect(forecastUsage(lineOf(100, () => 0))).toBeNull()
  expect(forecastUsage(cumulativeHours([], []))).toBeNull()
})

test('laws: more hours are never reached sooner, nor with more certainty sooner; the band holds the mean', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 20, noNaN: true }), { minLength: 30, maxLength: 300 }),
      fc.double({ min: 1, max: 400, noNaN: true }),
      (daily, hours) => {
        const forecast = forecastUsage(lineOf(daily.length - 1, (index) => daily[index]!))
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
