import fc from 'fast-check'
import { bundlesOf, usualPlanTerms, workOf, type Bundling, type FleetService } from '@/core/plan'
import { monday, service } from '../../support/planFleet'

const due = (
  task: string,
  day: string | null,
  from: string | null,
  more: Partial<FleetService> = {},
): Bundling =>
  ({
    pump: { assemblyId: 'P-04', number: 'P-04', title: '', unit: 'h' },
    clock: {
      task,
      aboutDay: day,
      lastResponsibleDay: day,
      state: 'healthy',
      share: 0.9,
      window: from === null ? null : { from, to: '2026-12-31' },
    },
    plan: day === null ? null : service(task, day, more),
  }) as unknown as Bundling
const told = (bundles: ReturnType<typeof bundlesOf>) =>
  bundles.map(({ day, services, more, minutes, minutesAlone }) => ({
    day,
    on: services.map(({ clock }) => clock.task),
    more: more.map(({ service: { clock } }) => clock.task),
    minutes,
    minutesAlone,
  }))
const bundles = (wanted: Bundling[], others: Bundling[] = []) =>
  bundlesOf(wanted, others, { today: monday, terms: usualPlanTerms })

test('what shares a day is one visit; what may be done only later is another', () => {
  // Each 30 min of its own behind a manifold of 60 on a machine made safe in 20: 110 alone, 140 for two.
  const seals = due('seals', '2026-08-05', '2026-08-01')
  const oil = due('oil', '2026-08-20', '2026-08-04')
  const valves = due('valves', '2026-09-01', '2026-08-20')
  expect(told(bundles([valves, oil, seals]))).toEqual([
    { day: '2026-08-05', on: ['seals', 'oil'], more: [], minutes: 140, minutesAlone: 220 },
    { day: '2026-09-01', on: ['valves'], more: [], minutes: 110, minutesAlone: 110 },
  ])
})

test('what need not be decided goes along where the visit it spares is worth more than the life it gives up', () => {
  const seals = due('seals', '2026-08-05', '2026-08-01')
  // 20 of 100 days of 10.00 and half an hour: 7.40 given up; 80 min and a visit spared.
  const oil = due('oil', '2026-08-25', '2026-08-01')
  // 60 of 100 days of 2 027.00: 1 216.20 given up, for 232.00 spared.
  const plungers = due('plungers', '2026-10-04', '2026-08-01', { partsCents: 200_000 })
  const later = due('later', '2026-10-04', '2026-09-01')
  const [bundle] = bundles([seals], [plungers, later, oil])
  expect(told([bundle!])).toMatchObject([{ on: ['seals', 'oil'], more: ['plungers'] }])
  expect(bundle!.more).toMatchObject([{ addsMinutes: 30, aloneMinutes: 110, givesUp: 0.6, gain: -98_420 }])
})

test('what waits longer for its parts holds nothing up, and what leads is done once its own are there', () => {
  const seals = due('seals', '2026-08-01', '2026-07-20', { partsFrom: '2026-08-06' })
  const oil = due('oil', '2026-08-10', '2026-08-01')
  const plungers = due('plungers', '2026-08-10', '2026-08-01', { partsFrom: '2026-08-24' })
  expect(told(bundles([oil, plungers, seals]))).toMatchObject([
    { day: '2026-08-06', on: ['seals', 'oil'] },
    { day: '2026-08-24', on: ['plungers'] },
  ])
})

test('what has no day is done with the first visit, or alone on a day that nobody knows', () => {
  const idle = due('idle', null, null)
  expect(told(bundles([idle]))).toEqual([{ day: null, on: ['idle'], more: [], minutes: 0, minutesAlone: 0 }])
  expect(told(bundles([due('seals', '2026-08-05', null), idle]))).toMatchObject([{ on: ['seals', 'idle'] }])
})

test('law: all that is wanted stands on one bundle each, nothing else twice, and together is never longer', () => {
  const day = fc.integer({ min: 0, max: 60 }).map((ahead) => {
    const at = new Date(Date.UTC(2026, 6, 25 + ahead))
    return at.toISOString().slice(0, 10)
  })
  const some = fc.array(
    fc.record({
      day: fc.option(day),
      from: fc.option(day),
      partsFrom: fc.option(day),
      cents: fc.nat(300_000),
    }),
    { maxLength: 9 },
  )
  fc.assert(
    fc.property(some, some, (wanted, others) => {
      const make = (prefix: string) => (each: (typeof wanted)[number], at: number) =>
        due(`${prefix}${at}`, each.day, each.from, { partsFrom: each.partsFrom, partsCents: each.cents })
      const asked = wanted.map(make('w'))
      const found = bundles(asked, others.map(make('o')))
      const on = found.flatMap(({ services }) => services.map(({ clock }) => clock.task))
      expect(new Set(on).size).toBe(on.length)
      expect(on.filter((task) => task.startsWith('w')).sort()).toEqual(
        asked.map(({ clock }) => clock.task).sort(),
      )
      for (const { services, minutes, minutesAlone, day: on } of found) {
        expect(minutes).toBeLessThanOrEqual(minutesAlone)
        expect(minutes).toBe(workOf(services.flatMap(({ plan }) => plan ?? [])).together)
        for (const { plan } of services)
          if (on !== null && plan?.partsFrom) expect(plan.partsFrom <= on).toBe(true)
      }
    }),
  )
})
