import fc from 'fast-check'
import {
  isAcceptedAtOnce,
  dailyUse,
  cumulativeHours,
  judgeAgain,
  judgeLater,
  judgeReading,
  judgeTyped,
  plausibleUse,
  possibleSlips,
  presumedChange,
  settleBlame,
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

test('across a roll-over hours are judged from the last reading before it, not from the moment it is told', () => {
  // Told a millisecond before the reading: 25 h since the last one, a week before.
  const high = [reading(0, 99_930), reading(7, 99_950), reading(14, 99_975)]
  const moment = new Date(Date.parse(at(21)) - 1).toISOString()
  const events = [{ kind: 'rollOver' as const, id: 'o', at: moment, span: 100_000 }]
  const history = { readings: high, events }
  expect(judge(21, 0, history)).toMatchObject({ kind: 'fits', used: 25, previous: { value: 99_975 } })
  expect(judge(21, 143, history)).toMatchObject({ possible: true, used: 168 })
  // 169 h in a week of 168 h and a rounding: not on this clock.
  expect(judge(21, 144.5, history)).toMatchObject({ possible: false })
  // Between the last before and the first after, both count.
  const after = { readings: [...high, reading(21, 0)], events }
  expect(judge(18, 99_990, after)).toMatchObject({ kind: 'fits', next: { value: 0 } })
  expect(judge(18, 99_960, after).possible).toBe(false)
})

test('before a change of meter nothing above what the old one showed last is possible', () => {
  const change = { kind: 'change' as const, id: 'c', at: at(56), firstValue: 0 }
  expect(judge(53, 4862, { events: [{ ...change, lastValue: 4870 }] })).toMatchObject({ kind: 'fits' })
  expect(judge(53, 4872, { events: [{ ...change, lastValue: 4870 }] }).possible).toBe(false)
  // Nobody noted what it showed, or it was only estimated: then nothing stands against it.
  expect(judge(53, 4862, { events: [{ ...change, lastValue: null }] }).kind).toBe('fits')
  expect(judge(53, 4872, { events: [{ ...change, lastValue: 4870, assumed: true }] }).possible).toBe(true)
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

test.each([
  // A digit must not be rounded away: 4 876.83 is nothing a meter of one decimal shows.
  ['tenfold with a digit to spare', '48768.3', 1, 'impossible', null],
  ['a whole meter read with its tenths', '48768', 0, 'slip', 4876],
  ['the point two places too far left', '48.76', 2, 'slip', 4876],
])('a slip of the point, %s', (_what, typed, decimals, kind, suggestion) => {
  const { verdict } = judgeTyped(
    typed,
    { face: { ...face, decimals, digits: null }, readings: steady, events: [] },
    at(56),
  )
  expect([verdict.kind, verdict.suggestion]).toEqual([kind, suggestion])
})

test('too many decimals are refused, and the value that a misplaced point would have meant is named', () => {
  const read = (typed: string) => judgeTyped(typed, { face, readings: steady, events: [] }, at(56))
  expect(read('487.66')).toMatchObject({
    value: null,
    suggestion: 4876.6,
    refusal: 'This meter shows one decimal. 4 876.6 h would fit: the decimal point is misplaced.'.replace(
      / (?=876)| (?=h )/g,
      '\u00a0',
    ),
  })
  expect(read('4.8766').suggestion).toBe(4876.6)
  expect(read('12.55')).toMatchObject({
    value: null,
    suggestion: null,
    refusal: 'This meter shows one decimal.',
  })
  expect(read('4876.6')).toMatchObject({ value: 4876.6, refusal: '', suggestion: null })
  expect(read('48766')).toMatchObject({ value: 48_766, suggestion: 4876.6 })
})

test('law: a tenfold slip has the digits that were typed, whatever was typed', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9_999_999 }), fc.integer({ min: 0, max: 2 }), (raw, decimals) => {
      const typed = raw / 10 ** decimals
      const bare = (value: number) =>
        String(value)
          .replace('.', '')
          .replace(/^0+|0+$/g, '')
      for (const slip of possibleSlips(typed, { unit: 'h', digits: null, decimals }))
        if (slip.how.startsWith('the decimal point')) expect(bare(slip.value)).toBe(bare(typed))
    }),
  )
})

describe('a machine that is laid up', () => {
  // Read on day 49; laid up from then on. 22 h a week before.
  const standing = [{ from: at(49), to: at(49 + 56) }]

  test('no use is what is expected of it, and use is unusual', () => {
    expect(judge(49 + 56, 4854, { standing }).kind).toBe('fits')
    expect(judge(49 + 56, 4854 + 8 * 22, { standing })).toMatchObject({ kind: 'high', possible: true })
    expect(judge(49 + 56, 4854 + 8 * 22, { standing }).reason).toContain('laid up')
    // Without the lay-up it is the other way round.
    expect(judge(49 + 56, 4854).kind).toBe('low')
    expect(judge(49 + 56, 4854 + 8 * 22).kind).toBe('fits')
  })

  test('after it the machine is expected to work as it did before', () => {
    const readings = [...steady, reading(49 + 56, 4854)]
    expect(judge(49 + 63, 4876, { readings, standing }).kind).toBe('fits')
    const { meanPerDay } = dailyUse(cumulativeHours(readings, []), at(49 + 56), standing)
    // 154 h in 49 working days is 3.1 a day; the eight weeks of standing do not count.
    expect(meanPerDay).toBeGreaterThan(2.9)
    expect(meanPerDay).toBeLessThan(3.3)
  })
})

