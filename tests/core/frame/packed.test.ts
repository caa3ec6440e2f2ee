import {
  constantFrom,
  dictionary,
  double,
  letrec,
  array,
  oneof,
  property,
  assert,
  string,
  boolean,
} from 'fast-check'
import { pack, unpack } from '@/ui/frame/packed'

const { value } = letrec((tie) => ({
  value: oneof(
    { depthSize: 'small' },
    string(),
    double(),
    boolean(),
    constantFrom(null, '__proto__', '-0', 'NaN'),
    array(tie('value')),
    dictionary(oneof(string(), constantFrom('a', 'b', 'text', 'length')), tie('value')),
  ),
}))

test('law: what is unpacked is what was packed', () => {
  assert(property(value, (data) => expect(unpack(pack({ data }))).toEqual({ data })))
})

test('the law tells minus zero and what is no number apart', () => {
  const odd = unpack(pack({ odd: [-0, NaN, Infinity, -Infinity] })).odd
  expect(odd.map((each) => (Object.is(each, -0) ? '-0' : String(each)))).toEqual([
    '-0',
    'NaN',
    'Infinity',
    '-Infinity',
  ])
})

test('what is undefined is left out, in a list it is null', () => {
  const data: { a?: number; b: (number | null | undefined)[] } = { a: undefined, b: [undefined, 1] }
  expect(unpack(pack(data))).toEqual({ b: [null, 1] })
})

test('the same package gives the same objects', () => {
  const packed = pack([{ id: 'a' }])
  expect(unpack(packed)).toBe(unpack(packed))
})

test('the same text is read once, and the texts of long ago are forgotten', () => {
  // As the server's part that draws is given it: another package each time, with the same text.
  const again = <T extends object>(data: T) => unpack({ ...pack(data) })
  const machines = { of: 'machines', text: 'x'.repeat(400_000) }
  const pumps = { of: 'pumps', text: 'x'.repeat(400_000) }
  const first = again(machines)
  expect(again(machines)).toBe(first)
  again(pumps)
  expect(again(machines)).toBe(first)
  again({ of: 'parts', text: 'x'.repeat(400_000) })
  // Of the two that were there the pumps were asked for longer ago.
  expect(again(machines)).toBe(first)
  const tooLong = { text: 'x'.repeat(1_000_001) }
  expect(again(tooLong)).not.toBe(again(tooLong))
  expect(again(tooLong)).toEqual(tooLong)
  expect(again(machines)).toBe(first)
})

test('keys are told once for all rows of one shape', () => {
  const { text } = pack([{ number: 'M-1' }, { number: 'M-2' }, { number: 'M-3' }])
  expect(text.match(/number/g)).toHaveLength(1)
})

test('a date or a map cannot be packed', () => {
  expect(() => pack({ at: new Date(0) })).toThrow('cannot be packed')
  expect(() => pack(new Map())).toThrow('cannot be packed')
})
