import fc from 'fast-check'
import { addDays, dayNumber, type Day } from '@/core/calendar'
import {
  anotherFrost,
  dayOfWinter,
  enteredClimate,
  expectedAt,
  frostClimate,
  frostProbability,
  normalBelow,
  safeFrom,
  studentAt,
  studentBelow,
  thresholdOf,
  winterDay,
} from '@/core/winter'

/** A winter at +6 °C, with named days colder. */
function winter(year: number, cold: Record<number, number>) {
  const start = `${year}-07-01`
  const days = dayNumber(`${year + 1}-06-30`) - dayNumber(start) + 1
  return Array.from({ length: days }, (_, at) => ({ day: addDays(start, at), minC: cold[at] ?? 6 }))
}
const three = [
  ...winter(2021, { 100: -1, 150: -8, 240: -2 }),
  ...winter(2022, { 110: 0, 160: -10, 250: -1 }),
  ...winter(2023, { 120: -2, 170: -12, 260: -0.5 }),
]

describe('the two distributions', () => {
  test.each([
    [2.262157, 9, 0.975],
    [12.706205, 1, 0.975],
    [1.533206, 4, 0.9],
    [-1.885618, 2, 0.1],
    [2.042272, 30, 0.975],
    [0, 5, 0.5],
  ])('t of %d with %d degrees of freedom is below at %d', (t, freedom, below) => {
    expect(studentBelow(t, freedom)).toBeCloseTo(below, 6)
    expect(studentAt(below, freedom)).toBeCloseTo(t, 5)
  })
  test('the normal curve', () => {
    expect(normalBelow(1.959964)).toBeCloseTo(0.975, 7)
    expect(normalBelow(-3)).toBeCloseTo(0.001349898, 9)
    expect(normalBelow(8)).toBeCloseTo(1, 12)
    expect(normalBelow(-40)).toBe(0)
  })
})

describe('the climate of a yard', () => {
  const climate = frostClimate(three)

  test('first frost on days 100, 110, 120: mean 110, 10 √(4/3) = 11.547 with two degrees of freedom', () => {
    const { first, last, share } = thresholdOf(climate, 0)
    expect(share).toBe(1)
    expect(first!.mean).toBe(110)
    expect(first!.scale).toBeCloseTo(11.547, 3)
    expect(first!.freedom).toBe(2)
    expect(last!.mean).toBe(250)
    // t(0.9; 2) = 1.8856
    expect(expectedAt(first!, 0.9)).toBeCloseTo(110 + 11.547 * 1.885618, 2)
  })
  test('a hall at -4 °C has its own days: 150, 160, 170', () => {
    expect(thresholdOf(climate, -4).first!.mean).toBe(160)
    expect(thresholdOf(climate, -4).last!.mean).toBe(160)
  })
  test('the design low is passed in one winter of ten: -10 - 1.8856 · 2 √(4/3) = -14.4', () => {
    expect(climate.designLowC).toBe(-14.4)
  })
  test('a winter without frost is counted apart', () => {
    const mild = frostClimate([...three, ...winter(2024, {})])
    expect(thresholdOf(mild, 0)).toMatchObject({ share: 0.75, frosty: 3 })
    expect(thresholdOf(mild, 0).first!.mean).toBe(110)
    // Far past the last of them three quarters remain.
    expect(frostProbability({ climate: mild, standsC: 0, from: '2026-07-01', to: '2027-06-30' })).toBeCloseTo(
      0.75,
      1,
    )
  })
  test('a winter with too much missing is left out and said', () => {
    const holed = frostClimate(three.filter(({ day }) => day < '2022-11-01' || day > '2022-11-12'))
    expect(holed.winters.map((one) => one.winter)).toEqual([2021, 2023])
    expect(holed.leftOut).toEqual([{ winter: 2022, missing: 12 }])
    expect(holed.gaps).toEqual([{ from: '2022-11-01', to: '2022-11-12' }])
    const part = frostClimate(three.filter(({ day }) => day >= '2021-11-01'))
    expect(part.winters.map((one) => one.winter)).toEqual([2022, 2023])
  })
  test('a day twice with two values, and what is no minimum, are refused by their day', () => {
    expect(() => frostClimate([...three, { day: '2022-01-01', minC: 3 }])).toThrow()
    expect(() => frostClimate([{ day: '2022-01-01', minC: 451 }])).toThrow()
    expect(frostClimate([...three, three[5]!]).winters).toHaveLength(3)
    expect(frostClimate([]).designLowC).toBeNull()
  })
  test('leap years keep their days', () => {
    expect(winterDay('2023-07-01')).toBe(0)
    expect(winterDay('2024-06-30')).toBe(365)
    expect(winterDay('2025-06-30')).toBe(364)
    expect(dayOfWinter(2026, 129)).toBe('2026-11-07')
  })
})

