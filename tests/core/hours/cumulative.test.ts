import fc from 'fast-check'
import {
  assemblyLine,
  assemblyUsage,
  countedStretches,
  cumulativeHours,
  hoursAt,
  usageSinceTakeOver,
  weeklyUse,
  type MeterEvent,
} from '@/core/hours'

const at = (day: number) => new Date(Date.UTC(2026, 0, 1 + day)).toISOString()
const reading = (day: number, value: number) => ({ id: `r${day}`, at: at(day), value })

test('hours are straight-lined between readings and flat outside them', () => {
  const line = cumulativeHours([reading(10, 130), reading(0, 100)], [])
  expect([-5, 0, 5, 10, 20].map((day) => hoursAt(line, at(day)))).toEqual([100, 100, 115, 130, 130])
  expect(hoursAt(cumulativeHours([], []), at(0))).toBeNull()
})

test('a new meter goes on from what the old one had reached', () => {
  // 900 read, 920 on the old meter when it came off, the new one starts at 5: 30 shown is 920 + 25.
  const change: MeterEvent = { kind: 'change', id: 'c', at: at(7), lastValue: 920, firstValue: 5 }
  const line = cumulativeHours([reading(0, 900), reading(28, 30)], [change])
  expect(line.points.map((point) => point.hours)).toEqual([900, 920, 945])
})

test('where nobody noted the old meter’s last value, its last reading counts', () => {
  const change: MeterEvent = { kind: 'change', id: 'c', at: at(7), lastValue: null, firstValue: 0 }
  expect(cumulativeHours([reading(0, 900), reading(28, 30)], [change]).points.at(-1)!.hours).toBe(930)
})

test('a roll-over adds one turn of the counter', () => {
  const roll: MeterEvent = { kind: 'rollOver', id: 'o', at: at(5), span: 10_000 }
  const line = cumulativeHours([reading(0, 9990), reading(10, 15)], [roll])
  expect(line.points.at(-1)!.hours).toBe(10_015)
  // The way up is straight from 9 990 to 10 015: half of it, 12.5, after half the time.
  expect(hoursAt(line, at(5))).toBe(10_002.5)
})

test('law: where a counter goes through zero makes no difference to its hours at any instant', () => {
  fc.assert(
    fc.property(fc.integer({ min: 31, max: 40 }), fc.integer({ min: 0, max: 50 }), (turn, day) => {
      // 2.5 h a day from 9 900 on, read every ten days; the counter turns at 10 000, on day 40.
      const days = [0, 10, 20, 30, 40, 50]
      const line = cumulativeHours(
        days.map((each) => reading(each, (9900 + each * 2.5) % 10_000)),
        [{ kind: 'rollOver', id: 'o', at: at(turn), span: 10_000 }],
      )
      expect(hoursAt(line, at(day))).toBeCloseTo(9900 + day * 2.5, 6)
    }),
  )
})

test('a reading that would make the line fall is left out and named', () => {
  const line = cumulativeHours([reading(0, 100), reading(5, 90), reading(10, 130)], [])
  expect(line.ignoredReadingIds).toEqual(['r5'])
  expect(line.points.map((point) => point.hours)).toEqual([100, 130])
})

const histories = fc.record({
  readings: fc.uniqueArray(
    fc.record({ day: fc.integer({ min: 0, max: 900 }), value: fc.integer({ min: 0, max: 9999 }) }),
    {
      selector: (entry) => entry.day,
      maxLength: 40,
    },
  ),
  events: fc.uniqueArray(
    fc.record({
      day: fc.integer({ min: 0, max: 900 }),
      last: fc.option(fc.integer({ min: 0, max: 9999 })),
      first: fc.integer({ min: 0, max: 50 }),
      roll: fc.boolean(),
    }),
    { selector: (entry) => entry.day, maxLength: 5 },
  ),
})

test('cumulative hours never fall, whatever is read and whatever happens to the meter', () => {
  fc.assert(
    fc.property(histories, ({ readings, events }) => {
      const line = cumulativeHours(
        readings.map((entry) => reading(entry.day, entry.value)),
        events.map(asEvent),
      )
      for (let index = 1; index < line.points.length; index += 1) {
        expect(line.points[index]!.hours).toBeGreaterThanOrEqual(line.points[index - 1]!.hours - 1e-9)
      }
    }),
  )
})

