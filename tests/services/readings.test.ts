import fc from 'fast-check'
import { v7 as uuid } from 'uuid'
import type { SettlementInput } from '@/core/hours'
import type { Actor } from '@/services/house'
import { runAt } from '@/services/house'
import { addMachine, getMachine, listMachines } from '@/services/fleet'
import { saveMeter } from '@/services/hours'
import { saveSpell } from '@/services/hours'
import { addPerson } from '@/services/access'
import { recordReading, settleReading } from '@/services/hours'
import { plainMachine, plainMeter } from '../support/machine'
import { freshCompany, problemIn, removeDatabase } from '../support/database'

let coordinator: Actor
let technician: Actor
const meterId = uuid()

// A meter of five digits and one decimal, read weekly at about 20 h a week: 4 700.0 to 4 820.0.
const weeks = [
  '2026-08-10',
  '2026-08-17',
  '2026-08-24',
  '2026-08-31',
  '2026-09-07',
  '2026-09-14',
  '2026-09-21',
]

beforeEach(async () => {
  const company = await freshCompany()
  coordinator = company.coordinator
  technician = { ...coordinator, role: 'technician' }
  await runAt('2026-08-10T12:00:00.000Z', () =>
    addMachine(
      coordinator,
      plainMachine('T-09', company.yardId, {
        meter: plainMeter({ id: meterId, firstTyped: '', firstDay: '2026-08-10' }),
      }),
    ),
  )
  for (const [index, day] of weeks.entries()) await read(day, String(4700 + 20 * index))
})
afterAll(removeDatabase)

function read(
  day: string,
  typed: string,
  more: { vouched?: boolean; id?: string; time?: string; as?: Actor } = {},
) {
  return runAt(`${day}T15:00:00.000Z`, () =>
    recordReading(more.as ?? coordinator, {
      id: more.id ?? uuid(),
      meterId,
      day,
      time: more.time ?? '12:00',
      typed,
      readBy: 'L. Varga',
      note: '',
      vouched: more.vouched ?? false,
    }),
  )
}

const settle = (input: SettlementInput, actor = coordinator) =>
  runAt('2026-10-14T09:00:00.000Z', () => settleReading(actor, input))
const page = () => runAt('2026-10-14T09:00:00.000Z', () => getMachine(coordinator, 'T-09'))
const total = async () => (await page()).meters[0]!.total
const statuses = async () =>
  (await page()).meters[0]!.readings.map((reading) => [reading.value, reading.status]).reverse()

test('a reading that fits counts at once', async () => {
  expect(await read('2026-09-28', '4 840,0 h')).toMatchObject({
    status: 'accepted',
    verdict: { kind: 'fits' },
  })
  expect(await total()).toBe(4840)
})

test('a lost decimal point is kept in doubt, with the value that would fit, and drives nothing', async () => {
  const kept = await read('2026-09-28', '48412')
  expect(kept).toMatchObject({
    status: 'doubted',
    verdict: { kind: 'slip', suggestion: 4841.2, previous: { value: 4820 } },
  })
  expect(await total()).toBe(4820)
  expect((await runAt('2026-09-28T16:00:00.000Z', () => listMachines(coordinator)))[0]!.doubts).toBe(1)

  await settle({
    decision: 'correct',
    readingId: kept.id,
    id: uuid(),
    typed: '4841.2',
    day: '2026-09-28',
    time: '12:00',
    reason: 'photo shows it',
  })
  expect(await total()).toBe(4841.2)
  const [newest, old] = (await page()).meters[0]!.readings
  expect(newest).toMatchObject({
    status: 'accepted',
    supersedesId: kept.id,
    vouchedReason: 'photo shows it',
    typed: '4841.2',
  })
  expect(old).toMatchObject({ status: 'superseded', typed: '48412' })
})

test('a high reading is doubted until somebody vouches for it with a reason', async () => {
  const kept = await read('2026-09-28', '4930')
  expect(kept).toMatchObject({ status: 'doubted', verdict: { kind: 'high', possible: true } })
  expect((await problemIn(settle({ decision: 'vouch', readingId: kept.id, reason: '' }))).fields).toEqual({
    reason: 'Say why, for whoever reads this later.',
  })
  await settle({ decision: 'vouch', readingId: kept.id, reason: 'night shifts at the ship lift' })
  expect(await total()).toBe(4930)
})

