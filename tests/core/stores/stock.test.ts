import { partSchema, stockOf, takeFrom, type Lot } from '@/core/stores'
import { check } from '@/core/problem'
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
