import { showTorque } from '@/core/torque'

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
