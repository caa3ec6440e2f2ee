import { comingNeed, type ComingDemand, type ComingStock } from '@/core/stores'
import { chanceBy } from '@/core/wear'

const demand = (day: string, quantity: number, chance: number, machine: string): ComingDemand => ({
  partId: 'seal',
  day,
  quantity,
  chance,
  for: machine,
})
const stock =
  (more: Partial<ComingStock> = {}) =>
  () => ({
    free: 6,
    minimum: 3,
    leadDays: 21,
    packSize: 3,
    ...more,
  })

test('six free, three to be kept: sure use of three is covered, likely use of three more is not', () => {
  const demands = [demand('2026-11-09', 3, 0.5, 'T-12'), demand('2026-10-28', 3, 1, 'T-04')]
  // 6 − 3 = 3 on 28 Oct, not below; 3 − 1.5 on 9 Nov. 1.5 short: one pack of three.
  expect(comingNeed(demands, stock())).toEqual([
    {
      partId: 'seal',
      wantedOn: '2026-11-09',
      orderBy: '2026-10-19',
      expected: 4.5,
      free: 6,
      minimum: 3,
      order: 3,
      for: ['T-04', 'T-12'],
    },
  ])
})

test('what the shelf covers is not named', () => {
  expect(comingNeed([demand('2026-10-28', 3, 1, 'T-04')], stock())).toEqual([])
})

test('parts that booked visits have taken are not counted twice: less is free, so the day is nearer', () => {
  const demands = [demand('2026-10-28', 3, 1, 'T-04'), demand('2026-11-09', 3, 0.5, 'T-12')]
  const [need] = comingNeed(demands, stock({ free: 0 }))
  // 3 + 4.5 are wanted: three packs.
  expect(need).toMatchObject({ wantedOn: '2026-10-28', orderBy: '2026-10-07', order: 9 })
})

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
