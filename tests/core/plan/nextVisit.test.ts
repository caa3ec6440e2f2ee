import { nextVisit } from '@/core/plan'

const clock = (name: string, aboutDay: string | null, from: string | null, more = {}) => ({
  name,
  aboutDay,
  window: from === null ? null : { from, to: '2027-12-01' },
  lastResponsibleDay: aboutDay,
  state: 'healthy' as const,
  share: 0.5,
  ...more,
})
const names = (visit: ReturnType<typeof nextVisit<ReturnType<typeof clock>>>) =>
  visit?.items.map((item) => item.name)

test('what is due takes along what may be done by then, and leaves what would waste its life', () => {
  const visit = nextVisit(
    [
      clock('plungers', '2027-06-01', '2027-05-01'),
      clock('valves', '2026-11-20', '2026-10-28'),
      clock('seals', '2026-11-03', '2026-10-25'),
    ],
    '2026-10-14',
  )
  expect([visit?.day, visit?.leading.name, names(visit)]).toEqual([
    '2026-11-03',
    'seals',
    ['valves', 'seals'],
  ])
})

test('what is past is done today', () => {
  const visit = nextVisit([clock('seals', '2026-10-01', '2026-09-01')], '2026-10-14')
  expect(visit?.day).toBe('2026-10-14')
})

test('parts that take weeks make another service lead', () => {
  const visit = nextVisit(
    [
      clock('near', '2026-10-20', '2026-10-15'),
      clock('far', '2026-11-05', '2026-10-25', { lastResponsibleDay: '2026-10-08' }),
    ],
    '2026-10-14',
  )
  expect([visit?.leading.name, visit?.day, names(visit)]).toEqual(['far', '2026-11-05', ['near', 'far']])
})

test('nothing in sight is no visit', () => {
  expect(nextVisit([clock('seals', null, null)], '2026-10-14')).toBeNull()
})