test('what runs backwards cannot be vouched for', async () => {
  const kept = await read('2026-09-28', '4790')
  expect(kept).toMatchObject({ status: 'doubted', verdict: { possible: false } })
  const problem = await problemIn(settle({ decision: 'vouch', readingId: kept.id, reason: 'I am sure' }))
  expect(problem.fields!.decision).toContain('Runs backwards')
  expect(await total()).toBe(4820)
})

test('a new meter goes on where the old one ended', async () => {
  const kept = await read('2026-09-30', '31.5')
  expect(kept.verdict.kind).toBe('newMeter')
  await settle({
    decision: 'newMeter',
    readingId: kept.id,
    oldLastTyped: '4826',
    newFirstTyped: '0',
    day: '2026-09-23',
    time: '12:00',
    reason: 'display dark',
  })
  expect(await total()).toBeCloseTo(4826 + 31.5, 6)
  await read('2026-10-07', '50')
  expect(await total()).toBeCloseTo(4826 + 50, 6)
})

test('an explanation that does not explain the reading is refused and nothing of it is kept', async () => {
  const kept = await read('2026-09-30', '31.5')
  const bad = {
    decision: 'newMeter' as const,
    readingId: kept.id,
    oldLastTyped: '',
    newFirstTyped: '40',
    day: '2026-09-23',
    time: '12:00',
    reason: '',
  }
  expect((await problemIn(settle(bad))).fields!.newFirstTyped).toContain('cannot have started there')
  expect((await page()).meters[0]!.events).toEqual([])
  expect(
    (await problemIn(settle({ ...bad, newFirstTyped: '0', oldLastTyped: '3000' }))).fields!.oldLastTyped,
  ).toContain('Runs backwards')
})

test('correcting a wrong old reading lets the doubted ones after it count again', async () => {
  const wrong = await read('2026-09-22', '4843', { vouched: true })
  expect(wrong.status).toBe('accepted')
  const later = await read('2026-09-28', '4840')
  expect(later.status).toBe('doubted')
  await settle({
    decision: 'correct',
    readingId: wrong.id,
    id: uuid(),
    typed: '4823',
    day: '2026-09-22',
    time: '12:00',
    reason: 'misread',
  })
  expect(await statuses()).toEqual(
    expect.arrayContaining([
      [4840, 'accepted'],
      [4843, 'superseded'],
      [4823, 'accepted'],
    ]),
  )
  expect((await page()).changes[0]!.summary).toContain('fits now and counts')
})

test('after a correction the readings behind it are judged again: what no longer fits is in doubt, and on record', async () => {
  const rows = (await page()).meters[0]!.readings
  const old = rows.find((reading) => reading.day === '2026-09-07')!
  // 14 September showed 4 800: a correction to 4 760.5 a week before it leaves it 39.5 h, where 20 are usual.
  await settle({
    decision: 'correct',
    readingId: old.id,
    id: uuid(),
    typed: '4760.5',
    day: '2026-09-07',
    time: '12:00',
    reason: 'photo found',
  })
  expect(await statuses()).toEqual(
    expect.arrayContaining([
      [4760.5, 'accepted'],
      [4800, 'doubted'],
      [4820, 'accepted'],
    ]),
  )
  const { changes } = await page()
  expect(changes.map((change) => change.summary)).toEqual(
    expect.arrayContaining([
      'Engine hours reading 4\u00a0800.0\u00a0h no longer fits and is in doubt',
      'Engine hours reading 4\u00a0780.0\u00a0h corrected to 4\u00a0760.5\u00a0h',
    ]),
  )
  // Taken back to what it was, the doubted one fits and counts again.
  const corrected = (await page()).meters[0]!.readings.find((reading) => reading.value === 4760.5)!
  await settle({
    decision: 'correct',
    readingId: corrected.id,
    id: uuid(),
    typed: '4780',
    day: '2026-09-07',
    time: '12:00',
    reason: 'wrong photo',
  })
  expect(await statuses()).toEqual(expect.arrayContaining([[4800, 'accepted']]))
})

