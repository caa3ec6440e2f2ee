import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { allPositions, parsePumpModel } from '@/core/models'
import { clockOf, taskClocks, whereWords, worseClock, type Since, type WearRecord } from '@/core/wear'

const limit = { hours: 800, days: 1000, firstHours: 50, firstDays: null }
const tolerance = { early: 0.1, late: 0.1 }

test.each([
  // Hours of 800: due soon from 720, over past 800, overdue past 880.
  [0, 0, 'healthy', 'hours', 0],
  [719, 10, 'healthy', 'hours', 719 / 800],
  [720, 10, 'dueSoon', 'hours', 0.9],
  [800, 10, 'dueSoon', 'hours', 1],
  [846, 120, 'over', 'hours', 846 / 800],
  [880, 10, 'over', 'hours', 1.1],
  [881, 10, 'overdue', 'hours', 881 / 800],
  // Days of 1000, whichever comes first.
  [100, 950, 'dueSoon', 'days', 0.95],
  [100, 1101, 'overdue', 'days', 1.101],
] as const)('%d h and %d days are %s by %s', (hours, days, state, by, share) => {
  const clock = clockOf({ hours, days }, limit, tolerance)
  expect(clock).toMatchObject({ state, by })
  expect(clock.share).toBeCloseTo(share, 9)
})

test('a first interval differs from those that follow', () => {
  expect(clockOf({ hours: 51, days: 5 }, limit, tolerance, true)).toMatchObject({
    state: 'over',
    hoursLimit: 50,
    hoursLeft: -1,
  })
  expect(clockOf({ hours: 51, days: 5 }, limit, tolerance, false)).toMatchObject({
    state: 'healthy',
    hoursLeft: 749,
  })
})

test('a limit by days alone counts on while nothing runs', () => {
  const byDays = { hours: null, days: 365, firstHours: null, firstDays: null }
  expect(clockOf({ hours: 0, days: 400 }, byDays, tolerance)).toMatchObject({
    state: 'over',
    by: 'days',
    hoursLeft: null,
    daysLeft: -35,
  })
})

test('more use never makes a clock look better', () => {
  const use = fc.record({
    hours: fc.double({ min: 0, max: 3000, noNaN: true }),
    days: fc.integer({ min: 0, max: 3000 }),
  })
  fc.assert(
    fc.property(use, fc.double({ min: 0, max: 500, noNaN: true }), (used, more) => {
      const now = clockOf(used, limit, tolerance)
      const later = clockOf({ hours: used.hours + more, days: used.days }, limit, tolerance)
      expect(worseClock(later, now)).toBeLessThanOrEqual(0)
    }),
  )
})

const model = parsePumpModel(JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8')))
const since = (usage: number, day: string, first = false): Since => ({ usage, day, first, assumed: false })

/** A pump of 5 246 h whose every part was fitted at 4 400 h, but for cylinder 3, whose seals were renewed at 5 034 h. */
function record(): WearRecord {
  const lives = Object.fromEntries(
    allPositions(model).map((position) => [position, since(4400, '2026-06-06')]),
  )
  lives['hpSeal@3'] = since(5034, '2026-09-12')
  lives['lpSeal@3'] = since(5034, '2026-09-12')
  return { usage: 5246, today: '2026-10-14', lives, done: {} }
}

test('each position has its own life: the cylinder renewed on its own has a line of its own', () => {
  const clocks = taskClocks(model, record())
  const lines = clocks.map(({ task, where, clock }) => [task.key, where, clock.hoursUsed, clock.state])
  expect(lines).toEqual([
    // 846 of 100 h, of 400 h, of 800 h (5.75 % past), of 1 000 h, of 1 200 h, of 1 600 h, of 2 400 h. What is
    // looked at on condition has a clock of its own beside the life of the part.
    ['inletFilter', '', 846, 'overdue'],
    ['oilChange', '', 846, 'overdue'],
    ['hpSeals', 'cylinders 1 and 2', 846, 'over'],
    ['plungerCheck', 'all cylinders', 846, 'over'],
    ['lpSeals', 'cylinders 1 and 2', 846, 'healthy'],
    ['outletValves', 'all cylinders', 846, 'healthy'],
    ['inletValves', 'all cylinders', 846, 'healthy'],
    ['retainerCheck', 'all cylinders', 846, 'healthy'],
    ['plungers', 'all cylinders', 846, 'healthy'],
    ['boltCheck', 'all cylinders', 846, 'healthy'],
    ['oilSeals', 'all cylinders', 846, 'healthy'],
    ['hpSeals', 'cylinder 3', 212, 'healthy'],
    ['lpSeals', 'cylinder 3', 212, 'healthy'],
  ])
})

test('inspecting restarts the inspection’s clock and never the life', () => {
  const inspection = {
    ...model.tasks.find((task) => task.key === 'hpSeals')!,
    key: 'lookAtSeals',
    kind: 'inspect' as const,
  }
  const inspected = { ...model, tasks: [...model.tasks, inspection] }
  const looked = { ...record(), done: { lookAtSeals: { 'hpSeal@1': since(5200, '2026-10-01') } } }
  const used = (key: string) =>
    taskClocks(inspected, looked)
      .filter(({ task }) => task.key === key)
      .map(({ where, clock }) => [where, clock.hoursUsed])
      .sort()
  expect(used('lookAtSeals')).toEqual([
    ['cylinder 1', 46],
    ['cylinder 2', 846],
    ['cylinder 3', 212],
  ])
  expect(used('hpSeals')).toEqual([
    ['cylinder 3', 212],
    ['cylinders 1 and 2', 846],
  ])
})

test('a position of which nothing is known has no clock, rather than an invented one', () => {
  const { oil: _oil, ...lives } = record().lives
  expect(taskClocks(model, { ...record(), lives }).some(({ task }) => task.key === 'oilChange')).toBe(false)
})

test('positions are named as people say them', () => {
  expect(whereWords(model, ['hpSeal@1'])).toBe('cylinder 1')
  expect(whereWords(model, ['hpSeal@3', 'hpSeal@1'])).toBe('cylinders 1 and 3')
  expect(whereWords(model, ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'])).toBe('all cylinders')
  expect(whereWords(model, ['oil'])).toBe('')
})
