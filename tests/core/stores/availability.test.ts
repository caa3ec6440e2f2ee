import fc from 'fast-check'
import { availability, openBook, stockedFor, suppliesOf, type Demand, type StockedPart } from '@/core/stores'

const today = '2026-10-14'
const seal = (more: Partial<StockedPart> = {}): StockedPart => ({
  id: 'hp20',
  number: 'HP-20',
  name: 'High-pressure seal 20',
  unit: 'piece',
  bin: 'H-09',
  fits: [{ modelId: 'k4', part: 'hpSeal' }],
  retired: false,
  leadDays: 21,
  lots: [{ onHand: 5, expiresOn: null }],
  ...more,
})
const wants = (visitId: string, day: string, quantity: number): Demand => ({
  visitId,
  day,
  partId: 'hp20',
  quantity,
})

test('visits take from the shelf in the order of their days; what would come too late is said', () => {
  const book = openBook(
    today,
    [seal()],
    [wants('c', '2026-11-20', 2), wants('a', '2026-10-16', 4), wants('b', '2026-10-20', 3)],
  )
  // Five there: four go on the 16th, one of three is left for the 20th; ordered today it comes on 4 November.
  expect(
    suppliesOf(book).map((each) => [each.visitId, each.available, each.missing, each.arrives, each.inTime]),
  ).toEqual([
    ['a', 4, 0, null, true],
    ['b', 1, 2, '2026-11-04', false],
    ['c', 0, 2, '2026-11-04', true],
  ])
})

test('whoever asks for no visit comes after every visit until that day, and before later ones', () => {
  const book = openBook(today, [seal()], [wants('a', '2026-10-16', 4), wants('c', '2026-11-20', 1)])
  const ask = (day: string, quantity: number, forVisit?: string) =>
    availability(book, { part: 'hp20', quantity, day, forVisit })
  expect(ask('2026-10-15', 5)).toMatchObject({ free: 5, missing: 0, earliestDay: today })
  expect(ask('2026-10-16', 3)).toMatchObject({ free: 1, missing: 2, earliestDay: '2026-11-04' })
  expect(ask('2026-12-01', 1)).toMatchObject({ free: 0, missing: 1, earliestDay: '2026-11-04' })
  // What a visit has reserved is not taken from itself.
  expect(ask('2026-10-16', 4, 'a')).toMatchObject({ free: 5, missing: 0, earliestDay: today })
  expect(ask('2026-11-20', 1, 'c')).toMatchObject({ free: 1, missing: 0, earliestDay: today })
})

test('a lot counts only on days on which it is good, and goes to earlier visits first', () => {
  const lots = [
    { onHand: 3, expiresOn: '2026-10-31' },
    { onHand: 2, expiresOn: null },
  ]
  const book = openBook(today, [seal({ lots })], [wants('a', '2026-10-16', 2)])
  const free = (day: string) => availability(book, { part: 'hp20', quantity: 1, day }).free
  // Five less the two of the 16th, which come from the lot that expires; after that day the other two.
  expect([free('2026-10-15'), free('2026-10-16'), free('2026-10-31'), free('2026-11-01')]).toEqual([
    5, 3, 3, 2,
  ])
})

test('a visit whose day has passed still wants its parts today', () => {
  const lots = [{ onHand: 3, expiresOn: '2026-10-13' }]
  const book = openBook(today, [seal({ lots })], [wants('late', '2026-10-12', 2)])
  expect(suppliesOf(book)[0]).toMatchObject({ available: 0, missing: 2 })
})

test('a retired part serves nothing, and of several the first is taken', () => {
  const parts = [seal({ id: 'old', retired: true }), seal({ id: 'b', number: 'HP-21' }), seal({ id: 'c' })]
  expect(stockedFor(parts, { modelId: 'k4', part: 'hpSeal' })?.id).toBe('b')
  expect(stockedFor(parts, { modelId: 'k4', part: 'lpSeal' })).toBeNull()
  expect(stockedFor(parts, { modelId: null, part: null })).toBeNull()
  expect(() => availability(openBook(today, parts, []), { part: 'x', quantity: 1, day: today })).toThrow(
    RangeError,
  )
})

test('law: what visits get never exceeds the shelf, and every one gets what those before it leave', () => {
  fc.assert(
    fc.property(
      fc.uniqueArray(
        fc.record({
          visitId: fc.string({ minLength: 1, maxLength: 3 }),
          day: fc.constantFrom('2026-10-14', '2026-10-16', '2026-10-20', '2026-11-03'),
          quantity: fc.integer({ min: 1, max: 9 }),
        }),
        { selector: ({ visitId }) => visitId, maxLength: 8 },
      ),
      fc.array(
        fc.record({
          onHand: fc.integer({ min: -2, max: 9 }),
          expiresOn: fc.constantFrom(null, '2026-10-15', '2026-10-31'),
        }),
        { maxLength: 4 },
      ),
      (visits, lots) => {
        const demands = visits.map(({ visitId, day, quantity }) => wants(visitId, day, quantity))
        const supplies = suppliesOf(openBook(today, [seal({ lots })], demands))
        const there = lots.reduce((sum, { onHand }) => sum + Math.max(0, onHand), 0)
        expect(supplies.reduce((sum, each) => sum + each.available, 0)).toBeLessThanOrEqual(there)
        for (const each of supplies) expect(each.available + each.missing).toBe(each.quantity)
        // Booking one more visit later takes nothing from those before it.
        const more = suppliesOf(
          openBook(today, [seal({ lots })], [...demands, wants('zzzz', '2026-12-01', 4)]),
        )
        expect(more.filter(({ visitId }) => visitId !== 'zzzz')).toEqual(supplies)
      },
    ),
  )
})