describe('who is to blame for a doubt', () => {
  const history = (readings: { id: string; at: string; value: number }[]) => ({ face, events: [], readings })

  test('one that two later ones contradict is in doubt, and they count', () => {
    // 4 890 on day 56 was high and counted; 4 876 and 4 898 came after it: 4 890 is the odd one out.
    const readings = [...steady, reading(56, 4895)]
    const doubted = [reading(60, 4885), reading(63, 4893)]
    expect(settleBlame(history(readings), doubted)).toMatchObject({
      blamed: 'r56',
      cleared: [{ id: 'r60' }, { id: 'r63' }],
    })
    // One against one: nobody knows which, and the later one waits.
    expect(settleBlame(history(readings), doubted.slice(0, 1))).toBeNull()
  })

  test('a first reading that was wrong does not hold up all that follow', () => {
    expect(settleBlame(history([reading(0, 52_468)]), [reading(7, 5270), reading(14, 5291)])).toMatchObject({
      blamed: 'r0',
    })
  })

  test('a counter that starts anew blames nobody', () => {
    expect(settleBlame(history(steady), [reading(56, 12), reading(63, 34), reading(70, 55)])).toBeNull()
    expect(settleBlame(history([reading(0, 4800)]), [reading(7, 12), reading(14, 34)])).toBeNull()
  })

  test('law: one wrong reading in a true history keeps at most one in doubt, of unusual use those it contradicts', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 120, max: 260 }), { minLength: 9, maxLength: 14 }),
        fc.integer({ min: 4, max: 5 }),
        fc.integer({ min: -2000, max: 2000 }),
        (tenths, wrong, off) => {
          let value = 47_000
          const truth = tenths.map((each, week) => reading(week * 7, (value += each) / 10))
          const others = truth.filter((_, index) => index !== wrong)
          const areUsual = others.every((each, index) =>
            isAcceptedAtOnce(judgeReading(history(others.slice(0, index)), each).kind),
          )
          const entered = truth.map((each, index) =>
            index === wrong ? { ...each, value: Math.max(0, each.value + off / 10) } : each,
          )
          // As they come in one by one, each judged at once; whoever enters one that is merely unusual vouches.
          let counting: typeof truth = []
          let doubted: typeof truth = []
          for (const each of entered) {
            const verdict = judgeReading(history(counting), each)
            if (verdict.possible) counting = [...counting, each]
            else doubted = [...doubted, each]
            const settled = settleBlame(history(counting), doubted)
            if (!settled) continue
            const cleared = new Set(settled.cleared.map(({ id }) => id))
            const back = counting.find(({ id }) => id === settled.blamed)!
            counting = [
              ...counting.filter((each) => each !== back),
              ...doubted.filter(({ id }) => cleared.has(id)),
            ]
            doubted = [...doubted.filter(({ id }) => !cleared.has(id)), back]
          }
          // One that is unusual even without the wrong one waits for a person, where that contradicts it.
          const held = entered.slice(wrong + 1).filter((each) => each.value < entered[wrong]!.value)
          expect(doubted.length).toBeLessThanOrEqual(areUsual ? 1 : 1 + held.length)
          if (!areUsual) return
          // Where the wrong one is above two that follow, it is the one.
          if (entered[wrong]!.value > entered[wrong + 2]!.value)
            expect(doubted.map(({ id }) => id)).toEqual([`r${wrong * 7}`])
        },
      ),
    )
  })
})

describe('a meter that was replaced, told only by its reading', () => {
  test('the usual use since the last reading is shared between the old one and the new one', () => {
    // 22 h a week: 12 h on the new one leave about 10 for the old one, and 12 of 22 parts of the week.
    const change = presumedChange({ face, readings: steady, events: [] }, { at: at(56), value: 12 }, 0)!
    expect(change.lastValue).toBeGreaterThan(4854 + 8)
    expect(change.lastValue).toBeLessThan(4854 + 12)
    expect(change.at > at(51) && change.at < at(53)).toBe(true)
  })

  test('more than the usual use is all the new one’s, from the last reading on', () => {
    expect(presumedChange({ face, readings: steady, events: [] }, { at: at(56), value: 60 }, 0)).toEqual({
      // A moment later: the last reading was still the old one's.
      at: new Date(Date.parse(at(49)) + 1).toISOString(),
      lastValue: 4854,
      firstValue: 0,
    })
  })

  test('one that started at what it shows was fitted when it was read', () => {
    const change = presumedChange({ face, readings: steady, events: [] }, { at: at(56), value: 12 }, 12)!
    expect(change.at).toBe(at(56))
  })

  test('law: the reading always fits the change that is presumed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1500 }), fc.integer({ min: 1, max: 60 }), (tenths, days) => {
        const candidate = { at: at(49 + days), value: tenths / 10 }
        const change = presumedChange({ face, readings: steady, events: [] }, candidate, 0)
        // More than the clock had: no change explains it.
        if (candidate.value > days * 24) return expect(change).toBeNull()
        const events = [{ kind: 'change' as const, id: 'c', assumed: true, ...change! }]
        expect(judgeReading({ face, readings: steady, events }, candidate).possible).toBe(true)
      }),
    )
  })
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
