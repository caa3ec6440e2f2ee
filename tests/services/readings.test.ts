import { v7 as uuid } from 'uuid'
import type { SettlementInput } from '@/core/hours'
import type { Actor } from '@/services/actor'
import { runAt } from '@/services/clock'
import { addMachine, getMachine, listMachines } from '@/services/fleet'
import { recordReading, settleReading } from '@/services/readings'
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
  expect((await problemIn(settle(bad))).fields!.newFirstTyped).toContain('would still not fit')
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
  expect(
    await problemIn(settle({ decision: 'withdraw', readingId: id, reason: 'wrong machine' })),
  ).toMatchObject({
    kind: 'conflict',
    message: 'This reading was corrected or withdrawn meanwhile. Look at the list again.',
  })
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
