import { detectUnitSlip, wrenchFor, wrenchSetting, type Wrench } from '@/core/torque'

const wrench = (number: string, rangeFrom: number, rangeTo: number, more: Partial<Wrench> = {}): Wrench => ({
  id: number,
  number,
  name: number,
  rangeFrom,
  rangeTo,
  rangeUnit: 'N·m',
  leverMm: 400,
  calibrationDue: '2027-01-01',
  ...more,
})
const today = '2026-10-14'
const small = wrench('W-1', 5, 25)
const middle = wrench('W-2', 10, 60)
const large = wrench('W-3', 40, 200)

test.each([
  ['15 N·m', { value: 15, unit: 'N·m' }, [small, middle, large], 'W-1', 15],
  ['25 N·m is the end of a range', { value: 25, unit: 'N·m' }, [large, middle, small], 'W-1', 25],
  ['80 N·m', { value: 80, unit: 'N·m' }, [small, middle, large], 'W-3', 80],
])('%s: the smallest wrench that covers it', (_what, torque, register, number, setting) => {
  const advice = wrenchFor(torque, register, today)
  expect(advice.wrench?.number).toBe(number)
  expect(advice.setting?.value).toBeCloseTo(setting, 1)
  expect(advice.warnings).toEqual([])
})

test('a wrench in calibration goes before a smaller one that is out; alone, that one comes with a warning', () => {
  const out = { ...small, calibrationDue: '2026-10-13' }
  expect(wrenchFor({ value: 15, unit: 'N·m' }, [out, middle], today).wrench?.number).toBe('W-2')
  const alone = wrenchFor({ value: 15, unit: 'N·m' }, [out], today)
  expect(alone.wrench?.number).toBe('W-1')
  expect(alone.warnings[0]).toContain('out of calibration since 2026-10-13')
  // On its last day it still counts.
  expect(
    wrenchFor({ value: 15, unit: 'N·m' }, [{ ...small, calibrationDue: today }], today).warnings,
  ).toEqual([])
})

test('a scale in the stated unit goes before another; the only one in another unit says so', () => {
  const feet = wrench('W-4', 5, 40, { rangeUnit: 'ft-lb' })
  expect(wrenchFor({ value: 40, unit: 'N·m' }, [feet, large], today).wrench?.number).toBe('W-3')
  expect(wrenchFor({ value: 30, unit: 'ft-lb' }, [middle, feet], today).wrench?.number).toBe('W-4')
  // 30 ft-lb is 40.67 N·m.
  const other = wrenchFor({ value: 30, unit: 'ft-lb' }, [small, middle, large], today)
  expect([other.wrench?.number, other.setting]).toEqual(['W-2', { value: 40.7, unit: 'N·m' }])
  expect(other.warnings.join().replaceAll('\u00a0', ' ')).toBe(
    'W-2 reads in N·m: 30 ft-lb is 40.7 N·m on its scale.',
  )
})

test('a torque that no wrench covers says how far the register reaches', () => {
  const { wrench: none, setting, warnings } = wrenchFor({ value: 300, unit: 'N·m' }, [small, large], today)
  expect([none, setting]).toEqual([null, null])
  expect(warnings.join().replaceAll('\u00a0', ' ')).toBe(
    'No wrench covers 300 N·m: those of the register reach from 5 N·m to 200 N·m.',
  )
  expect(wrenchFor({ value: 3, unit: 'N·m' }, [], today).warnings[0]).toContain('the register has none')
})

test('a crow-foot in line lowers what is set, and may bring another wrench into its range', () => {
  // T·L / (L + E) = 40 · 400 / 500 = 32.
  expect(wrenchSetting(40, 400, 100)).toBe(32)
  expect(wrenchSetting(40, 400, 0)).toBe(40)
  expect(() => wrenchSetting(40, 0, 10)).toThrow('length')
  const advice = wrenchFor({ value: 30, unit: 'N·m' }, [small, middle], today, 100)
  expect(advice.wrench?.number).toBe('W-1')
  expect(advice.setting).toEqual({ value: 24, unit: 'N·m' })
  expect(advice.warnings[0]).toContain('is set to 24')
  expect(wrenchFor({ value: 30, unit: 'N·m' }, [{ ...middle, leverMm: null }], today, 100).wrench).toBeNull()
})

test.each([
  [{ value: 110, unit: 'ft-lb' }, { value: 110, unit: 'in-lb' }, 'in-lb'],
  [{ value: 15, unit: 'N·m' }, { value: 15, unit: 'ft-lb' }, 'ft-lb'],
  [{ value: 15, unit: 'ft-lb' }, { value: 15, unit: 'N·m' }, 'N·m'],
  // 1 kgf·m is 9.81 N·m: 4 pulled as kgf·m would be right as 4 N·m.
  [{ value: 4, unit: 'kgf·m' }, { value: 4, unit: 'N·m' }, 'N·m'],
  [{ value: 15, unit: 'N·m' }, { value: 15.5, unit: 'N·m' }, null],
  [{ value: 15, unit: 'N·m' }, { value: 60, unit: 'N·m' }, null],
])('%j against %j looks like %s', (entered, spec, slip) => {
  expect(detectUnitSlip(entered, spec)).toBe(slip)
})
