import fc from 'fast-check'
import { pickPlans, type ShelfLot } from '@/core/stores'

const lot = (lotId: string, partId: string, quantity: number, more: Partial<ShelfLot> = {}): ShelfLot => ({
  lotId,
  partId,
  placeId: 'harbour',
  quantity,
  expiresOn: null,
  leftOver: false,
  ...more,
})
const want = (visitId: string, day: string, needs: [string, number][], yardId = 'harbour') => ({
  visitId,
  day,
  yardId,
  needs: needs.map(([partId, quantity]) => ({ partId, quantity })),
})
const prices = {
  parts: { seal: { cents: 500 }, ring: { cents: 100 }, kit: { cents: 1200 } },
  kits: { kit: 1200 },
}
const kit = {
  partId: 'kit',
  contents: [
    { partId: 'seal', quantity: 3 },
    { partId: 'ring', quantity: 3 },
  ],
}

test('left-over pieces first, then what expires soonest', () => {
  const [plan] = pickPlans(
    [want('v1', '2026-10-16', [['seal', 4]])],
    [
      lot('late', 'seal', 9, { expiresOn: '2030-01-01' }),
      lot('soon', 'seal', 2, { expiresOn: '2027-01-01' }),
      lot('open', 'seal', 1, { leftOver: true, expiresOn: '2031-01-01' }),
    ],
    [],
    prices,
  )
  expect(plan!.take.map(({ lotId, quantity }) => [lotId, quantity])).toEqual([
    ['open', 1],
    ['soon', 2],
    ['late', 1],
  ])
})

test('a kit is opened before anything is short, whatever it costs, and leaves pieces for the next visit', () => {
  const plans = pickPlans(
    [
      want('v1', '2026-10-16', [['seal', 2]]),
      want('v2', '2026-10-17', [
        ['seal', 1],
        ['ring', 3],
      ]),
    ],
    [lot('k1', 'kit', 1)],
    [kit],
    prices,
  )
  expect(plans[0]).toMatchObject({
    take: [],
    open: [{ kitPartId: 'kit', lotId: 'k1', pieces: [{ partId: 'seal', quantity: 2 }] }],
    short: [],
  })
  // One seal and three rings are left of it: enough for the second.
  expect(plans[1]!.short).toEqual([])
  expect(plans[1]!.open).toEqual([])
  expect(plans[1]!.take.reduce((sum, { quantity }) => sum + quantity, 0)).toBe(4)
})

test('what is good today and not on the day of the visit, and what lies in another yard, is short', () => {
  const [plan] = pickPlans(
    [want('v1', '2026-10-16', [['seal', 3]])],
    [
      lot('old', 'seal', 5, { expiresOn: '2026-10-15' }),
      lot('far', 'seal', 5, { placeId: 'upland' }),
      lot('here', 'seal', 1),
    ],
    [],
    prices,
  )
  expect(plan!.take).toEqual([{ lotId: 'here', partId: 'seal', placeId: 'harbour', quantity: 1 }])
  expect(plan!.short).toEqual([{ partId: 'seal', quantity: 2 }])
})

test('law: no lot gives more than it holds, and every visit gets what it wants or is told what is short', () => {
  const wants = fc.array(
    fc.record({
      day: fc.constantFrom('2026-10-16', '2026-11-16', '2027-01-10'),
      yardId: fc.constantFrom('harbour', 'upland'),
      seal: fc.integer({ min: 0, max: 5 }),
      ring: fc.integer({ min: 0, max: 5 }),
    }),
    { minLength: 1, maxLength: 3 },
  )
  const lots = fc.array(
    fc.record({
      partId: fc.constantFrom('seal', 'ring', 'kit'),
      placeId: fc.constantFrom('harbour', 'upland'),
      quantity: fc.integer({ min: 1, max: 4 }),
      expiresOn: fc.constantFrom(null, '2026-10-31', '2026-12-31'),
      leftOver: fc.boolean(),
    }),
    { maxLength: 5 },
  )
  fc.assert(
    fc.property(wants, lots, (asked, lying) => {
      const shelf = lying.map((each, at) => ({ ...each, lotId: `l${at}` }))
      const sorted = [...asked].sort((a, b) => (a.day < b.day ? -1 : 1))
      const plans = pickPlans(
        sorted.map(({ day, yardId, seal, ring }, at) =>
          want(
            `v${at}`,
            day,
            [
              ['seal', seal],
              ['ring', ring],
            ],
            yardId,
          ),
        ),
        shelf,
        [kit],
        prices,
      )
      for (const each of shelf) {
        const taken = plans
          .flatMap((plan) => [
            ...plan.take.filter(({ lotId }) => lotId === each.lotId).map(({ quantity }) => quantity),
            ...plan.open.filter(({ lotId }) => lotId === each.lotId).map(() => 1),
          ])
          .reduce((sum, quantity) => sum + quantity, 0)
        expect(taken).toBeLessThanOrEqual(each.quantity)
      }
      plans.forEach((plan, at) => {
        for (const part of ['seal', 'ring'] as const) {
          const got =
            plan.take
              .filter(({ partId }) => partId === part)
              .reduce((sum, { quantity }) => sum + quantity, 0) +
            plan.open
              .flatMap(({ pieces }) => pieces)
              .filter(({ partId }) => partId === part)
              .reduce((sum, { quantity }) => sum + quantity, 0)
          const short = plan.short.find(({ partId }) => partId === part)?.quantity ?? 0
          expect(got + short).toBe(sorted[at]![part])
        }
        for (const { lotId } of plan.take) {
          const from = shelf.find((each) => each.lotId === lotId)
          if (!from) continue
          expect(from.placeId).toBe(sorted[at]!.yardId)
          expect(from.expiresOn === null || from.expiresOn >= sorted[at]!.day).toBe(true)
        }
      })
    }),
    { numRuns: 300 },
  )
})
