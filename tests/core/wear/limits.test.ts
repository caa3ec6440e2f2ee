import { limitsAhead } from '@/core/wear'

const clock = (task: string, where: string, hoursLimit: number | null, hoursUsed: number) => ({
  task,
  name: task,
  where,
  positions: [`${task}@1`],
  hoursLimit,
  hoursUsed,
})

test('limits come nearest first, at a half share in twice the meter’s hours; passed ones are left out', () => {
  const limits = limitsAhead(
    [
      clock('Renew seals', 'cylinder 3', 800, 700),
      clock('Change oil', '', 500, 460),
      clock('Renew valves', '', 1600, 1650),
      clock('Inspect', '', null, 20),
    ],
    0.5,
    'P-31',
  )
  expect(limits.map(({ label, left, meterLeft }) => [label, left, meterLeft])).toEqual([
    ['P-31 change oil', 40, 80],
    ['P-31 renew seals, cylinder 3', 100, 200],
  ])
  expect(limitsAhead([clock('Change oil', '', 500, 460)], 0)).toEqual([])
})
