import { v7 as uuid } from 'uuid'
import { clearMark, handOn, listMarks, snooze } from '@/services/plan'
import { recordReading } from '@/services/hours'
import { reportSign } from '@/services/inspection'
import { getToday } from '@/services/today'
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

describe('a service that is put off', () => {
  /** Its row as Today shows it, on some cylinders. */
  const rowOf = async (where: string) => {
    for (const row of (await getToday(shop.viewer)).rows) {
      const service =
        row.kind === 'bundle'
          ? row.bundle.services.find(
              ({ clock, standing }) => standing && clock.task === 'hpSeals' && clock.where === where,
            )
          : undefined
      if (service) return { ...service.standing!, cameBack: row.kind === 'bundle' ? row.cameBack : null }
    }
    return undefined
  }
  const putOff = async (where: string) => {
    const { subject, label, about } = (await rowOf(where))!
    await snooze(shop.coordinator, {
      ...{ id: uuid(), subject, label, about },
      until: '2026-09-01',
      reason: 'hull job first',
    })
  }
  const weep = (positions: string[]) =>
    reportSign(shop.technician, {
      id: uuid(),
      machineId: null,
      assemblyId: shop.pumpId,
      symptom: 'weep',
      seenOn: '2026-08-12',
      words: 'wet under it',
      dripsPerMinute: 12,
      flow: null,
      task: 'hpSeals',
      positions,
      by: '2026-08-20',
    } as never)

  test('comes back by itself for a new sign on one cylinder, and says so; the others stay away', () =>
    now(async () => {
      await putOff('all cylinders')
      expect(await rowOf('all cylinders')).toBeUndefined()
      await weep(['hpSeal@1'])
      expect(await rowOf('cylinder 1')).toMatchObject({
        cameBack: { because: 'new', until: '2026-09-01', by: 'H. Lindqvist', reason: 'hull job first' },
      })
      expect(await rowOf('cylinders 2 and 3')).toBeUndefined()
      // Put off by itself it is gone again, and the other two still are.
      await putOff('cylinder 1')
      expect(await rowOf('cylinder 1')).toBeUndefined()
      expect(await rowOf('cylinders 2 and 3')).toBeUndefined()
      expect((await getToday(shop.viewer)).marks).toHaveLength(2)
      // A second sign on it brings it back again.
      await weep(['hpSeal@1'])
      expect((await rowOf('cylinder 1'))?.cameBack?.because).toBe('new')
    }))

  test('comes back when it stands worse than when it was put off', async () => {
    const before = await at('2026-08-12', async () => {
      const row = (await rowOf('all cylinders'))!
      await putOff('all cylinders')
      return row.about.severity
    })
    // A life ends by its days as well: far enough on, it is overdue.
    await at('2026-08-31', async () => expect(await rowOf('all cylinders')).toBeUndefined())
    expect(before).toBeGreaterThan(0)
    await at('2026-08-20', async () => {
      await recordReading(shop.coordinator, {
        id: uuid(),
        meterId: shop.meterId,
        day: '2026-08-20',
        time: '12:00',
        typed: '1250',
        readBy: '',
        note: '',
        vouched: true,
      })
      expect((await rowOf('all cylinders'))?.cameBack?.because).toBe('worse')
    })
  })
})
