import fc from 'fast-check'
import {
  dailyUse,
  cumulativeHours,
  judgeAgain,
  judgeLater,
  judgeReading,
  plausibleUse,
  readMeterValue,
  type MeterFace,
} from '@/core/hours'

const face: MeterFace = { unit: 'h', digits: 5, decimals: 1 }
const at = (day: number) => new Date(Date.UTC(2026, 5, 1 + day, 8)).toISOString()
const reading = (day: number, value: number) => ({ id: `r${day}`, at: at(day), value })
// Weekly, 20 to 24 h a week: 4 700 on day 0 to 4 854 on day 49.
const steady = [4700, 4720, 4744, 4766, 4786, 4810, 4831, 4854].map((value, week) => reading(week * 7, value))
const judge = (day: number, value: number, more: Partial<Parameters<typeof judgeReading>[0]> = {}) =>
  judgeReading({ face, readings: steady, events: [], ...more }, { at: at(day), value })

test.each([
  ['a week’s usual use', 56, 4876, 'fits', null],
  ['no use since', 49.01, 4854, 'fits', null],
  ['far more than usual', 56, 4944, 'high', null],
  ['four weeks without use', 77, 4854, 'low', null],
  ['the point lost', 56, 48760, 'slip', 4876],
  ['two digits swapped', 56, 4867, 'fits', null],
  ['swapped into the past', 57, 4788, 'slip', 4878],
  ['a digit typed twice', 56, 44876, 'slip', 4876],
  ['the point lost, rather than a digit typed twice', 56, 48776, 'slip', 4877.6],
  ['a digit left out', 56, 476, 'slip', 4876],
  ['the point one place too far left', 56, 487, 'slip', 4870],
  ['backwards, unexplained', 56, 4300, 'impossible', null],
  ['near zero', 56, 31.5, 'newMeter', null],
  ['more than 24 h a day', 50, 4890, 'impossible', null],
])('%s', (_what, day, value, kind, suggestion) => {
  const verdict = judge(day, value)
  expect(verdict.kind).toBe(kind)
  if (suggestion !== null) expect(verdict.suggestion).toBe(suggestion)
  expect(verdict.possible).toBe(['fits', 'high', 'low'].includes(kind))
  expect(verdict.previous!.value).toBe(4854)
})

test('a reading between two others is judged against both', () => {
  expect(judge(24, 4775).kind).toBe('fits')
  expect(judge(24, 4800)).toMatchObject({ possible: false, previous: { value: 4766 } })
  expect(judge(24, 4905)).toMatchObject({ possible: false, next: { value: 4786 } })
  expect(judge(24, 4905).reason).toContain('Above the reading after it')
})

test('readings minutes apart may differ by their rounding, and no more', () => {
  const minutesLater = new Date(Date.parse(at(49)) + 3 * 60_000).toISOString()
  const history = { face, readings: steady, events: [] }
  expect(judgeReading(history, { at: minutesLater, value: 4854.1 }).possible).toBe(true)
  expect(judgeReading(history, { at: minutesLater, value: 4855 }).possible).toBe(false)
})

test('a roll-over is only thought of where the digits are known and the use is possible', () => {
  const high = [reading(0, 99_930), reading(7, 99_950), reading(14, 99_975)]
  expect(judge(21, 3, { readings: high })).toMatchObject({ kind: 'rollOver', used: 28 })
  expect(judge(21, 3, { readings: high, face: { ...face, digits: null } }).kind).toBe('newMeter')
  expect(judge(21, 3, { readings: high, face: { ...face, digits: 6 } }).kind).toBe('newMeter')
})

test('more digits than the meter has cannot be', () => {
  expect(judge(56, 480_000).reason).toContain('only 5 digits')
})

test('after a new meter only its own readings are compared', () => {
  const events = [{ kind: 'change' as const, id: 'c', at: at(50), lastValue: 4856, firstValue: 0 }]
  expect(judge(56, 18, { events })).toMatchObject({ kind: 'fits', used: 18 })
  expect(judge(56, 4876, { events }).possible).toBe(false)
})

test('the first reading of a meter fits whatever it is', () => {
  expect(judge(0, 77_777, { readings: [] })).toMatchObject({ kind: 'first', band: null, previous: null })
})

test('strokes have no 24-hours-a-day limit', () => {
  const strokes: MeterFace = { unit: 'strokes', digits: null, decimals: 0 }
  const readings = [reading(0, 100_000), reading(7, 180_000), reading(14, 262_000), reading(21, 345_000)]
  expect(judge(28, 425_000, { face: strokes, readings }).kind).toBe('fits')
})

