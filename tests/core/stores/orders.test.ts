import fc from 'fast-check'
import {
  chaseFor,
  chooseOffer,
  comesOn,
  deliveryDifferences,
  dueInOf,
  leadTime,
  openQuantity,
  proposeOrders,
  sellable,
  type Offer,
  type OrderLine,
  type PlacedOrder,
} from '@/core/stores'

const today = '2026-10-14'
const line = (more: Partial<OrderLine> = {}): OrderLine => ({
  id: 'l1',
  partId: 'hp20',
  quantity: 12,
  confirmed: null,
  promisedOn: null,
  calledOff: 0,
  received: 0,
  ...more,
})
const order = (more: Partial<PlacedOrder> = {}): PlacedOrder => ({
  id: 'o1',
  state: 'sent',
  sentOn: '2026-10-12',
  leadDays: 14,
  yardId: 'harbour',
  lines: [line()],
  ...more,
})

describe('how long something takes', () => {
  const took = (...days: number[]) =>
    days.map((each) => ({
      orderedOn: '2026-01-01',
      completeOn: `2026-01-${String(1 + each).padStart(2, '0')}`,
    }))
  test('is the supplier’s word until five of one’s own deliveries say better', () => {
    expect(leadTime(14, took(4, 6, 3, 9))).toEqual({ days: 14, from: 'supplier', deliveries: 4 })
    // The slowest of five: nine of ten are not more than five of five.
    expect(leadTime(14, took(4, 6, 3, 9, 5))).toEqual({ days: 9, from: 'deliveries', deliveries: 5 })
  })
  test('is so many days that nine of ten came within them', () => {
    expect(leadTime(14, took(1, 2, 3, 4, 5, 6, 7, 8, 9, 30)).days).toBe(9)
  })
})

describe('what is to come', () => {
  test('is what was confirmed, or ordered while nothing was, less what came and was called off', () => {
    expect(openQuantity(line())).toBe(12)
    expect(openQuantity(line({ confirmed: 10, received: 4 }))).toBe(6)
    expect(openQuantity(line({ received: 4, calledOff: 8 }))).toBe(0)
    // More came than was ordered: nothing is to come, and never less than nothing.
    expect(openQuantity(line({ received: 15 }))).toBe(0)
  })
  test('comes on its promised day, by the lead time where none is promised, and a week later where it is late', () => {
    expect(comesOn(line({ promisedOn: '2026-10-20' }), order(), today)).toBe('2026-10-20')
    expect(comesOn(line(), order(), today)).toBe('2026-10-26')
    expect(comesOn(line({ promisedOn: '2026-10-10' }), order(), today)).toBe('2026-10-21')
  })
  test('drafts and what is closed bring nothing', () => {
    expect(dueInOf([order({ state: 'draft', sentOn: null }), order({ state: 'closed' })], today)).toEqual([])
    expect(dueInOf([order()], today)).toEqual([
      { partId: 'hp20', day: '2026-10-26', quantity: 12, yardId: 'harbour' },
    ])
  })
})

test('one calls about what is late first, then what nobody confirms, then what is confirmed short', () => {
  expect(chaseFor(order(), today)).toBeNull()
  expect(chaseFor(order(), '2026-10-15')).toEqual({ why: 'unconfirmed', since: '2026-10-12' })
  expect(chaseFor(order({ lines: [line({ promisedOn: '2026-10-13' })] }), today)).toEqual({
    why: 'late',
    promised: '2026-10-13',
  })
  const short = order({ state: 'confirmed', lines: [line({ confirmed: 9, promisedOn: '2026-10-20' })] })
  expect(chaseFor(short, today)).toEqual({ why: 'short', quantity: 3 })
  // The rest is called off: then nothing is wrong.
  const off = order({
    state: 'confirmed',
    lines: [line({ confirmed: 9, calledOff: 3, promisedOn: '2026-10-20' })],
  })
  expect(chaseFor(off, today)).toBeNull()
})

describe('from whom to order', () => {
  const offer = (
    supplierId: string,
    unitCents: number,
    leadDays: number,
    more: Partial<Offer> = {},
  ): Offer => ({
    supplierId,
    partId: 'hp20',
    unitCents,
    packSize: 1,
    minimumOrder: 0,
    leadDays,
    ...more,
  })
  test('from who is in time and asks least for the whole of it, packs counted', () => {
    // 4 wanted: loose 4 x 3.00 = 12.00, in packs of ten 10 x 1.50 = 15.00.
    const loose = offer('loose', 300, 10)
    const packed = offer('packed', 150, 10, { packSize: 10 })
    expect(chooseOffer([packed, loose], 4, '2026-11-01', today)?.supplierId).toBe('loose')
    // 9 wanted: 27.00 against 15.00.
    expect(chooseOffer([packed, loose], 9, '2026-11-01', today)?.supplierId).toBe('packed')
  })
  test('where nobody is in time, from who is soonest; where nobody sells it, from nobody', () => {
    const slow = offer('slow', 100, 30)
    const quick = offer('quick', 400, 5)
    expect(chooseOffer([slow, quick], 1, '2026-10-16', today)?.supplierId).toBe('quick')
    expect(chooseOffer([slow, quick], 1, '2026-12-01', today)?.supplierId).toBe('slow')
    expect(chooseOffer([], 1, '2026-12-01', today)).toBeNull()
  })
  test('law: what is ordered is in whole packs, enough, and no pack too many', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 1, max: 200 }),
        (packSize, minimumOrder, wanted) => {
          const quantity = sellable({ packSize, minimumOrder }, wanted)
          const least = Math.max(wanted, minimumOrder)
          expect(quantity % packSize).toBe(0)
          expect(quantity).toBeGreaterThanOrEqual(least)
          expect(quantity - packSize).toBeLessThan(least)
        },
      ),
    )
  })
})

test('what is due within a week is proposed, with what goes along; below the least it says by how much', () => {
  const proposal = (partId: string, orderBy: string, supplierId = 's1') => ({
    partId,
    supplierId,
    quantity: 2,
    unitCents: 1000,
    orderBy,
    late: false,
  })
  const proposed = proposeOrders(
    [
      proposal('a', '2026-10-20'),
      proposal('b', '2026-11-10'),
      proposal('c', '2026-11-30'),
      // Nothing of this one is urgent: it waits.
      proposal('d', '2026-11-01', 's2'),
    ],
    new Map([['s1', 5000]]),
    today,
  )
  expect(proposed).toEqual([
    {
      supplierId: 's1',
      lines: [
        expect.objectContaining({ partId: 'a', along: false }),
        expect.objectContaining({ partId: 'b', along: true }),
      ],
      cents: 4000,
      belowLeast: 1000,
    },
  ])
})

test('a delivery is told by what differs from its note and from what was to come', () => {
  expect(deliveryDifferences({ open: 12, noted: 12, came: 12, damaged: 0 })).toEqual([])
  expect(deliveryDifferences({ open: 12, noted: 12, came: 10, damaged: 1 })).toEqual([
    '2 fewer than the note says',
    '1 damaged, set aside',
  ])
  expect(deliveryDifferences({ open: 12, noted: 12, came: 14, damaged: 0 })).toEqual([
    '2 more than the note says',
    '2 more than was to come',
  ])
})
