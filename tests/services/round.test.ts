import { v7 as uuid } from 'uuid'
import type { ReadingInput } from '@/core/hours'
import { historyOf } from '@/core/round'
import { getMachine } from '@/services/fleet'
import { getRound, recordInRound, recordReplaced, skipInRound, undoInRound } from '@/services/round'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-12', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const reading = (typed: string, more: Partial<ReadingInput> = {}): ReadingInput => ({
  id: uuid(),
  meterId: shop.meterId,
  day: '2026-08-12',
  time: '15:00',
  typed,
  readBy: 'M. Osei',
  note: '',
  vouched: false,
  ...more,
})

test('the round knows who owes a reading and what it would be judged by', () =>
  now(async () => {
    const [row] = await getRound(shop.technician)
    expect(row).toMatchObject({ number: 'T-04', owes: true, last: { value: 1120, ageDays: 11 }, skipped: '' })
    expect(historyOf(row!).readings.map(({ value }) => value)).toEqual([1000, 1060, 1120])
    // 60 h in 29.8 days, then 60 h in 31 days: 14.1 and 13.5 h a week, one week across both.
    expect(row!.weeks.map((week) => week && Math.round(week * 10) / 10)).toEqual([
      14.1, 14.1, 14.1, 13.9, 13.5, 13.5, 13.5, 13.5,
    ])
  }))

test('a reading of the round says which due days it moved, and taking it back moves them again', () =>
  now(async () => {
    const saved = await recordInRound(
      shop.technician,
      reading('1200', { vouched: true, note: 'double shifts' }),
    )
    expect(saved.status).toBe('accepted')
    const seals = saved.moves.find((move) => move.service === 'Renew high-pressure seals')!
    expect(seals).toMatchObject({ machine: 'T-04', where: 'all cylinders', passed: false })
    const oil = saved.moves.find((move) => move.service === 'Renew low-pressure seals')!
    expect(oil.after! < oil.before!).toBe(true)
    await undoInRound(shop.technician, saved.id)
    const [row] = await getRound(shop.technician)
    expect(row).toMatchObject({ owes: true, last: { value: 1120 } })
  }))

test('a slip is kept in doubt and moves nothing', () =>
  now(async () => {
    const saved = await recordInRound(shop.technician, reading('11450'))
    expect(saved).toMatchObject({ status: 'doubted', moves: [], verdict: { kind: 'slip', suggestion: 1145 } })
    expect((await getRound(shop.technician))[0]).toMatchObject({ owes: true, doubts: 1 })
  }))

test('a replaced meter goes on from what the old one had; a reading that simply goes on is no new meter', () =>
  now(async () => {
    const input = { id: uuid(), meterId: shop.meterId, typed: '3.5', oldLastTyped: '1142.0', readBy: '' }
    expect(
      await problemIn(recordReplaced(shop.technician, { ...input, id: uuid(), typed: '1141' })),
    ).toMatchObject({ fields: { typed: expect.stringContaining('does not look like a new meter') } })
    const saved = await recordReplaced(shop.technician, input)
    expect(saved.status).toBe('accepted')
    const machine = await getMachine(shop.coordinator, 'T-04')
    expect(machine.meters[0]!.events.map((event) => event.kind)).toEqual(['change'])
    // 1 142 h on the old one, and the 3.5 h that the new one has counted since.
    expect(machine.meters[0]!.total).toBeCloseTo(1145.5)
    // Its answer was lost: asked again it is the same.
    expect(await recordReplaced(shop.technician, input)).toMatchObject({ id: input.id, status: 'accepted' })
    expect((await getMachine(shop.coordinator, 'T-04')).meters[0]!.events).toHaveLength(1)
  }))

test('a skipped meter tells why, for the day; a reason is asked for', () =>
  now(async () => {
    expect(
      await problemIn(skipInRound(shop.technician, { id: uuid(), meterId: shop.meterId, reason: '' })),
    ).toMatchObject({ fields: { reason: 'Say why it was not read.' } })
    expect(
      await problemIn(skipInRound(shop.viewer, { id: uuid(), meterId: shop.meterId, reason: 'x' })),
    ).toMatchObject({ kind: 'notAllowed' })
    await skipInRound(shop.technician, { id: uuid(), meterId: shop.meterId, reason: 'out on a job' })
    await skipInRound(shop.technician, { id: uuid(), meterId: shop.meterId, reason: 'crew has no phone' })
    expect((await getRound(shop.technician))[0]).toMatchObject({ skipped: 'crew has no phone', owes: true })
    await at('2026-08-13', async () => expect((await getRound(shop.technician))[0]!.skipped).toBe(''))
  }))

test('when somebody else was quicker the second is told who and what, and nothing is stored until they insist', () =>
  now(async () => {
    const seenLast = (await getRound(shop.technician))[0]!.last!.at
    await recordInRound(shop.technician, reading('1142.0'))
    const mine = reading('1143.0', { time: '14:50', readBy: 'H. Lindqvist', seenLast })
    const problem = await problemIn(recordInRound(shop.coordinator, mine))
    expect(problem).toMatchObject({ kind: 'conflict' })
    expect(problem.message).toContain('M. Osei has entered 1\u00a0142.0 at 15:00')
    const count = async () => (await getMachine(shop.coordinator, 'T-04')).meters[0]!.readings.length
    expect(await count()).toBe(4)
    const { seenLast: _seen, ...again } = mine
    await recordInRound(shop.coordinator, { ...again, typed: '1142.0', time: '15:00' })
    expect(await count()).toBe(5)
    // Whoever entered it themselves is not told of their own.
    await recordInRound(shop.coordinator, reading('1142.0', { seenLast }))
  }))