test('the order in which readings and events arrive does not matter', () => {
  fc.assert(
    fc.property(histories, fc.integer(), ({ readings, events }, seed) => {
      const shuffled = <T>(list: T[]) =>
        [...list].sort((a, b) => hash(JSON.stringify(a), seed) - hash(JSON.stringify(b), seed))
      const given = readings.map((entry) => reading(entry.day, entry.value))
      const happened = events.map(asEvent)
      expect(cumulativeHours(shuffled(given), shuffled(happened))).toEqual(cumulativeHours(given, happened))
    }),
  )
})

function asEvent(entry: { day: number; last: number | null; first: number; roll: boolean }): MeterEvent {
  return entry.roll
    ? { kind: 'rollOver', id: `e${entry.day}`, at: at(entry.day), span: 10_000 }
    : {
        kind: 'change',
        id: `e${entry.day}`,
        at: at(entry.day),
        lastValue: entry.last,
        firstValue: entry.first,
      }
}

const hash = (text: string, seed: number) =>
  [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0) + seed) % 9973, 7)

test('weekly use is that of the last weeks before the newest reading', () => {
  const line = cumulativeHours([reading(0, 0), reading(100, 1000), reading(142, 1084)], [])
  // 84 h in the last 42 days is 14 h a week.
  expect(weeklyUse(line, 6)).toBeCloseTo(14, 9)
  expect(weeklyUse(cumulativeHours([reading(0, 0), reading(5, 40)], []), 6)).toBeNull()
})

test('an assembly has what it came with, and its share of each meter while it was fitted', () => {
  const first = cumulativeHours([reading(0, 1000), reading(20, 1100)], [])
  const second = cumulativeHours([reading(0, 50), reading(20, 90)], [])
  const stretches = [
    { line: first, share: 0.8, from: at(0), to: at(10) },
    { line: second, share: 1, from: at(15), to: null },
  ]
  // 0.8 of half of 100 h, and a quarter of 40 h.
  expect(usageSinceTakeOver(stretches, at(30))).toBeCloseTo(40 + 10, 9)
  expect(assemblyUsage({ kind: 'known', usage: 120 }, stretches, at(30))).toBeCloseTo(170, 9)
  expect(assemblyUsage({ kind: 'unknown', usage: 0 }, stretches, at(30))).toBeNull()
  expect(usageSinceTakeOver(stretches, at(10))).toBeCloseTo(40, 9)
})

test('a duty share counts from its day on and never restates the hours before it', () => {
  const fittings = [
    { at: at(0), machineId: 'm1' },
    { at: at(20), machineId: null },
    { at: at(30), machineId: 'm2' },
  ]
  const shares = [
    { at: at(30), meterId: 'b', share: 1 },
    { at: at(0), meterId: 'a', share: 0.5 },
    { at: at(10), meterId: 'a', share: 0.8 },
  ]
  expect(countedStretches(fittings, shares)).toEqual([
    { meterId: 'a', share: 0.5, from: at(0), to: at(10) },
    { meterId: 'a', share: 0.8, from: at(10), to: at(20) },
    { meterId: 'b', share: 1, from: at(30), to: null },
  ])
})

test('an assembly’s own line goes flat on the shelf and on at its share', () => {
  const first = cumulativeHours([reading(0, 1000), reading(10, 1100), reading(20, 1150)], [])
  const second = cumulativeHours([reading(0, 50), reading(40, 90)], [])
  const stretches = [
    { line: first, share: 0.5, from: at(0), to: at(20) },
    { line: second, share: 1, from: at(30), to: null },
  ]
  const line = assemblyLine({ kind: 'known', usage: 200 }, stretches, at(60))
  // 200; half of 100 h; half of 50 h more; flat to day 30; then a quarter of 40 h, from 80 to 90.
  expect(line.map((point) => [point.at, point.hours])).toEqual([
    [at(0), 200],
    [at(10), 250],
    [at(20), 275],
    [at(30), 275],
    [at(40), 285],
  ])
  expect(line.at(-1)!.hours).toBeCloseTo(assemblyUsage({ kind: 'known', usage: 200 }, stretches, at(60))!, 9)
})
