import { knownAhead, laidUpOn, overlap, spellSchema, spellWords, type SpellInput } from '@/core/hours'
import { check } from '@/core/problem'
import type { ProblemError } from '@/core/problem'

const job = (more: Partial<Record<keyof SpellInput, unknown>> = {}) => ({
  id: '0190a000-0000-7000-8000-000000000001',
  kind: 'job',
  fromDay: '2026-11-02',
  toDay: '2026-11-13',
  hoursPerDay: '8,5',
  what: 'Viaduct',
  ...more,
})

test('a job keeps its hours a day as a number, a lay-up has none and may be open', () => {
  expect(check(spellSchema, job())).toMatchObject({ hoursPerDay: 8.5, toDay: '2026-11-13' })
  expect(check(spellSchema, job({ hoursPerDay: '' })).hoursPerDay).toBeNull()
  expect(check(spellSchema, job({ kind: 'layUp', toDay: '' }))).toMatchObject({
    hoursPerDay: null,
    toDay: null,
  })
})

test.each([
  [{ toDay: '2026-11-01' }, 'toDay', 'The last day is before the first.'],
  [{ toDay: '' }, 'toDay', 'Enter the job’s last day.'],
  [{ hoursPerDay: '25' }, 'hoursPerDay', 'Enter 0 to 24 hours a day, or leave it blank.'],
  [{ hoursPerDay: 'all day' }, 'hoursPerDay', 'Enter 0 to 24 hours a day, or leave it blank.'],
  [{ fromDay: '2026-02-30' }, 'fromDay', 'There is no such day in the calendar.'],
  [{ what: ' ' }, 'what', 'Say what for: the job, or why it stands.'],
  [{ kind: 'layUp', toDay: '2026-10-01' }, 'toDay', 'The last day is before the first.'],
])('%j is refused at %s', (more, field, message) => {
  try {
    check(spellSchema, job(more))
    throw new Error('accepted')
  } catch (error) {
    const { problem } = error as ProblemError
    expect(problem.kind === 'invalid' && problem.fields[field]).toBe(message)
  }
})

test('stretches overlap by a single shared day, and an open one goes on', () => {
  const span = (fromDay: string, toDay: string | null) => ({ fromDay, toDay })
  expect(overlap(span('2026-11-01', '2026-11-05'), span('2026-11-05', '2026-11-09'))).toBe(true)
  expect(overlap(span('2026-11-01', '2026-11-05'), span('2026-11-06', null))).toBe(false)
  expect(overlap(span('2026-11-01', null), span('2027-03-01', '2027-03-02'))).toBe(true)
})

test('spells become what the forecast goes by, scaled to the meter at hand', () => {
  const spells = [
    { kind: 'layUp' as const, fromDay: '2026-11-18', toDay: null, hoursPerDay: null, what: 'Winter' },
    { kind: 'job' as const, fromDay: '2026-10-20', toDay: '2026-10-30', hoursPerDay: 8, what: 'Ship lift' },
    { kind: 'job' as const, fromDay: '2026-11-02', toDay: '2026-11-03', hoursPerDay: null, what: 'As usual' },
  ]
  expect(knownAhead(spells, 0.6, 0)).toEqual({
    layUps: [{ from: '2026-11-18', to: null }],
    bookings: [{ from: '2026-10-20', to: '2026-10-30', hoursPerDay: 4.8 }],
    offsetDays: 0,
  })
  expect(laidUpOn(spells, '2026-11-17')).toBeUndefined()
  expect(spellWords(laidUpOn(spells, '2026-11-18')!, '2026-10-14')).toBe('laid up until further notice')
  expect(spellWords(spells[1]!, '2026-10-14')).toBe('Ship lift, until 30\u00a0Oct')
})
