import fc from 'fast-check'
import { dealOut, partSchema, stockOf, takeFrom, type Lot } from '@/core/parts'
import { check } from '@/core/problem/check'
import { readMoney, showMoney } from '@/core/units'

const lot = (id: string, more: Partial<Lot> = {}): Lot => ({
  id,
  number: Number(id.replace(/\D/g, '')),
  partId: 'valve',
  receivedOn: '2026-01-10',
  expiresOn: null,
  ...more,
})
const moved = (lotId: string | null, quantity: number) => ({ partId: 'valve', lotId, quantity })
const today = '2026-10-14'

test('two kits of three, one valve used: five on hand, one kit part-used', () => {
  const stock = stockOf([lot('lot1')], [moved('lot1', 6), moved('lot1', -1)], today, 3)
  expect(stock).toMatchObject({ onHand: 5, short: 0 })
  expect(stock.lots[0]).toMatchObject({ onHand: 5, openPack: 2 })
})

test('more used than a lot held: short by what is beyond, and the other lot is left alone', () => {
  const stock = stockOf(
    [lot('lot1'), lot('lot2')],
    [moved('lot1', 2), moved('lot2', 4), moved('lot1', -5)],
    today,
  )
  expect(stock).toMatchObject({ onHand: 4, short: 3 })
  // Used without a lot: short until somebody counts.
  expect(stockOf([lot('lot1')], [moved('lot1', 2), moved(null, -1)], today)).toMatchObject({
    onHand: 2,
    short: 1,
  })
})

test('what has expired is counted apart, and the opened pack is used first', () => {
  const lots = [
    lot('lot1', { expiresOn: '2026-10-13' }),
    lot('lot2', { expiresOn: '2027-05-01' }),
    lot('lot3', { expiresOn: '2028-01-01' }),
  ]
  const stock = stockOf(lots, [moved('lot1', 2), moved('lot2', 6), moved('lot3', 5)], today, 3)
  expect(stock).toMatchObject({ onHand: 11, expired: 2 })
  expect(stock.lots.map((each) => each.id)).toEqual(['lot3', 'lot2', 'lot1'])
})

test('a quantity is taken from the lot to use first, then from the next; what no lot holds from the last', () => {
  const lots = [
    { id: 'old', onHand: 5, expired: true },
    { id: 'a', onHand: 2, expired: false },
    { id: 'b', onHand: 24, expired: false },
  ]
  expect(takeFrom(lots, 3)).toEqual([
    { lotId: 'a', quantity: 2 },
    { lotId: 'b', quantity: 1 },
  ])
  expect(takeFrom(lots, 30)).toEqual([
    { lotId: 'a', quantity: 2 },
    { lotId: 'b', quantity: 28 },
  ])
  expect(takeFrom([], 2)).toEqual([{ lotId: null, quantity: 2 }])
})

test('litres add up without dust', () => {
  const uses = Array.from({ length: 10 }, () => moved('lot1', -0.1))
  expect(stockOf([lot('lot1')], [moved('lot1', 1), ...uses], today).onHand).toBe(0)
})

test('visits take from the shelf in the order of their days; what would come too late is said', () => {
  const demand = (visitId: string, day: string, quantity: number) => ({
    visitId,
    day,
    partId: 'valve',
    quantity,
  })
  const supply = dealOut(
    [demand('c', '2026-11-20', 2), demand('a', '2026-10-16', 4), demand('b', '2026-10-20', 3)],
    () => 5,
    () => '2026-11-04',
  )
  expect(
    supply.map(({ visitId, available, missing, inTime }) => [visitId, available, missing, inTime]),
  ).toEqual([
    ['a', 4, 0, true],
    ['b', 1, 2, false],
    ['c', 0, 2, true],
  ])
})

test('law: nothing dealt out exceeds the shelf, and available plus missing is the need', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          visitId: fc.string(),
          day: fc.constantFrom('2026-10-16', '2026-10-20'),
          partId: fc.constantFrom('a', 'b'),
          quantity: fc.integer({ min: 1, max: 9 }),
        }),
      ),
      fc.integer({ min: 0, max: 20 }),
      (demands, onHand) => {
        const supply = dealOut(
          demands,
          () => onHand,
          () => today,
        )
        for (const partId of ['a', 'b']) {
          const taken = supply
            .filter((each) => each.partId === partId)
            .reduce((sum, each) => sum + each.available, 0)
          expect(taken).toBeLessThanOrEqual(onHand)
        }
        for (const each of supply) expect(each.available + each.missing).toBe(each.quantity)
      },
    ),
  )
})

test.each([
  ['12.40', 1240],
  ['1 204,50', 120450],
  ['0.1', 10],
  ['3', 300],
])('%s is %d cents', (text, cents) => {
  expect(readMoney(text)).toEqual({ ok: true, cents })
})

test.each(['12.4055', '-1', 'ten'])('%s is no price', (text) => {
  expect(readMoney(text).ok).toBe(false)
})

test('money shows with its currency', () => {
  expect(showMoney(120450, 'EUR')).toBe('1\u00a0204.50\u00a0EUR')
})

test('a part as a form sends it', () => {
  const form = {
    id: 'part-0001',
    number: 'HP-20',
    name: 'High-pressure seal 20',
    makersNumber: '',
    unit: 'piece',
    packSize: '',
    price: '12,40',
    leadDays: '',
    minimum: '6',
    bin: 'H-09',
    fits: [],
    note: '',
  }
  expect(check(partSchema, form)).toMatchObject({ price: 1240, minimum: 6, packSize: 1, leadDays: 0 })
  const bad = () => check(partSchema, { ...form, number: '', price: 'much', minimum: '-1' })
  expect(bad).toThrow(/Give it your own number.*not a number.*Enter 0 or more/s)
})
