import fc from 'fast-check'
import { orderCsv, readConfirmation, readPriceList } from '@/core/stores'
import { readCsv } from '@/core/interchange'

const known = new Map([
  ['S-1', { unitCents: 1000 }],
  ['S-2', { unitCents: 250 }],
])
const reasonOf = (read: { ok: boolean; reason?: string }) => (read.ok ? '' : read.reason)

test('a price list is read with decimal commas and semicolons; foreign numbers are named, likely slips too', () => {
  const read = readPriceList('Number;Price;Pack\nS-1;12,50;10\nS-2;25,00;\nX-9;1,00;\n', known)
  expect(read).toEqual({
    ok: true,
    value: {
      changes: [
        { supplierNumber: 'S-1', unitCents: 1250, packSize: 10, leadDays: null },
        { supplierNumber: 'S-2', unitCents: 2500, packSize: null, leadDays: null },
      ],
      foreign: ['X-9'],
      // From 2.50 to 25.00: ten times.
      doubtful: [{ supplierNumber: 'S-2', beforeCents: 250, unitCents: 2500 }],
    },
  })
})

test('nothing is taken of a list with a mistake, and its line is named', () => {
  expect(reasonOf(readPriceList('number,price\nS-1,10.00\nS-1,11.00\n', known))).toContain(
    'line 2 and on line 3',
  )
  expect(reasonOf(readPriceList('number,price\nS-1,-3\n', known))).toContain('Line 2')
  expect(reasonOf(readPriceList('number,price\nS-1,0\n', known))).toContain('nothing')
  expect(reasonOf(readPriceList('number,price\nS-1,ten\n', known))).toContain('not a number')
  expect(reasonOf(readPriceList('number,cost\nS-1,10\n', known))).toContain('“price”')
  expect(reasonOf(readPriceList('', known))).toContain('empty')
  // The same line twice is no contradiction.
  expect(readPriceList('number,price\nS-1,10.00\nS-1,10.00\n', known).ok).toBe(true)
})

test('a file that was cut off in the middle is refused, wherever it was cut', () => {
  expect(reasonOf(readCsv('number,price\nS-1,10.00\nS-2', ['number']))).toContain('cut off')
  expect(reasonOf(readCsv('number,price\n"S-1,10.00\nS-2,3', ['number']))).toContain('cut off')
  expect(reasonOf(readConfirmation('order,line,quantity\n0007,1,5\nEND,2,\n', '0007', [1, 2]))).toContain(
    'it was cut',
  )
})

test('a confirmation answers this order, each line once, and lines that the order has', () => {
  const read = (text: string) => readConfirmation(text, '0007', [1, 2])
  expect(
    read(
      'order,line,quantity,promised,substitute,note\r\n0007,1,5,2026-10-20,,\r\n0007,2,0,,S-9,sold out\r\n',
    ),
  ).toEqual({
    ok: true,
    value: [
      { line: 1, quantity: 5, promisedOn: '2026-10-20', substitute: '', note: '' },
      { line: 2, quantity: 0, promisedOn: null, substitute: 'S-9', note: 'sold out' },
    ],
  })
  expect(reasonOf(read('order,line,quantity\n0008,1,5\n'))).toContain('this is order 0007')
  expect(reasonOf(read('order,line,quantity\n0007,3,5\n'))).toContain('which the order has not')
  expect(reasonOf(read('order,line,quantity\n0007,1,5\n0007,1,6\n'))).toContain('twice')
  expect(reasonOf(read('order,line,quantity\n0007,1,-5\n'))).toContain('not less than 0')
  expect(reasonOf(read('order,line,quantity,promised\n0007,1,5,31.10.\n'))).toContain('no day')
})

test('law: an order’s own file reads back whole, and no shortened one is taken for whole', () => {
  const text = fc.string({ maxLength: 20 }).filter((each) => !/[\r\n\0]/.test(each))
  const lines = fc.array(fc.record({ name: text, quantity: fc.integer({ min: 1, max: 999 }) }), {
    minLength: 1,
    maxLength: 8,
  })
  fc.assert(
    fc.property(lines, fc.nat(), (list, at) => {
      const file = orderCsv(
        '0007',
        'EUR',
        list.map(({ name, quantity }, index) => ({
          line: index + 1,
          supplierNumber: `S-${index}`,
          ourNumber: 'A',
          makersNumber: '',
          name,
          quantity,
          unit: 'piece',
          unitCents: 100,
          neededBy: null,
        })),
      )
      const whole = readConfirmation(
        file,
        '0007',
        list.map((_, index) => index + 1),
      )
      expect(whole.ok && whole.value.map(({ quantity }) => quantity)).toEqual(
        list.map(({ quantity }) => quantity),
      )
      // Cut anywhere inside its last row or before: refused, or it has fewer lines and no `END`.
      const cut = file.slice(0, at % Math.max(1, file.length - 2))
      const read = readConfirmation(
        cut,
        '0007',
        list.map((_, index) => index + 1),
      )
      if (read.ok) expect(cut).not.toContain('END')
    }),
  )
})
