import fc from 'fast-check'
import { addDays, daysBetween } from '@/core/calendar'
import { clockOf, dueOf, ruledLimit, type ComingUse, type WearRules } from '@/core/wear'

const today = '2026-10-14'
const tolerance = { early: 0.1, late: 0.1 }
const limit = (hours: number | null, days: number | null) => ({
  hours,
  days,
  firstHours: null,
  firstDays: null,
})
/** So many hours a day, reached 20 % sooner with 10 % and 20 % later with 90 %. */
const steady = (perDay: number): ComingUse => ({
  perDay,
  dayReaching: (hours, probability) => {
    const spread = probability === 0.1 ? 0.8 : probability === 0.9 ? 1.2 : 1
    return addDays(today, Math.round((hours / perDay) * spread))
  },
})

test('the four terms by hand: 700 of 800 h at 5 h a day', () => {
  const clock = clockOf({ hours: 700, days: 140 }, limit(800, null), tolerance)
  // 100 h left: 20 days, 16 to 24. Window: 720 h in 4 days as likely as not; 880 h in 36 days, 10 % in 29.
  expect(dueOf(clock, tolerance, today, steady(5), 0, 2)).toEqual({
    dueDay: '2026-11-03',
    firstBy: 'hours',
    band: { early: '2026-10-30', late: '2026-11-07' },
    window: { from: '2026-10-18', to: '2026-11-12' },
    lastResponsibleDay: '2026-10-28',
  })
})

test('parts that take three weeks make a far task the most urgent', () => {
  const far = clockOf({ hours: 700, days: 140 }, limit(800, null), tolerance)
  const near = clockOf({ hours: 760, days: 140 }, limit(800, null), tolerance)
  const withLead = dueOf(far, tolerance, today, steady(5), 21, 2).lastResponsibleDay!
  const onShelf = dueOf(near, tolerance, today, steady(5), 0, 2).lastResponsibleDay!
  // 30 Oct less 21 less 2 is 7 Oct, a week ago; the near one: 40 h in 8 days, 10 % in 6, less 2.
  expect([withLead, onShelf]).toEqual(['2026-10-07', '2026-10-18'])
})

test('a calendar limit is reached in a lay-up: hours stand still, days run on', () => {
  const still: ComingUse = { perDay: 0, dayReaching: () => null }
  const clock = clockOf({ hours: 300, days: 350 }, limit(800, 365), tolerance)
  expect(dueOf(clock, tolerance, today, still, 0, 0)).toMatchObject({
    dueDay: '2026-10-29',
    firstBy: 'days',
    band: { early: '2026-10-29', late: '2026-10-29' },
  })
})

test('whichever comes first is said, at each term for itself', () => {
  // By hours in 20 days, by days in 18: the days; at 10 % the hours are there in 16.
  const clock = clockOf({ hours: 700, days: 347 }, limit(800, 365), tolerance)
  expect(dueOf(clock, tolerance, today, steady(5), 0, 0)).toMatchObject({
    firstBy: 'days',
    dueDay: '2026-11-01',
    band: { early: '2026-10-30', late: '2026-11-01' },
  })
})

test('on the shelf only the days run; without days nothing is due', () => {
  expect(
    dueOf(clockOf({ hours: 700, days: 10 }, limit(800, null), tolerance), tolerance, today, null, 9, 2),
  ).toEqual({
    dueDay: null,
    firstBy: null,
    band: null,
    window: null,
    lastResponsibleDay: null,
  })
})

test('what is past is dated by the use since, so that what waits longest comes first', () => {
  // 46 h past at 5 h a day: nine days ago.
  const clock = clockOf({ hours: 846, days: 200 }, limit(800, null), tolerance)
  expect(dueOf(clock, tolerance, today, steady(5), 0, 2)).toMatchObject({
    dueDay: '2026-10-05',
    lastResponsibleDay: '2026-10-03',
  })
})

test('laws: more lead, more notice or more hours never put the last responsible day off', () => {
  const number = (min: number, max: number) => fc.integer({ min, max })
  fc.assert(
    fc.property(
      number(0, 1000),
      number(0, 400),
      number(0, 40),
      number(0, 10),
      number(0, 50),
      (hours, days, lead, notice, more) => {
        const last = (usedHours: number, leadDays: number, noticeDays: number) =>
          dueOf(
            clockOf({ hours: usedHours, days }, limit(800, 365), tolerance),
            tolerance,
            today,
            steady(4),
            leadDays,
            noticeDays,
          ).lastResponsibleDay!
        const now = last(hours, lead, notice)
        expect(daysBetween(now, last(hours, lead + more, notice))).toBeLessThanOrEqual(0)
        expect(daysBetween(now, last(hours, lead, notice + more))).toBeLessThanOrEqual(0)
        expect(daysBetween(now, last(hours + more, lead, notice))).toBeLessThanOrEqual(0)
      },
    ),
  )
})

describe('limits of one assembly', () => {
  const task = {
    key: 'hpSeals',
    limit: { hours: 800, days: 1095, firstHours: 50, firstDays: null },
    tolerance,
  }
  const duty = (key: 'hotInlet' | 'highPressure' | 'stopStart' | 'hardWater', factor: number) => ({
    key,
    factor,
    reason: 'measured',
  })

  test('hot inlet and near rated pressure multiply on seals, hours only: 0.7 x 0.8 of 800 is 448', () => {
    const rules: WearRules = {
      overrides: [],
      duties: [duty('hotInlet', 0.7), duty('highPressure', 0.8), duty('stopStart', 0.85)],
    }
    const ruled = ruledLimit(task, ['seal'], rules)
    expect(ruled.limit).toEqual({ hours: 448, days: 1095, firstHours: 28, firstDays: null })
    expect(ruled.duties.map(({ name }) => name)).toEqual(['Hot inlet water', 'Near its rated pressure'])
    expect(ruled.factor).toBeCloseTo(0.56, 9)
    expect(ruledLimit(task, ['oil'], rules).factor).toBeCloseTo(0.68, 9)
    expect(ruledLimit(task, ['other'], rules).limit).toEqual(task.limit)
  })

  test('together they never go below four tenths', () => {
    const rules = { overrides: [], duties: [duty('hotInlet', 0.5), duty('hardWater', 0.5)] }
    expect(ruledLimit(task, ['seal'], rules)).toMatchObject({ factor: 0.4, limit: { hours: 320 } })
  })

  test('an override stands instead of the model, with its own tolerance, and hard duty still shortens it', () => {
    const override = {
      task: 'hpSeals',
      hours: 600,
      days: null,
      firstHours: null,
      firstDays: null,
      early: 0.2,
      late: 0.05,
      reason: 'sand',
    }
    const ruled = ruledLimit(task, ['seal'], { overrides: [override], duties: [duty('hotInlet', 0.7)] })
    expect(ruled).toMatchObject({
      limit: { hours: 420, days: null, firstHours: null },
      stated: { hours: 600 },
      tolerance: { early: 0.2, late: 0.05 },
      overrideReason: 'sand',
    })
    expect(
      ruledLimit({ ...task, key: 'valves' }, ['valve'], { overrides: [override], duties: [] }).limit.hours,
    ).toBe(800)
  })
})