describe('the chance of frost', () => {
  const climate = frostClimate(three)
  const on = (at: number): Day => dayOfWinter(2026, at)

  test('even odds by the mean, 0.9 by t(0.9; 2)', () => {
    const by = (to: number) => frostProbability({ climate, standsC: 0, from: '2026-07-01', to: on(to) })
    // Of the little that the wide distribution puts before July nothing has come true.
    expect(by(110)).toBeCloseTo(0.5, 1)
    expect(by(131.77)).toBeCloseTo(0.9, 1)
  })
  test('given none so far: from the mean on, half of what is left by t(0.75; 2) = 0.8165', () => {
    const chance = frostProbability({ climate, standsC: 0, from: on(111), to: on(110 + 9) })
    // F(119) = studentBelow(9 / 11.547 = 0.7794) = 0.7413; (0.7413 - 0.5) / 0.5
    expect(chance).toBeCloseTo((studentBelow(9 / 11.547, 2) - 0.5) / 0.5, 4)
  })
  test('a heated store never freezes', () => {
    expect(frostProbability({ climate, standsC: null, from: on(0), to: on(300) })).toBe(0)
  })
  test('the outlook takes the place of the climate for its nights', () => {
    const nights = (minC: number, sdC: number) => [0, 1, 2].map((at) => ({ day: on(110 + at), minC, sdC }))
    const at = (outlook: ReturnType<typeof nights>) =>
      frostProbability({ climate, standsC: 0, outlook, from: on(110), to: on(112) })
    expect(at(nights(9, 1.5))).toBeLessThan(1e-6)
    expect(at(nights(0, 0))).toBe(1)
    // Three nights at the limit, each even: 1 - 0.5³
    expect(at(nights(0, 2))).toBeCloseTo(0.875, 9)
    expect(at(nights(0.1, 0))).toBe(0)
  })
  test('the end before the beginning is no time', () => {
    expect(frostProbability({ climate, standsC: 0, from: on(110), to: on(109) })).toBe(0)
  })
  test('in spring: another frost is even odds on the mean of the last', () => {
    expect(anotherFrost(climate, 0, '2027-03-09')).toBeCloseTo(0.5, 9)
    // Day 251 is 9 March; by Student's t the chance is under 5 % from 2.92 scales on.
    expect(winterDay('2027-03-09')).toBe(251)
    expect(safeFrom(climate, 0, '2027-03-09', 0.05)).toBe(
      dayOfWinter(2026, Math.ceil(251 + 2.91999 * 11.547)),
    )
  })
  test('entered: two winters of three lie within the spread', () => {
    const typed = enteredClimate(
      [
        {
          standsC: 0,
          first: { day: '2026-11-07', spreadDays: 10 },
          last: { day: '2026-04-01', spreadDays: 8 },
        },
      ],
      -16,
    )
    const by = (at: number) =>
      frostProbability({ climate: typed, standsC: 0, from: '2026-07-01', to: on(at) })
    expect(by(129)).toBeCloseTo(0.5, 6)
    expect(by(139)).toBeCloseTo(0.8413, 4)
    // For a hall nobody entered anything: as early as clear air, never later.
    expect(thresholdOf(typed, -4).first!.mean).toBe(129)
  })
  test('law: it only grows with the days, is a chance, and is no less for what freezes sooner', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 360 }),
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 0, max: 30 }),
        (from, length, more) => {
          const of = (standsC: number, to: number) =>
            frostProbability({ climate, standsC, from: on(from), to: on(to) })
          const short = of(0, from + length)
          const long = of(0, from + length + more)
          expect(short).toBeGreaterThanOrEqual(0)
          expect(long).toBeLessThanOrEqual(1)
          expect(long).toBeGreaterThanOrEqual(short - 1e-12)
        },
      ),
    )
  })
  test('law: fewer winters of the same spread say less', () => {
    const many = frostClimate(
      [0, 1, 2].flatMap((k) => [0, 1, 2].flatMap((j) => winter(2000 + 3 * k + j, { [100 + 10 * j]: -1 }))),
    )
    const first = thresholdOf(many, 0).first!
    expect(first.scale).toBeLessThan(thresholdOf(climate, 0).first!.scale)
    expect(first.mean).toBe(110)
  })
})
