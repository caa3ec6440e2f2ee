import { judgeTorque, showTorque } from '@/core/torque'

const plain = (text: string) => text.replaceAll('\u00a0', ' ')
const stated = (value: number, unit: string, stages: number[] = []) => ({
  state: 'stated' as const,
  value,
  unit,
  stages,
  source: '',
  verified: true,
})

test.each([
  // 1 lbf·ft = 1.3558179483 N·m, 1 lbf·in = 0.11298482903 N·m: 20 / 0.11298 = 177.0, 20 / 1.35582 = 14.75.
  [stated(40, 'N·m', [20, 40]), 1, '20 N·m = 177 in-lb = 14.8 ft-lb'],
  [stated(40, 'N·m', [20, 40]), 2, '40 N·m = 354 in-lb = 29.5 ft-lb'],
  [stated(40, 'N·m', [20, 40]), null, '40 N·m = 354 in-lb = 29.5 ft-lb'],
  [stated(15, 'ft-lb'), 1, '20.3 N·m = 180 in-lb = 15 ft-lb'],
  [{ state: 'byFeel' as const, source: '' }, 1, 'by feel with a bar'],
  [{ state: 'notGiven' as const, source: '' }, null, 'no value given: from the maker’s manual'],
])('%j at stage %p is %s', (torque, stage, shown) => {
  expect(plain(showTorque(torque, stage))).toBe(shown)
})

// By hand: 15 ft-lb = 15 × 1.3558 = 20.3 N·m, 36 % over 15; 15 N·m = 11.06 ft-lb, 26 % under 15 ft-lb;
// 110 ft-lb for 110 in-lb is twelve-fold.
test.each([
  [15, 'N·m', 15, 'ft-lb', '36\u00a0% too tight', 'N·m'],
  [15, 'ft-lb', 15, 'N·m', '26\u00a0% too loose', 'ft-lb'],
  [110, 'in-lb', 110, 'ft-lb', '12 times too tight', 'in-lb'],
  [40, 'N·m', 34, 'N·m', '15\u00a0% too loose', null],
  // 30 ft-lb would be 40.7 N·m.
  [40, 'N·m', 30, 'N·m', '25\u00a0% too loose', 'ft-lb'],
] as const)('%d %s pulled as %d %s is %s', (value, unit, pulled, pulledUnit, words, slip) => {
  const verdict = judgeTorque({ value, unit }, { value: pulled, unit: pulledUnit })
  expect(verdict.fits).toBe(false)
  expect(verdict.words).toContain(words)
  expect(verdict.slip).toBe(slip)
})

test.each([
  [40, 'N·m'],
  [41.9, 'N·m'],
  [354, 'in-lb'],
  [29.5, 'ft-lb'],
] as const)('%d %s is 40 N·m within a twentieth', (value, unit) => {
  expect(judgeTorque({ value: 40, unit: 'N·m' }, { value, unit })).toEqual({
    fits: true,
    slip: null,
    words: '',
  })
})
