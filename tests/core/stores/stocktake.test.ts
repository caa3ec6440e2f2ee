import { judgeCount, storeValue } from '@/core/stores'

const bin = { unit: 'piece', onHand: 18, packSize: 3, unitCents: 100 }

test('a count is judged as it is typed: right, different, impossible, or likely a slip', () => {
  expect(judgeCount(null, bin)).toEqual({ state: 'blank' })
  expect(judgeCount(18, bin)).toEqual({ state: 'fits' })
  expect(judgeCount(17, bin)).toEqual({ state: 'differs', difference: -1, cents: -100 })
  expect(judgeCount(-1, bin).state).toBe('fault')
  expect(judgeCount(1.5, bin).state).toBe('fault')
  expect(judgeCount(2_000_000, bin).state).toBe('fault')
  // Six packs of three are eighteen.
  expect(judgeCount(6, bin)).toMatchObject({ state: 'doubted', instead: 18, difference: -12 })
  expect(judgeCount(180, bin)).toMatchObject({ state: 'doubted', instead: 18 })
  // 18, and the 8 once more.
  expect(judgeCount(188, bin)).toMatchObject({ state: 'doubted', instead: 18 })
  expect(judgeCount(0, bin)).toMatchObject({ state: 'doubted', instead: null })
  // 3 of 40.00 each are missing: 120.00.
  expect(judgeCount(15, { ...bin, packSize: 1, unitCents: 4000 })).toMatchObject({
    state: 'doubted',
    cents: -12_000,
  })
  expect(judgeCount(0.4, { ...bin, unit: 'L', packSize: 1, onHand: 0.5 })).toEqual({
    state: 'differs',
    difference: -0.1,
    cents: -10,
  })
})

test('the stores are worth what was paid for what lies there on a day; what was used beyond the book is worth nothing', () => {
  const moved = (lotId: string, quantity: number, day: string, kind = 'receipt', placeId = 'harbour') => ({
    partId: 'p',
    lotId,
    placeId,
    quantity,
    kind,
    day,
    unitCents: lotId === 'a' ? 1000 : 50,
    reason: '',
  })
  const movements = [
    moved('a', 5, '2026-01-01'),
    moved('a', -2, '2026-02-01', 'use'),
    moved('b', 10, '2026-03-01', 'receipt', 'upland'),
    moved('b', -12, '2026-04-01', 'use', 'upland'),
    moved('a', -1, '2026-05-01', 'scrap'),
  ]
  const value = (day: string) => storeValue(movements, new Map([['a', '2026-04-30']]), day, '2026-01-01')
  expect(value('2026-01-31')).toMatchObject({ cents: 5000, expiredCents: 0, scrappedCents: 0 })
  expect(value('2026-03-15')).toMatchObject({ cents: 3500 })
  // By May the two left of `a` have expired, one was thrown away, and `b` is short.
  expect(value('2026-05-01')).toMatchObject({ cents: 2000, expiredCents: 2000, scrappedCents: 1000 })
})
