import fc from 'fast-check'
import { dueStanding, worseDue, worseStanding, type DueStanding } from '@/core/plan'

const today = '2026-10-14'
const clock = (name: string, state: string, lastResponsibleDay: string | null, share = 0.5) => ({
  task: name,
  name,
  where: '',
  positions: [`${name}@1`],
  state,
  share,
  lastResponsibleDay,
})
const pump = (number: string, ...clocks: object[]) => ({ assemblyId: number, number, unit: 'h', clocks })
const sign = (name: string, by: string) => ({ id: name, name, pump: 'P-04', by })
const visit = (id: string, day: string, ...tasks: string[]) => ({
  id,
  number: 7,
  day,
  lead: 'M. Osei',
  late: false,
  sheet: null,
  services: tasks.map((task) => ({ assemblyId: 'P-04', task, positions: [`${task}@1`] })),
})
const standing = (views: object[], visits: object[] = [], signs: object[] = []) =>
  dueStanding(views as never, visits as never, signs as never, today)

test('an overdue service leads, whatever is nearer by its share', () => {
  const it = standing([
    pump('P-04', clock('oil', 'dueSoon', '2026-10-15', 0.99), clock('seals', 'overdue', '2026-10-01', 1.2)),
    pump('A-01', clock('strainer', 'over', '2026-09-01', 1.02)),
  ])
  expect(it).toMatchObject({
    state: 'overdue',
    actBy: '2026-10-01',
    worst: { name: 'seals', pump: 'P-04', bookedOn: null },
    past: 2,
    soon: 1,
  })
})

test('the earliest open visit is the next one, and says what of the worst it takes', () => {
  const it = standing(
    [pump('P-04', clock('seals', 'overdue', '2026-10-01'))],
    [visit('late one', '2026-11-02', 'seals'), visit('near one', '2026-10-20', 'oil')],
  )
  expect(it.next).toMatchObject({ id: 'near one', day: '2026-10-20', onBench: false })
  expect(it.worst!.bookedOn).toBe('2026-11-02')
})

test('a sign makes a healthy machine due, and past once its day has gone', () => {
  const healthy = [pump('P-04', clock('seals', 'healthy', '2027-02-01'))]
  expect(standing(healthy, [], [sign('Oil leak', '2026-10-20')])).toMatchObject({
    state: 'dueSoon',
    actBy: '2026-10-20',
  })
  expect(standing(healthy, [], [sign('Oil leak', '2026-10-13')]).state).toBe('over')
  expect(standing(healthy, [], [sign('Oil leak', today)]).state).toBe('dueSoon')
})

test('nothing on it and nothing seen is no state, and comes last', () => {
  const none = standing([])
  expect(none).toEqual({ state: 'none', actBy: null, worst: null, past: 0, soon: 0, next: null, signs: [] })
  const far = standing([pump('P-04', clock('seals', 'healthy', null))])
  expect([none, far].sort(worseStanding)).toEqual([far, none])
})

test('with more time left a machine comes later, however far it is used', () => {
  const week = standing([pump('P-04', clock('seals', 'healthy', '2026-10-21', 0.4))])
  const years = standing([pump('P-05', clock('oil', 'healthy', '2029-01-01', 0.85))])
  expect([years, week].sort(worseStanding)).toEqual([week, years])
})

const day = fc.option(fc.integer({ min: 1, max: 28 }).map((n) => `2026-10-${String(n).padStart(2, '0')}`))
const due = fc.record({
  state: fc.constantFrom('healthy', 'dueSoon', 'over', 'overdue'),
  lastResponsibleDay: day,
  share: fc.double({ min: 0, max: 3, noNaN: true }),
})

test('what a machine tells is the worst that any of its pumps tells, in any order', () => {
  fc.assert(
    fc.property(fc.array(due, { minLength: 1, maxLength: 6 }), fc.nat(5), (dues, cut) => {
      const clocks = dues.map((each, index) => ({ ...clock(`task ${index}`, '', null), ...each }))
      const together = standing([pump('P-04', ...clocks)])
      const apart = standing([pump('P-04', ...clocks.slice(cut)), pump('P-05', ...clocks.slice(0, cut))])
      expect(worseStanding(together, apart)).toBe(0)
      const worst = clocks.find((each) => each.name === together.worst!.name)!
      for (const each of clocks) expect(worseDue(worst as never, each as never)).toBeLessThanOrEqual(0)
    }),
  )
})

test('the order of machines is an order', () => {
  const standings = fc
    .array(due, { maxLength: 2 })
    .map((dues): DueStanding =>
      standing([pump('P', ...dues.map((each) => ({ ...clock('x', '', null), ...each })))]),
    )
  fc.assert(
    fc.property(standings, standings, standings, (a, b, c) => {
      expect(Math.sign(worseStanding(a, b))).toBe(-Math.sign(worseStanding(b, a)) + 0)
      if (worseStanding(a, b) <= 0 && worseStanding(b, c) <= 0)
        expect(worseStanding(a, c)).toBeLessThanOrEqual(0)
    }),
  )
})