test('a reading between two others that fits neither is kept in doubt and says which', async () => {
  const above = await read('2026-09-10', '4805', { vouched: true })
  expect(above).toMatchObject({ status: 'doubted' })
  expect(above.verdict.reason).toContain('Above the reading after it, 4\u00a0800.0')
  const below = await read('2026-09-11', '4771', { vouched: true })
  expect(below).toMatchObject({ status: 'doubted' })
  expect(below.verdict.reason).toContain('Runs backwards: the previous reading was 4\u00a0780.0')
  expect(await total()).toBe(4820)
})

test.each(['4 840,5', '4840.5 h', '4,840.5', '4’840.5', ' 4840,5h '])(
  '“%s” is 4 840.5, with comma, thousands and unit',
  async (typed) => {
    await read('2026-09-28', typed)
    expect(await total()).toBe(4840.5)
  },
)

test('a reading sent twice is kept once; two people settling the same one get a clear answer', async () => {
  const id = uuid()
  await read('2026-09-28', '4840', { id })
  await read('2026-09-28', '4840', { id })
  expect((await page()).meters[0]!.readings.filter((reading) => reading.value === 4840)).toHaveLength(1)
  await settle({ decision: 'withdraw', readingId: id, reason: 'wrong machine' })
  const other = { ...coordinator, id: uuid() }
  expect(
    await problemIn(settle({ decision: 'withdraw', readingId: id, reason: 'wrong machine' }, other)),
  ).toMatchObject({
    kind: 'conflict',
    message: 'This reading was corrected or withdrawn meanwhile. Look at the list again.',
  })
})

test('an answer that was lost is asked for again, and nothing is done twice', async () => {
  const kept = await read('2026-09-28', '48402')
  const correction = {
    decision: 'correct' as const,
    readingId: kept.id,
    id: uuid(),
    typed: '4840.2',
    day: '2026-09-28',
    time: '12:00',
    reason: 'misread',
  }
  for (const _ of [1, 2]) await settle(correction)
  const high = await read('2026-10-05', '4930')
  for (const _ of [1, 2]) await settle({ decision: 'vouch', readingId: high.id, reason: 'night shifts' })
  for (const _ of [1, 2]) await settle({ decision: 'withdraw', readingId: high.id, reason: 'other machine' })
  expect(await statuses()).toHaveLength(weeks.length + 3)
  expect(await total()).toBe(4840.2)
})

describe('a counter that goes through zero', () => {
  const rollOver = (readingId: string, more: object = {}) =>
    settle({ decision: 'rollOver', readingId, reason: '', ...more } as SettlementInput)
  /** 99 970 h on 28 September, as if this meter had always shown so much. */
  async function nearTheEnd() {
    const meter = (await page()).meters[0]!
    const { name, kind, decimals, readingIntervalDays, version } = meter
    await runAt('2026-09-28T15:00:00.000Z', async () =>
      saveMeter(coordinator, (await getMachine(coordinator, 'T-09')).id, {
        ...{ id: meterId, name, kind, decimals, readingIntervalDays, version },
        digits: null,
      }),
    )
    const end = await read('2026-09-28', '99970')
    await settle({
      decision: 'newMeter',
      readingId: end.id,
      oldLast: 'read',
      oldLastTyped: '4826',
      newFirstTyped: '99940',
      day: '2026-09-23',
      time: '12:00',
      reason: '',
    })
  }

  test('is settled though it counted a week’s hours across it, and they run straight across', async () => {
    await nearTheEnd()
    // 42 h in a week, from 99 970 through zero to 12.
    const zero = await read('2026-10-05', '12')
    expect(zero.status).toBe('doubted')
    expect((await problemIn(rollOver(zero.id))).fields!.digits).toContain('how many digits')
    expect((await problemIn(rollOver(zero.id, { digits: 4 }))).fields!.digits).toContain('takes more digits')
    await rollOver(zero.id, { digits: 5 })
    // Told twice, once: the answer may have been lost.
    await rollOver(zero.id, { digits: 5 })
    const meter = (await page()).meters[0]!
    expect(meter.digits).toBe(5)
    expect(meter.events.map(({ kind }) => kind)).toEqual(['change', 'rollOver'])
    // 4 826 on the old meter; 30 h from 99 940 to 99 970, 30 more to zero, and 12.
    expect(await total()).toBeCloseTo(4826 + 30 + 30 + 12, 6)
    expect((await read('2026-10-12', '34')).status).toBe('accepted')
  })

  test('law: taken back whole, with the reading and the digits that told of it', async () => {
    await nearTheEnd()
    const before = await figures()
    const zero = await read('2026-10-05', '12')
    await rollOver(zero.id, { digits: 5 })
    await settle({ decision: 'withdraw', readingId: zero.id, reason: 'wrong machine' })
    expect(await figures()).toEqual(before)
  })
})

