import fc from 'fast-check'
import { minutesOn, runningWords, runsOver } from '@/core/plan'

/** Monday to Friday, 480 minutes; 2026-10-15 is a Thursday. */
const weekdays = (day: string) => minutesOn({ days: [1, 2, 3, 4, 5], minutes: 480, leave: [] }, [], day)
const run = (minutes: number, cureMinutes = 0, day = '2026-10-15') =>
  runsOver({ day, minutes, cureMinutes }, weekdays)

test('what does not fit in a day goes on the next day of its technician, over the weekend', () => {
  expect(run(480)).toEqual({ days: [{ day: '2026-10-15', minutes: 480 }], backOn: '2026-10-15' })
  expect(run(1000)).toEqual({
    days: [
      { day: '2026-10-15', minutes: 480 },
      { day: '2026-10-16', minutes: 480 },
      { day: '2026-10-19', minutes: 40 },
    ],
    backOn: '2026-10-19',
  })
})

test('what cures overnight keeps the machine until somebody can prove it', () => {
  // Done at 10:00, cured at 14:00 the same day.
  expect(run(120, 240).backOn).toBe('2026-10-15')
  // Done at 15:00, cured at 19:00, after work: proved next morning.
  expect(run(420, 240).backOn).toBe('2026-10-16')
  // Done at 11:00, cured a day later at 11:00.
  expect(run(180, 1440).backOn).toBe('2026-10-16')
  // From a Friday on: cured on Saturday, proved on Monday.
  expect(run(180, 1440, '2026-10-16').backOn).toBe('2026-10-19')
  expect(runningWords(run(180, 1440, '2026-10-16'), '2026-10-14').replaceAll('\u00a0', ' ')).toBe(
    'Done on 16 Oct; the machine is back once it has cured, on 19 Oct.',
  )
  expect(runningWords(run(60), '2026-10-14')).toBe('')
})

test('leave and closed days are no days of work', () => {
  const member = { days: [1, 2, 3, 4, 5], minutes: 420, leave: [{ from: '2026-10-15', to: '2026-10-16' }] }
  const closed = [{ from: '2026-10-19', to: '2026-10-19' }]
  expect(
    ['2026-10-14', '2026-10-15', '2026-10-18', '2026-10-19', '2026-10-20'].map((day) =>
      minutesOn(member, closed, day),
    ),
  ).toEqual([420, 0, 0, 0, 420])
})

test('law: the days add up to the work, each within what is worked, and it is never back before its last day', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 4000 }), fc.nat(3000), (minutes, cure) => {
      const { days, backOn } = run(minutes, cure)
      expect(days.reduce((sum, each) => sum + each.minutes, 0)).toBe(minutes)
      for (const each of days) expect(each.minutes).toBeLessThanOrEqual(weekdays(each.day))
      expect(backOn >= days.at(-1)!.day).toBe(true)
      expect(weekdays(backOn)).toBeGreaterThan(0)
    }),
  )
})