test('another yard’s stock takes a transfer with its days; what is on the way counts from its day', () => {
  const lots = [
    { onHand: 1, expiresOn: null, yardId: 'harbour' },
    { onHand: 5, expiresOn: null, yardId: 'upland' },
  ]
  const coming = [{ partId: 'hp20', day: '2026-10-18', quantity: 4, yardId: 'harbour' }]
  const book = openBook(today, [seal({ lots })], [], coming, 2)
  const ask = (quantity: number, day: string) =>
    availability(book, { part: 'hp20', quantity, day, yardId: 'harbour' })
  // Tomorrow only the one of the own yard: from Upland it takes two days.
  expect(ask(3, '2026-10-15')).toMatchObject({ free: 1, missing: 2, earliestDay: '2026-10-16' })
  expect(ask(3, '2026-10-16')).toMatchObject({
    free: 6,
    missing: 0,
    fromOthers: [{ yardId: 'upland', quantity: 2 }],
  })
  // From the 18th on what comes into the own yard goes before a transfer.
  expect(ask(6, '2026-10-18')).toMatchObject({
    free: 10,
    dueIn: 4,
    fromOthers: [{ yardId: 'upland', quantity: 1 }],
  })
  // All ten are there when the delivery is.
  expect(ask(10, '2026-10-16')).toMatchObject({ free: 6, missing: 4, earliestDay: '2026-10-18' })
})

test('an earlier visit takes from its own yard first, and leaves the others theirs', () => {
  const lots = [
    { onHand: 2, expiresOn: null, yardId: 'harbour' },
    { onHand: 2, expiresOn: null, yardId: 'upland' },
  ]
  const book = openBook(
    today,
    [seal({ lots })],
    [
      { ...wants('a', '2026-10-20', 3), yardId: 'upland' },
      { ...wants('b', '2026-10-21', 2), yardId: 'harbour' },
    ],
  )
  expect(suppliesOf(book)).toMatchObject([
    { visitId: 'a', available: 3, fromOthers: [{ yardId: 'harbour', quantity: 1 }] },
    { visitId: 'b', available: 1, missing: 1 },
  ])
})

test('law: with yards and deliveries too, what visits get never exceeds what is there and on the way', () => {
  const yard = fc.constantFrom('harbour', 'upland')
  const days = fc.constantFrom('2026-10-14', '2026-10-15', '2026-10-17', '2026-10-20', '2026-11-03')
  fc.assert(
    fc.property(
      fc.uniqueArray(
        fc.record({
          visitId: fc.string({ minLength: 1, maxLength: 3 }),
          day: days,
          quantity: fc.integer({ min: 1, max: 9 }),
          yardId: yard,
        }),
        { selector: ({ visitId }) => visitId, maxLength: 7 },
      ),
      fc.array(
        fc.record({
          onHand: fc.integer({ min: -2, max: 9 }),
          expiresOn: fc.constantFrom(null, '2026-10-15', '2026-10-31'),
          yardId: yard,
        }),
        { maxLength: 4 },
      ),
      fc.array(fc.record({ day: days, quantity: fc.integer({ min: 1, max: 6 }), yardId: yard }), {
        maxLength: 3,
      }),
      (visits, lots, orders) => {
        const demands = visits.map((visit) => ({ ...visit, partId: 'hp20' }))
        const dueIn = orders.map((order) => ({ ...order, partId: 'hp20' }))
        const book = openBook(today, [seal({ lots })], demands, dueIn)
        const supplies = suppliesOf(book)
        const sum = (list: number[]) => list.reduce((total, each) => total + each, 0)
        const there =
          sum(lots.map(({ onHand }) => Math.max(0, onHand))) + sum(orders.map(({ quantity }) => quantity))
        expect(sum(supplies.map(({ available }) => available))).toBeLessThanOrEqual(there)
        for (const each of supplies) {
          expect(each.available + each.missing).toBe(each.quantity)
          expect(sum(each.fromOthers.map(({ quantity }) => quantity)) + each.dueIn).toBeLessThanOrEqual(
            each.available * 2,
          )
          // The earliest day is never before today, and not after what ordering today would bring.
          if (each.arrives !== null) {
            expect(each.arrives >= today).toBe(true)
            expect(each.arrives <= '2026-11-04').toBe(true)
          }
        }
        // What is asked for on the day that was named is there on it.
        for (const { partId, quantity, day, yardId, visitId } of demands) {
          const { earliestDay } = availability(book, {
            part: partId,
            quantity,
            day,
            yardId,
            forVisit: visitId,
          })
          if (earliestDay <= day || earliestDay >= '2026-11-04') continue
          const then = availability(book, {
            part: partId,
            quantity,
            day: earliestDay,
            yardId,
            forVisit: visitId,
          })
          expect(then.missing).toBe(0)
        }
      },
    ),
    { numRuns: 400 },
  )
})
