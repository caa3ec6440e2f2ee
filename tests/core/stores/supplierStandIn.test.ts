import { orderCsv, readConfirmation, readPriceList } from '@/core/stores'
import { answerOrder } from '@/demo/supplier'

const order = orderCsv(
  '0009',
  'EUR',
  [
    ['S-1', 7, 800],
    ['S-2', 10, 50],
  ].map(([supplierNumber, quantity, unitCents], at) => ({
    line: at + 1,
    supplierNumber: String(supplierNumber),
    ourNumber: 'X',
    makersNumber: '',
    name: 'Seal, "20"',
    quantity: Number(quantity),
    unit: 'piece',
    unitCents: Number(unitCents),
    neededBy: null,
  })),
)
const confirmed = (scenario: Parameters<typeof answerOrder>[1]) =>
  readConfirmation(answerOrder(order, scenario, '2026-10-14').confirmation, '0009', [1, 2])

test('the stand-in confirms, delays, ships short and substitutes in a file that is taken in', () => {
  expect(confirmed('confirms')).toMatchObject({
    ok: true,
    value: [
      { quantity: 7, promisedOn: '2026-10-22' },
      { quantity: 10, promisedOn: '2026-10-22' },
    ],
  })
  expect(confirmed('delays')).toMatchObject({ value: [{ promisedOn: '2026-11-04' }, {}] })
  expect(confirmed('short')).toMatchObject({ value: [{ quantity: 3 }, { quantity: 10 }] })
  expect(confirmed('substitutes')).toMatchObject({ value: [{ quantity: 0, substitute: 'S-1-B' }, {}] })
})

test('a confirmation that was cut off is not taken in; a price list with a slip asks about it', () => {
  expect(confirmed('cut').ok).toBe(false)
  const known = new Map([
    ['S-1', { unitCents: 800 }],
    ['S-2', { unitCents: 50 }],
  ])
  expect(readPriceList(answerOrder(order, 'confirms', '2026-10-14').priceList, known)).toMatchObject({
    value: { doubtful: [{ supplierNumber: 'S-1', unitCents: 8320 }], changes: [{}, { unitCents: 52 }] },
  })
  expect(() => answerOrder('hello', 'confirms', '2026-10-14')).toThrow(RangeError)
})
