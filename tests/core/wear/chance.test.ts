import { chanceBy } from '@/core/wear'

test.each([
  ['2026-10-29', 0],
  ['2026-10-30', 0.1],
  ['2026-11-01', 0.3],
  ['2026-11-03', 0.5],
  ['2026-11-05', 0.7],
  ['2026-11-07', 1],
])('a limit reached between 30 Oct and 7 Nov is reached by %s with %d', (day, chance) => {
  const due = { dueDay: '2026-11-03', band: { early: '2026-10-30', late: '2026-11-07' } }
  expect(chanceBy(due, day)).toBeCloseTo(chance, 9)
})

test('what may never be reached is at most even', () => {
  expect(chanceBy({ dueDay: '2026-11-03', band: { early: '2026-10-30', late: null } }, '2027-11-03')).toBe(
    0.5,
  )
  expect(chanceBy({ dueDay: null, band: null }, '2027-11-03')).toBe(0)
})
