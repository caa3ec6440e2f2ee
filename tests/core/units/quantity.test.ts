import fc from 'fast-check'
import {
  dimensions,
  inUnit,
  parseNumber,
  quantity,
  showNumber,
  showQuantity,
  type Dimension,
} from '@/core/units'

test.each([
  // 1 lbf·ft = 1.3558179483 N·m and 1 lbf·in = 0.11298482903 N·m, from 1 lbf = 4.4482216152605 N and 1 in = 0.0254 m.
  ['torque', 1, 'ft-lb', 1.3558179483],
  ['torque', 1, 'in-lb', 0.11298482903],
  ['torque', 1, 'kgf·m', 9.80665],
  ['pressure', 1, 'psi', 6894.757293168],
  ['pressure', 200, 'bar', 2e7],
  ['volume', 1, 'US gal', 3.785411784e-3],
  ['flow', 60, 'L/min', 1e-3],
  // 1 kgf = 9.80665 N on 1 cm, and on 1 cm²; 1 lb = 0.45359237 kg; a US gallon has 4 qt, 8 pt, 128 fl oz.
  ['torque', 1, 'kgf·cm', 0.0980665],
  ['pressure', 1, 'kgf/cm²', 98_066.5],
  ['pressure', 1, 'Pa', 1],
  ['flow', 3.6, 'm³/h', 1e-3],
  ['flow', 3600, 'L/h', 1e-3],
  ['volume', 1, 'US qt', 0.946352946e-3],
  ['volume', 1, 'US pt', 0.473176473e-3],
  ['volume', 1, 'US fl oz', 29.5735295625e-6],
  ['mass', 1, 'lb', 0.45359237],
  ['mass', 1, 'oz', 0.028349523125],
  ['mass', 250, 'g', 0.25],
  // Water freezes at 273.15 K and 32 °F and boils at 373.15 K and 212 °F; -40 is the same on both scales.
  ['temperature', 0, '°C', 273.15],
  ['temperature', 32, '°F', 273.15],
  ['temperature', 212, '°F', 373.15],
  ['temperature', -40, '°F', 233.15],
  ['temperature', 300, 'K', 300],
] as const)('%s: %d %s is %d in SI', (dimension, value, unit, si) => {
  expect(quantity(dimension, value, unit).si / si).toBeCloseTo(1, 9)
})

test('15 N·m pulled as 15 ft-lb is 36 % too tight; 110 in-lb pulled as 110 ft-lb is twelve-fold', () => {
  expect(quantity('torque', 15, 'ft-lb').si / 15 - 1).toBeCloseTo(0.36, 2)
  expect(quantity('torque', 110, 'ft-lb').si / quantity('torque', 110, 'in-lb').si).toBeCloseTo(12, 9)
})

test('converting there and back is identity, in every dimension and unit', () => {
  const units = Object.entries(dimensions).flatMap(([dimension, known]) =>
    Object.keys(known).map((unit) => [dimension, unit] as const),
  )
  fc.assert(
    fc.property(
      fc.constantFrom(...units),
      fc.double({ min: 1e-6, max: 1e6, noNaN: true }),
      ([dimension, unit], value) => {
        const back = inUnit(dimension as Dimension, quantity(dimension as Dimension, value, unit).si, unit)
        // A temperature's zero is far from its scale's: what counts is how far off it is, not its share.
        if (dimension === 'temperature') expect(Math.abs(back - value)).toBeLessThan(1e-9)
        else expect(back / value).toBeCloseTo(1, 10)
      },
    ),
  )
})

test('a quantity is shown as typed in its own unit, and to three figures in another', () => {
  expect(showQuantity('pressure', quantity('pressure', 3000, 'psi'), 'psi')).toBe('3\u00a0000\u00a0psi')
  expect(showQuantity('pressure', quantity('pressure', 3000, 'psi'), 'bar')).toBe('207\u00a0bar')
  expect(showQuantity('temperature', quantity('temperature', 140, '°F'), '°C')).toBe('60\u00a0°C')
  expect(showQuantity('temperature', quantity('temperature', -18, '°C'), '°F')).toBe('\u22120.4\u00a0°F')
  expect(() => quantity('pressure', 1, 'L')).toThrow('L is not a unit of pressure.')
})

test.each([
  [1148, undefined, '1\u00a0148'],
  [5246.8, 1, '5\u00a0246.8'],
  [-1234567.25, undefined, '\u22121\u00a0234\u00a0567.25'],
  [999, 1, '999.0'],
  [0, undefined, '0'],
])('%d is shown as %s', (value, decimals, shown) => {
  expect(showNumber(value, decimals)).toBe(shown)
})

test.each([
  ['5246.8', 1, 5246.8],
  ['5 246,8 h', 1, 5246.8],
  ["5'246.8 hrs", 1, 5246.8],
  ['1,234.5', 1, 1234.5],
  ['1.234,5', 1, 1234.5],
  ['1,234', 1, 1234],
  ['1.234', 0, 1234],
  ['1,234', undefined, 1.234],
  ['0,234', 1, 0.234],
  ['12,5', 1, 12.5],
  ['1.234.567', 0, 1234567],
  ['\u2212 3', 0, -3],
  ['5\u202f246', 1, 5246],
])('“%s” with %p decimals is read as %d', (text, decimals, value) => {
  expect(parseNumber(text, decimals)).toEqual({ ok: true, value })
})

test.each([
  [''],
  ['abc'],
  ['12a'],
  ['1,2,3'],
  ['1,23,456'],
  ['1.234,5.6'],
  ['--4'],
  ['h'],
  ['.'],
  ['NaN'],
  ['Infinity'],
  ['1e5'],
])('“%s” is not read as a number', (text) => {
  expect(parseNumber(text, 1).ok).toBe(false)
})

test.each([
  ['blanks with something behind', `1${' '.repeat(80_000)}x`],
  ['digits', '1'.repeat(80_000)],
  ['groups', '1,'.repeat(40_000)],
])('eighty thousand characters of %s are not looked at', (_what, text) => {
  expect(parseNumber(text, 1)).toMatchObject({
    ok: false,
    reason: expect.stringContaining('longer than any number'),
  })
})

test('no text whatever makes reading a number throw', () => {
  fc.assert(fc.property(fc.string(), (text) => void parseNumber(text, 1)))
})
