import { v7 as uuid } from 'uuid'
import { clearMark, handOn, listMarks, snooze } from '@/services/marks'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-12', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const later = (more = {}) => ({
  id: uuid(),
  subject: `reading:${shop.machineId}`,
  label: 'T-04 reading',
  until: '2026-08-15',
  reason: 'out until Friday',
  ...more,
})

test('what is put off comes back by itself on its day, or is brought back before', async () => {
  const first = later()
  await now(async () => {
    await snooze(shop.coordinator, first)
    await snooze(shop.coordinator, first)
    expect(await listMarks(shop.viewer)).toMatchObject([
      { kind: 'snooze', until: '2026-08-15', reason: 'out until Friday', by: 'H. Lindqvist' },
    ])
    // Said again, the newer day holds.
    await snooze(shop.coordinator, later({ until: '2026-08-20', reason: 'longer' }))
    const marks = await listMarks(shop.viewer)
    expect(marks).toMatchObject([{ until: '2026-08-20', reason: 'longer' }])
    await clearMark(shop.coordinator, marks[0]!.id)
    expect(await listMarks(shop.viewer)).toEqual([])
    await snooze(shop.coordinator, later())
  })
  await at('2026-08-14', async () => expect(await listMarks(shop.viewer)).toHaveLength(1))
  await at('2026-08-15', async () => expect(await listMarks(shop.viewer)).toEqual([]))
})

test('a row is handed to one person who works here, beside being put off', () =>
  now(async () => {
    const hand = (toId: string) => ({
      id: uuid(),
      subject: `reading:${shop.machineId}`,
      label: 'T-04 reading',
      toId,
      note: 'ask crew 2',
    })
    expect(await problemIn(handOn(shop.coordinator, hand(shop.viewer.id)))).toMatchObject({
      fields: { toId: 'Choose somebody who works here.' },
    })
    await handOn(shop.coordinator, hand(shop.technician.id))
    await handOn(shop.coordinator, hand(shop.coordinator.id))
    await snooze(shop.coordinator, later())
    expect(await listMarks(shop.viewer)).toMatchObject([
      { kind: 'hand', to: 'H. Lindqvist', reason: 'ask crew 2' },
      { kind: 'snooze' },
    ])
  }))

test.each([
  ['a day that is gone', { until: '2026-08-12' }, 'until', 'Choose a day to come.'],
  ['a day far off', { until: '2026-12-01' }, 'until', 'At most 60 days at a time: it would be forgotten.'],
  ['no reason', { reason: '' }, 'reason', 'Say why it can wait.'],
])('%s is refused beside its field', (_what, more, field, message) =>
  now(async () => {
    expect(await problemIn(snooze(shop.coordinator, later(more)))).toMatchObject({
      fields: { [field]: message },
    })
    expect(await problemIn(snooze(shop.technician, later()))).toMatchObject({ kind: 'notAllowed' })
    expect(await listMarks(shop.viewer)).toEqual([])
  }),
)
