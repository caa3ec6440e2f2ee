import fc from 'fast-check'
import { imbalance, tighteningOrder, type Bolt } from '@/core/torque'

const circle = (count: number): Bolt[] =>
  Array.from({ length: count }, (_, index) => {
    const angle = Math.PI / 2 - (index * 2 * Math.PI) / count
    return { id: String(index + 1), x: 60 * Math.cos(angle), y: 60 * Math.sin(angle), number: index + 1 }
  })
const plate = (columns: number[], rows: number[]): Bolt[] =>
  rows.flatMap((y) => columns.map((x) => ({ id: `${x}/${y}`, x, y })))
const twoByFour = plate([-45, -15, 15, 45], [20, -20])
const positionIn = (order: string[]) => twoByFour.map(({ id }) => order.indexOf(id) + 1)

test('a plate of two by four is crossed ring by ring from the middle', () => {
  // The drawn order: top row 5 1 4 7, bottom row 8 3 2 6.
  expect(positionIn(tighteningOrder(twoByFour, 'crissCross'))).toEqual([5, 1, 4, 7, 8, 3, 2, 6])
})

test('a circle is crossed: the second is opposite the first, the third a quarter round', () => {
  // Numbered clockwise from the top: 1 is up, 5 down, 3 right, 7 left.
  expect(tighteningOrder(circle(8), 'crissCross').slice(0, 4)).toEqual(['1', '5', '7', '3'])
  expect(tighteningOrder(circle(6), 'crissCross').slice(0, 2)).toEqual(['1', '4'])
})

/** The angle from one bolt of an order to the next, in degrees. */
const jumps = (bolts: Bolt[], order: string[]) => {
  const angle = (id: string) => {
    const bolt = bolts.find((each) => each.id === id)!
    return (Math.atan2(bolt.y, bolt.x) * 180) / Math.PI
  }
  return order.slice(1).map((id, at) => {
    const apart = Math.abs(angle(id) - angle(order[at]!)) % 360
    return Math.round(Math.min(apart, 360 - apart))
  })
}

test('where bolts of a circle face each other no step goes to a neighbour, and every pair is balanced', () => {
  // Of ten: from 1 (up) to 6 (down), then 108° on, across, and so on; 36° to a neighbour never.
  for (const count of [6, 8, 10, 12, 14, 16, 18, 20, 24]) {
    const bolts = circle(count)
    const order = tighteningOrder(bolts, 'crissCross')
    expect([count, Math.min(...jumps(bolts, order)) >= 90]).toEqual([count, true])
    expect(imbalance(bolts, order)).toBeCloseTo(0, 6)
    for (let at = 0; at < count; at += 2) expect(jumps(bolts, order)[at]).toBe(180)
  }
})

test('an odd circle keeps its balance as well as any order of it can, step by step', () => {
  // Of five the star 1 3 5 2 4 or its mirror: the next but one each time, 144° away.
  expect(jumps(circle(5), tighteningOrder(circle(5), 'crissCross'))).toEqual([144, 144, 144, 144])
})

test('from the centre outwards no bolt is tightened before those nearer the middle of the plate', () => {
  const long = plate([-80, -40, 0, 40, 80], [20, -20])
  const columns = tighteningOrder(long, 'centreOut').map((id) => Math.abs(Number(id.split('/')[0])))
  expect(columns).toEqual([0, 0, 40, 40, 40, 40, 80, 80, 80, 80])
})

test('as numbered follows the numbers, and the first one comes again where it is asked for', () => {
  const shuffled = [3, 1, 2].map((number) => ({ id: `b${number}`, x: number, y: 0, number }))
  expect(tighteningOrder(shuffled, 'asNumbered', { retapFirst: true })).toEqual(['b1', 'b2', 'b3', 'b1'])
})

test.each([
  ['once round a circle of eight', circle(8), circle(8).map(({ id }) => id), 0.92],
  ['across a circle of eight', circle(8), ['1', '5', '3', '7', '2', '6', '4', '8'], 0],
  ['along a plate, one end first', twoByFour, twoByFour.map(({ id }) => id), 0.73],
])('the load wanders %s', (_what, bolts, order, expected) => {
  // Round the circle the first pair's centroid lies at cos(22.5°) = 0.92 of the radius. Along the plate
  // the first pair's lies at (-30, 20): 36.1 of 49.2 mm.
  expect(imbalance(bolts, order)).toBeCloseTo(expected, 2)
})

const anyLayout = fc.oneof(
  fc.integer({ min: 3, max: 16 }).map(circle),
  fc.tuple(fc.integer({ min: 2, max: 6 }), fc.integer({ min: 2, max: 3 })).map(([columns, rows]) =>
    plate(
      Array.from({ length: columns }, (_, at) => at * 30),
      Array.from({ length: rows }, (_, at) => at * 40),
    ),
  ),
)

test('an order has every bolt once, in every pattern', () => {
  fc.assert(
    fc.property(
      anyLayout,
      fc.constantFrom('crissCross' as const, 'centreOut' as const, 'asNumbered' as const),
      (bolts, pattern) => {
        const order = tighteningOrder(bolts, pattern)
        expect([...order].sort()).toEqual(bolts.map(({ id }) => id).sort())
        expect(tighteningOrder(bolts, pattern, { retapFirst: true })).toEqual([...order, order[0]])
      },
    ),
  )
})

test('criss-cross keeps the load nearer the middle than going round or along', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 4, max: 16 }).map(circle),
      (bolts) =>
        imbalance(bolts, tighteningOrder(bolts, 'crissCross')) <= 0.45 &&
        imbalance(bolts, tighteningOrder(bolts, 'crissCross')) <
          imbalance(
            bolts,
            bolts.map(({ id }) => id),
          ),
    ),
  )
})
