import fc from 'fast-check'
import { addMonths, goodUntil, keepsDays, readCured } from '@/core/stores'

const B = { group: 'B', months: 0 } as const

test('rubber keeps by its group, from the day it was cured and not from its receipt', () => {
  // By hand: 7 years after 1 April 2024.
  expect(goodUntil(B, { curedOn: '2024-04-01', receivedOn: '2026-10-14' })).toEqual({
    day: '2031-04-01',
    assumed: false,
  })
  expect(goodUntil({ group: 'A', months: 0 }, { curedOn: '2024-04-01', receivedOn: '2026-10-14' })?.day).toBe(
    '2029-04-01',
  )
  expect(goodUntil({ group: 'C', months: 0 }, { curedOn: '2024-04-01', receivedOn: '2026-10-14' })?.day).toBe(
    '2034-04-01',
  )
})

test('where nobody knows the date of cure the receipt stands for it, and it is said', () => {
  expect(goodUntil(B, { curedOn: null, receivedOn: '2026-10-14' })).toEqual({
    day: '2033-10-14',
    assumed: true,
  })
})

test('an inspection lengthens rubber once, by 2, 3 and 5 years; what has a life of its own it does not', () => {
  const of = (group: 'A' | 'B' | 'C' | 'own', months = 0) =>
    goodUntil({ group, months }, { curedOn: '2020-01-31', receivedOn: '2020-02-01', extended: true })?.day
  expect([of('A'), of('B'), of('C'), of('own', 12)]).toEqual([
    '2027-01-31',
    '2030-01-31',
    '2035-01-31',
    '2021-01-31',
  ])
  expect(goodUntil({ group: 'none', months: 0 }, { curedOn: null, receivedOn: '2026-10-14' })).toBeNull()
  expect(keepsDays({ group: 'none', months: 0 }, '2026-10-14')).toBeNull()
  expect(keepsDays({ group: 'own', months: 12 }, '2027-03-01')).toBe(366)
})

test('months end on the last day where there is no such date', () => {
  expect(addMonths('2026-01-31', 1)).toBe('2026-02-28')
  expect(addMonths('2024-02-29', 12)).toBe('2025-02-28')
  expect(addMonths('2026-10-14', 3)).toBe('2027-01-14')
})

test('the date of cure is read as it is printed: a day, a month, a quarter, and the first day of it counts', () => {
  const read = (text: string) => readCured(text)
  expect(read('2Q26')).toEqual({ ok: true, day: '2026-04-01' })
  expect(read('Q4/2025')).toEqual({ ok: true, day: '2025-10-01' })
  expect(read('4Q 2025')).toEqual({ ok: true, day: '2025-10-01' })
  expect(read('2026-05')).toEqual({ ok: true, day: '2026-05-01' })
  expect(read('05/2026')).toEqual({ ok: true, day: '2026-05-01' })
  expect(read('2026-05-17')).toEqual({ ok: true, day: '2026-05-17' })
  expect(read('  ')).toEqual({ ok: true, day: null })
  expect(read('5Q26').ok).toBe(false)
  expect(read('13/2026').ok).toBe(false)
  expect(read('last spring').ok).toBe(false)
})

test('law: what was cured later is never good for shorter, and an inspection never shortens', () => {
  const day = fc
    .integer({ min: 0, max: 12_000 })
    .map((at) => new Date(at * 86_400_000 + 946_684_800_000).toISOString().slice(0, 10))
  fc.assert(
    fc.property(
      fc.constantFrom('A', 'B', 'C', 'own'),
      fc.integer({ min: 1, max: 120 }),
      day,
      day,
      (group, months, one, other) => {
        const [early, late] = [one, other].sort() as [string, string]
        const until = (curedOn: string, extended = false) =>
          goodUntil({ group: group as 'A', months }, { curedOn, receivedOn: late, extended })!.day
        expect(until(early) <= until(late)).toBe(true)
        expect(until(early) <= until(early, true)).toBe(true)
      },
    ),
  )
})