test('bursts of work with idle weeks between give a wide band', () => {
  const values = [0, 60, 60, 60, 125, 125, 190, 190]
  const bursty = values.map((value, week) => reading(week * 7, 1000 + value))
  const width = (readings: typeof bursty) => {
    const band = plausibleUse(dailyUse(cumulativeHours(readings, []), at(49)), 7, 'h')
    return band.high - band.low
  }
  expect(width(bursty)).toBeGreaterThan(2 * width(steady))
  expect(judge(56, 1190 + 62, { readings: bursty }).kind).toBe('fits')
  expect(judge(56, 1190, { readings: bursty }).kind).toBe('fits')
})

test('readings in doubt are judged again in time order, each helping the next', () => {
  const doubted = [reading(63, 4898), reading(56, 4876)]
  const again = judgeAgain({ face, readings: steady, events: [] }, doubted)
  expect(again.map(({ id, verdict }) => [id, verdict.kind])).toEqual([
    ['r56', 'fits'],
    ['r63', 'fits'],
  ])
})

test('no reading at all makes the judge throw, and what it accepts never makes the line fall', () => {
  fc.assert(
    fc.property(fc.integer({ min: -30, max: 120 }), fc.integer({ min: 0, max: 999_999 }), (day, tenths) => {
      const value = tenths / 10
      const verdict = judge(day + 0.5, value)
      if (!verdict.possible) return
      const line = cumulativeHours([...steady, { id: 'new', at: at(day + 0.5), value }], [])
      expect(line.ignoredReadingIds).toEqual([])
    }),
  )
})

test.each([
  ['5 246,8 h', 52468],
  ['5246', 52460],
  ['1,234', 12340],
])('a meter of one decimal reads “%s” as %d tenths', (text, raw) => {
  expect(readMeterValue(text, face)).toEqual({ ok: true, raw })
})

test('a meter refuses decimals it does not show, and less than zero', () => {
  expect(readMeterValue('12.55', face)).toEqual({ ok: false, reason: 'This meter shows one decimal.' })
  expect(readMeterValue('12.5', { ...face, decimals: 0 })).toEqual({
    ok: false,
    reason: 'This meter shows no decimals.',
  })
  expect(readMeterValue('-1', face).ok).toBe(false)
})

describe('judging later readings again', () => {
  const history = (readings: { id: string; at: string; value: number }[]) => ({ face, events: [], readings })

  test('a correction upwards leaves those below it in doubt, and those above it counting', () => {
    // Day 42 corrected from 4 831 to 4 860: day 49 showed 4 854 and now runs backwards, day 56 does not.
    const corrected = [...steady.filter(({ id }) => id !== 'r42'), reading(42, 4860), reading(56, 4879)]
    expect(judgeLater(history(corrected), at(42), new Set())).toEqual([
      { id: 'r49', verdict: expect.objectContaining({ kind: 'impossible', possible: false }) },
    ])
  })

  test('the next one that no longer fits falls into doubt, unless somebody vouched for it', () => {
    // Day 42 corrected from 4 831 to 4 812.4: 41.6 h in the week to day 49, where 20 to 24 h are usual.
    const corrected = [...steady.filter(({ id }) => id !== 'r42'), reading(42, 4812.4), reading(56, 4876)]
    const fallen = judgeLater(history(corrected), at(42), new Set())
    expect(fallen.map(({ id }) => id)).toEqual(['r49'])
    expect(fallen[0]!.verdict.possible).toBe(true)
    expect(judgeLater(history(corrected), at(42), new Set(['r49']))).toEqual([])
  })

  test('where nothing changed nothing falls', () => {
    expect(judgeLater(history(steady), at(14), new Set())).toEqual([])
    expect(judgeLater(history([]), at(14), new Set())).toEqual([])
  })

  test('law: what still counts afterwards never runs backwards', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 6 }), fc.integer({ min: 4600, max: 4950 }), (index, value) => {
        const readings = steady.map((each, at) => (at === index ? { ...each, value } : each))
        const since = readings[index]!.at
        const fallen = new Set(judgeLater(history(readings), since, new Set()).map(({ id }) => id))
        const counting = readings.filter((each) => each.at >= since && !fallen.has(each.id))
        for (let at = 1; at < counting.length; at += 1)
          expect(counting[at]!.value).toBeGreaterThanOrEqual(counting[at - 1]!.value)
      }),
    )
  })
})
