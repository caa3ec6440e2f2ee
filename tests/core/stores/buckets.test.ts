import fc from 'fast-check'
import {
  actsFrom,
  bucketsOf,
  stockActs,
  takeForBench,
  withinReach,
  without,
  type Bucket,
} from '@/core/stores'

const bucket = (quantity: number, more: Partial<Bucket> = {}): Bucket => ({
  lotId: 'a',
  placeId: 'harbour',
  state: 'shelf',
  visitId: null,
  quantity,
  ...more,
})

test('what was picked for a visit is taken first, then the shelf of its yard, then others', () => {
  const lying = [
    bucket(5, { placeId: 'upland' }),
    bucket(2),
    bucket(2, { state: 'picked', visitId: 'v1' }),
    bucket(9, { state: 'picked', visitId: 'v2' }),
    bucket(4, { state: 'quarantine' }),
  ]
  const use = { lotId: 'a', visitId: 'v1', placeId: 'harbour' }
  expect(takeForBench(lying, { ...use, quantity: 6 })).toEqual([
    bucket(2, { state: 'picked', visitId: 'v1' }),
    bucket(2),
    bucket(2, { placeId: 'upland' }),
  ])
  // 2 picked and 7 on shelves are within reach; what another visit has picked and quarantine are not.
  expect(withinReach(lying, use)).toBe(9)
})

test('what is more than lies there comes off the shelf all the same: that bin wants counting', () => {
  const left = without(
    [bucket(1)],
    takeForBench([bucket(1)], { lotId: 'a', visitId: null, placeId: 'harbour', quantity: 3 }),
  )
  expect(left).toEqual([bucket(-2)])
})

test('what can be done follows from the state; what is in quarantine is never used or picked', () => {
  expect(actsFrom('shelf')).toEqual(['pick', 'setAside', 'transfer', 'scrap'])
  expect(actsFrom('quarantine')).toEqual(['shelve', 'sendBack', 'scrap'])
  expect(stockActs.sendBack.to).toBeNull()
})

test('law: movements sum to the stock whatever their order, and what is taken is gone once', () => {
  const moved = fc.record({
    lotId: fc.constantFrom('a', 'b'),
    placeId: fc.constantFrom('harbour', 'upland', 'van'),
    state: fc.constantFrom('shelf', 'picked', 'quarantine') as fc.Arbitrary<Bucket['state']>,
    visitId: fc.constantFrom(null, 'v1', 'v2'),
    quantity: fc.integer({ min: -20, max: 20 }),
  })
  const sum = (list: { quantity: number }[]) => list.reduce((total, { quantity }) => total + quantity, 0)
  fc.assert(
    fc.property(
      fc.array(moved, { maxLength: 30 }),
      fc.integer({ min: 1, max: 40 }),
      (movements, quantity) => {
        const buckets = bucketsOf(movements)
        expect(sum(buckets)).toBe(sum(movements))
        const key = (each: Bucket) => JSON.stringify(each)
        expect(
          bucketsOf([...movements].reverse())
            .map(key)
            .sort(),
        ).toEqual(buckets.map(key).sort())
        const shares = takeForBench(buckets, { lotId: 'a', visitId: 'v1', placeId: 'harbour', quantity })
        expect(sum(shares)).toBe(quantity)
        expect(
          shares.every(
            (share) => share.quantity > 0 && share.state !== 'quarantine' && share.visitId !== 'v2',
          ),
        ).toBe(true)
        expect(sum(without(buckets, shares))).toBe(sum(movements) - quantity)
      },
    ),
  )
})
