import fc from 'fast-check'
import { judgeReading, packReadings, unpackReadings, type Reading } from '@/core/hours'

const instant = fc
  .integer({ min: Date.parse('2024-01-01'), max: Date.parse('2027-12-31') })
  .map((ms) => new Date(ms).toISOString())
const reading: fc.Arbitrary<Reading> = fc.record({
  id: fc.uuid(),
  at: instant,
  value: fc.integer({ min: 0, max: 999_999 }).map((tenths) => tenths / 10),
})

test('Two readings in one string', () => {
  const readings = [
    { id: 'b', at: '2026-10-01T08:00:01.000Z', value: 4790.3 },
    { id: 'a', at: '2026-10-01T08:00:00.000Z', value: 4790.2 },
  ]
  const packed = packReadings(readings)
  expect(packed.split(' ')[1]).toBe('rs:4790.3')
  expect(unpackReadings(packed)).toEqual([
    { id: '000000', at: '2026-10-01T08:00:00.000Z', value: 4790.2 },
    { id: '000001', at: '2026-10-01T08:00:01.000Z', value: 4790.3 },
  ])
  expect(unpackReadings(packReadings([]))).toEqual([])
})

test('What was packed is judged as what was not', () => {
  fc.assert(
    fc.property(fc.array(reading, { maxLength: 30 }), instant, fc.nat(99_999), (readings, at, value) => {
      const face = { unit: 'h' as const, digits: 5, decimals: 1 }
      const judge = (list: Reading[]) => judgeReading({ face, readings: list, events: [] }, { at, value })
      expect(judge(unpackReadings(packReadings(readings)))).toEqual(judge(readings))
    }),
  )
})