/** Everything that is derived from a meter's readings and events, without the line of what was withdrawn. */
async function figures() {
  const meter = (await page()).meters[0]!
  return {
    digits: meter.digits,
    line: meter.line,
    total: meter.total,
    weekly: meter.weekly,
    events: meter.events.map(({ kind, at }) => [kind, at]),
    statuses: meter.readings
      .filter(({ status }) => status !== 'superseded')
      .map(({ id, status }) => [id, status]),
  }
}

describe('one act is taken back whole', () => {
  const replaced = async (typed: string, more: object = {}) => {
    const kept = await read('2026-09-30', typed)
    await settle({
      decision: 'newMeter',
      readingId: kept.id,
      oldLastTyped: '4826',
      newFirstTyped: '0',
      day: '2026-09-23',
      time: '12:00',
      reason: '',
      ...more,
    } as SettlementInput)
    return kept
  }

  test('a new meter told with a reading goes with it, and the old meter’s next reading counts', async () => {
    const before = await figures()
    const kept = await replaced('31.5')
    await settle({ decision: 'withdraw', readingId: kept.id, reason: 'wrong machine' })
    expect(await figures()).toEqual(before)
    expect((await read('2026-09-30', '4846')).status).toBe('accepted')
    expect(
      (await page()).changes.some(({ summary }) => summary.includes('taken back with its reading')),
    ).toBe(true)
  })

  test('corrected to the old meter’s line the change goes; corrected on the new one it stays', async () => {
    const correct = (readingId: string, typed: string) =>
      settle({
        decision: 'correct',
        readingId,
        id: uuid(),
        typed,
        day: '2026-09-30',
        time: '12:00',
        reason: 'misread',
      })
    const first = await replaced('31.5')
    await correct(first.id, '33.5')
    expect((await page()).meters[0]!.events).toHaveLength(1)
    expect(await total()).toBeCloseTo(4826 + 33.5, 6)
    const carrying = (await page()).meters[0]!.readings.find(({ tells }) => tells === 'change')!
    expect(carrying.value).toBe(33.5)
    await correct(carrying.id, '4846')
    expect((await page()).meters[0]!.events).toEqual([])
    expect(await total()).toBe(4846)
  })

  test('where readings stand on the change it stays, unless somebody says otherwise', async () => {
    const kept = await replaced('31.5')
    await read('2026-10-05', '48')
    await settle({ decision: 'withdraw', readingId: kept.id, reason: 'misread' })
    expect((await page()).meters[0]!.events).toHaveLength(1)
    expect(await total()).toBeCloseTo(4826 + 48, 6)
    // It is carried by the next one now, and goes with that.
    const next = (await page()).meters[0]!.readings.find(({ tells }) => tells === 'change')!
    expect(next.value).toBe(48)
    await settle({ decision: 'withdraw', readingId: next.id, reason: 'misread' })
    expect((await page()).meters[0]!.events).toEqual([])
  })

  test('a settlement that would put later readings in doubt is refused: one doubt makes no others', async () => {
    const slip = await read('2026-09-28', '48.4')
    await read('2026-10-05', '4860')
    await read('2026-10-12', '4882')
    const problem = await problemIn(
      settle({
        decision: 'newMeter',
        readingId: slip.id,
        oldLastTyped: '',
        newFirstTyped: '48',
        day: '2026-09-28',
        time: '10:00',
        reason: '',
      }),
    )
    expect(problem.fields!.newFirstTyped).toContain('to the reading after it, 4\u00a0860.0')
    expect(await total()).toBe(4882)
  })
})

