import fc from 'fast-check'
import { flowVerdict, hydraulicKw, nozzleFlow } from '@/core/hydraulics'

test('a size number is US gallons a minute at 4000 psi', () => {
  // 4000 psi = 275.79 bar; 5 US gal = 18.927 L.
  expect(nozzleFlow(5, 275.790292)).toBeCloseTo(18.927, 3)
  // A quarter of the pressure: half the flow.
  expect(nozzleFlow(5, 275.790292 / 4)).toBeCloseTo(9.4635, 3)
})

test('hydraulic power is bar times litres a minute over 600', () => {
  expect(hydraulicKw(200, 15)).toBe(5)
})

// Size 5 at 200 bar passes 18.927·√(200/275.79) = 16.12 L/min; at 150 bar 13.96.
const usual = { nozzleSize: 5, usualLitresPerMinute: 16 }
test.each([
  ['usual flow, but only 150 bar: the nozzle lets it pass too easily', 150, 16, 'nozzleWorn'],
  ['150 bar and the flow that goes with it: lost before the nozzle', 150, 14, 'lostBefore'],
  ['200 bar and the usual flow', 200, 16, 'onCurve'],
  ['200 bar but hardly any flow: one of the two is read wrong', 200, 11, 'gaugeOrFlow'],
] as const)('%s', (_what, bar, litresPerMinute, verdict) => {
  expect(flowVerdict({ ...usual, bar, litresPerMinute }).verdict).toBe(verdict)
})

test('more pressure never makes a nozzle pass less', () => {
  const real = (max: number) => fc.double({ min: 0.1, max, noNaN: true })
  fc.assert(
    fc.property(real(40), real(3000), real(3000), (size, a, b) => {
      expect(nozzleFlow(size, Math.max(a, b))).toBeGreaterThanOrEqual(nozzleFlow(size, Math.min(a, b)))
    }),
  )
})
