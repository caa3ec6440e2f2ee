import Papa from 'papaparse'
import fc from 'fast-check'
import { toCsv } from '@/core/interchange'

test('commas, quotes and line breaks are quoted; records end in CRLF', () => {
  expect(
    toCsv(
      ['item', 'detail'],
      [
        ['seal, high', 'said “"ok"”'],
        ['two\nlines', null],
      ],
    ),
  ).toBe('item,detail\r\n"seal, high","said “""ok""”"\r\n"two\nlines",\r\n')
})

test.each(['=1+1', '+44 20', '-drop', '@sum', '\tx', '\rx'])('%j is not left to run as a formula', (cell) => {
  const parsed = Papa.parse<string[]>(toCsv(['a'], [[cell]]).trimEnd()).data
  expect(parsed[1]![0]).toBe(`'${cell}`)
})

test('numbers stay numbers, below nothing too', () => {
  expect(toCsv(['a', 'b'], [[-2, 1.5]])).toBe('a,b\r\n-2,1.5\r\n')
})

test('law: what is written comes back, cell by cell', () => {
  const cell = fc.string().filter((text) => !/^[=+\-@\t\r]/.test(text))
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1 }), (rows) => {
      const parsed = Papa.parse<string[]>(toCsv(['a', 'b'], rows), { delimiter: ',', newline: '\r\n' }).data
      expect(parsed.slice(1, -1)).toEqual(rows)
    }),
  )
})
