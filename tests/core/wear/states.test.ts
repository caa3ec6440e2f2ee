import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { addDays, daysBetween } from '@/core/calendar'
import { allPositions, parsePumpModel } from '@/core/models'
import { dueStates, noRules, type ComingUse, type ForwardSign, type Terms, type Wearing } from '@/core/wear'

const model = parsePumpModel(JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8')))
const today = '2026-10-14'
/** Five hours a day, without any spread. */
const use: ComingUse = {
  perDay: 5,
  dayReaching: (hours) => addDays(today, Math.round(hours / 5)),
}
const terms: Terms = { today, noticeDays: 2, leadTime: () => ({ days: 0, parts: [] }) }
/** Every part fitted at 0 h, 100 days ago; 500 h since. */
const pump = (more: Partial<Wearing> = {}): Wearing => ({
  model,
  record: {
    usage: 500,
    today,
    lives: Object.fromEntries(
      allPositions(model).map((key) => [
        key,
        { usage: 0, day: addDays(today, -100), first: false, assumed: false },
      ]),
    ),
    done: {},
  },
  rules: noRules,
  signs: [],
  use,
  ...more,
})
const weep: ForwardSign = {
  id: 'sign-1',
  version: 1,
  task: 'hpSeals',
  positions: ['hpSeal@2'],
  by: '2026-10-19',
  words: 'weeps, 12 drips a minute',
}
const sealsOf = (wearing: Wearing, by: Terms = terms) =>
  dueStates(wearing, by).filter((each) => each.task.key === 'hpSeals')

test('a weep at one cylinder brings that cylinder forward and leaves the others alone', () => {
  // 800 h less 500 h at 5 h a day: 60 days, 13 December.
  const [sign, rest] = sealsOf(pump({ signs: [weep] }))
  expect(sign).toMatchObject({
    positions: ['hpSeal@2'],
    where: 'cylinder 2',
    state: 'dueSoon',
    dueDay: '2026-10-19',
    firstBy: 'sign',
    band: { early: '2026-10-19', late: '2026-10-19' },
    window: { from: '2026-10-14', to: '2026-10-19' },
    lastResponsibleDay: '2026-10-17',
  })
  expect(rest).toMatchObject({
    positions: ['hpSeal@1', 'hpSeal@3'],
    state: 'healthy',
    dueDay: '2026-12-13',
    firstBy: 'hours',
  })
})

test('it is overdue once the day it named has passed', () => {
  const [sign] = sealsOf(pump({ signs: [{ ...weep, by: '2026-10-13' }] }))
  expect(sign).toMatchObject({ state: 'overdue', dueDay: '2026-10-13', lastResponsibleDay: '2026-10-11' })
})

test('parts that are missing are allowed for under a sign too', () => {
  const [sign] = sealsOf(pump({ signs: [weep] }), {
    ...terms,
    leadTime: () => ({ days: 21, parts: ['SK-1'] }),
  })
  expect(sign?.lastResponsibleDay).toBe('2026-09-26')
})

test('a limit that comes before the sign stays what it goes by', () => {
  const worn = pump({ signs: [{ ...weep, by: '2026-12-30' }] })
  const [sign] = sealsOf(worn)
  expect(sign).toMatchObject({ firstBy: 'hours', dueDay: '2026-12-13', lastResponsibleDay: '2026-12-11' })
})

test('a sign of all positions keeps them on one line', () => {
  const lines = sealsOf(pump({ signs: [{ ...weep, positions: [] }] }))
  expect(lines.map((line) => [line.where, line.state])).toEqual([['all cylinders', 'dueSoon']])
})

test('on the shelf a sign still has its day, though no hours come', () => {
  const [sign] = sealsOf(pump({ use: null, signs: [weep] }))
  expect(sign).toMatchObject({ dueDay: '2026-10-19', firstBy: 'sign', perDay: null })
})

test('each line carries the figures it was made from', () => {
  const [line] = sealsOf(pump())
  expect(line).toMatchObject({
    since: { usage: 0, day: '2026-07-06' },
    usageNow: 500,
    perDay: 5,
    noticeDays: 2,
    leadTime: { days: 0, parts: [] },
    ruled: { stated: { hours: 800 }, factor: 1 },
  })
})

test('a sign never makes anything later or better, wherever its day lies', () => {
  const plain = sealsOf(pump())[0]!
  fc.assert(
    fc.property(fc.integer({ min: -30, max: 400 }), (days) => {
      const [sign] = sealsOf(pump({ signs: [{ ...weep, positions: [], by: addDays(today, days) }] }))
      expect(daysBetween(sign!.dueDay!, plain.dueDay!)).toBeGreaterThanOrEqual(0)
      expect(daysBetween(sign!.lastResponsibleDay!, plain.lastResponsibleDay!)).toBeGreaterThanOrEqual(0)
      expect(sign!.state).not.toBe('healthy')
    }),
  )
})