test('law: whatever is entered and told of it, taken back it leaves every derived figure as it was', async () => {
  // A high reading that somebody vouched for, and one in doubt because of it: a third may turn them round.
  await read('2026-09-24', '4852', { vouched: true })
  await read('2026-09-28', '4840')
  const before = await figures()
  type Told = { day: number; tenths: number; vouched: boolean; old: 'read' | 'estimate' | 'none' }
  const told = fc.record<Told>({
    day: fc.integer({ min: 20, max: 29 }),
    tenths: fc.oneof(
      fc.integer({ min: 0, max: 400 }),
      fc.integer({ min: 47_900, max: 49_500 }),
      fc.integer({ min: 48_410, max: 48_500 }),
    ),
    vouched: fc.boolean(),
    old: fc.constantFrom('read', 'estimate', 'none'),
  })
  let turnedRound = 0
  await fc.assert(
    fc.asyncProperty(told, async ({ day, tenths, vouched, old }) => {
      const on = `2026-09-${day}`
      const kept = await read(on, (tenths / 10).toFixed(1), { vouched, time: '14:00' })
      if (kept.status === 'doubted')
        // It may explain the reading or not; what does not is refused, and leaves nothing behind.
        await settle({
          decision: 'newMeter',
          readingId: kept.id,
          oldLast: old,
          oldLastTyped: old === 'read' ? '4853' : '',
          newFirstTyped: '0',
          day: '2026-09-29',
          time: '06:00',
          reason: '',
        }).catch(() => undefined)
      const after = await figures()
      if (after.statuses.some(([id, is]) => before.statuses.some(([was, then]) => was === id && then !== is)))
        turnedRound += 1
      await settle({ decision: 'withdraw', readingId: kept.id, reason: `undo ${kept.id}` })
      expect(await figures()).toEqual(before)
    }),
    // The first is sure to turn them round: two agree then, and the high one is outvoted.
    { numRuns: 40, examples: [[{ day: 29, tenths: 48_450, vouched: false, old: 'none' }]] },
  )
  expect(turnedRound).toBeGreaterThan(0)
}, 120_000)

describe('a new meter that shows hours already', () => {
  const tell = (readingId: string, more: object) =>
    settle({
      decision: 'newMeter',
      readingId,
      oldLastTyped: '',
      newFirstTyped: '0',
      day: '2026-09-30',
      time: '12:00',
      reason: '',
      ...more,
    } as SettlementInput)

  test('told with the time of its reading it is said by when it was fitted at the latest', async () => {
    const kept = await read('2026-09-30', '31.5')
    // 31.5 h before noon in London on 30 September: half past four in the morning of the 29th.
    expect((await problemIn(tell(kept.id, {}))).fields!.day).toContain(
      '29\u00a0Sep 2026 at 04:30 at the latest',
    )
    await tell(kept.id, { newFirstTyped: '31.5' })
    expect(await total()).toBe(4820)
  })

  test('the old one’s last is estimated from its use where nobody noted it, and marked so', async () => {
    const kept = await read('2026-09-30', '8')
    // 20 h a week; fitted six days after the last reading: about 17 h were still the old one's.
    await tell(kept.id, { oldLast: 'estimate', day: '2026-09-27' })
    const [event] = (await page()).meters[0]!.events
    expect(event).toMatchObject({ assumed: true, oldLast: expect.stringContaining('4\u00a083') })
    expect(await total()).toBeGreaterThan(4820 + 8 + 14)
    expect(await total()).toBeLessThan(4820 + 8 + 20)
  })

  test('a day and a minute are enough: within the minute of the last reading it was still the old one', async () => {
    const kept = await read('2026-09-30', '31.5')
    await tell(kept.id, { day: '2026-09-21', time: '12:00' })
    expect(await total()).toBeCloseTo(4820 + 31.5, 6)
  })
})

test('a machine that is laid up is judged by its standing', async () => {
  const spell = {
    id: uuid(),
    kind: 'layUp' as const,
    fromDay: '2026-09-22',
    toDay: null,
    hoursPerDay: null,
    what: 'no job',
  }
  const { id } = await page()
  await runAt('2026-09-22T09:00:00.000Z', () => saveSpell(coordinator, id, spell))
  // Three weeks at 20 h would be 60: while it stands they are unusual, and none at all is what is expected.
  expect(await read('2026-10-12', '4880')).toMatchObject({ status: 'doubted', verdict: { kind: 'high' } })
  expect(await read('2026-10-12', '4820', { time: '13:00' })).toMatchObject({ status: 'accepted' })
})

test('two readings that agree put the one in doubt that they contradict, and count', async () => {
  const wrong = await read('2026-09-24', '4852', { vouched: true })
  expect(wrong.status).toBe('accepted')
  expect((await read('2026-09-28', '4840')).status).toBe('doubted')
  // The second one decides it, and its answer says so.
  expect((await read('2026-10-01', '4849')).status).toBe('accepted')
  expect(await statuses()).toEqual(
    expect.arrayContaining([
      [4852, 'doubted'],
      [4840, 'accepted'],
      [4849, 'accepted'],
    ]),
  )
  expect(await total()).toBe(4849)
})

test('of two people at the same moment one is told of the other, and nothing of theirs is stored', async () => {
  const seenLast = (await page()).meters[0]!.readings[0]!.at
  const other = { id: uuid(), name: 'R. Thorne', role: 'technician' as const }
  await addPerson(coordinator, { ...other, signInName: 'thorne', password: 'a long enough one' })
  const at = (typed: string, as: Actor) =>
    runAt('2026-09-28T15:00:00.000Z', () =>
      recordReading(as, {
        id: uuid(),
        meterId,
        day: '2026-09-28',
        time: '12:00',
        typed,
        readBy: as.name,
        note: '',
        vouched: false,
        seenLast,
      }),
    )
  const ended = await Promise.allSettled([at('4840', coordinator), at('4841', other)])
  expect(ended.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
  expect(await statuses()).toHaveLength(weeks.length + 1)
})

test.each([
  ['not a number', { typed: 'a lot' }, 'typed', '“a lot” is not a number.'],
  ['too many decimals', { typed: '4840.25' }, 'typed', 'This meter shows one decimal.'],
  ['below zero', { typed: '-4' }, 'typed', 'A meter cannot show less than 0.'],
  ['over-long text', { readBy: 'x'.repeat(61) }, 'readBy', 'At most 60 characters; this has 61.'],
  ['a day to come', { day: '2026-10-15' }, 'day', 'This day is still to come.'],
  ['a time to come', { day: '2026-10-14', time: '23:00' }, 'time', 'This time is still to come.'],
  ['an impossible day', { day: '2026-02-30' }, 'day', 'There is no such day in the calendar.'],
  ['an unknown meter', { meterId: uuid() }, 'meterId', 'This meter is not known.'],
])('%s is refused beside its field', async (_what, wrong, field, message) => {
  const input = {
    id: uuid(),
    meterId,
    day: '2026-10-14',
    time: '08:00',
    typed: '4850',
    readBy: '',
    note: '',
    vouched: false,
    ...wrong,
  }
  const problem = await problemIn(runAt('2026-10-14T09:00:00.000Z', () => recordReading(coordinator, input)))
  expect(problem.fields).toEqual({ [field]: message })
  expect(await total()).toBe(4820)
})

test('a technician enters readings and may take back only their own; a viewer enters none', async () => {
  const theirs = await read('2026-09-28', '4840')
  const other = { ...technician, id: uuid() }
  expect(
    (await problemIn(settle({ decision: 'withdraw', readingId: theirs.id, reason: 'x' }, other))).kind,
  ).toBe('notAllowed')
  const own = await read('2026-09-29', '4843', { as: technician })
  await settle({ decision: 'withdraw', readingId: own.id, reason: 'wrong machine' }, technician)
  expect((await problemIn(read('2026-09-30', '4846', { as: { ...coordinator, role: 'viewer' } }))).kind).toBe(
    'notAllowed',
  )
})
