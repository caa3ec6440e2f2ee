import { v7 as uuid } from 'uuid'
import type { DutiesInput, LimitInput } from '@/core/wear'
import { getAssembly } from '@/services/fleet'
import { saveCompany, getCompany } from '@/services/house'
import type { PartForm } from '@/core/stores'
import { receivePart, savePart } from '@/services/stores'
import { getWear } from '@/services/wear'
import { clearLimit, previewDuties, previewLimit, rulesOf, saveDuties, saveLimit } from '@/services/wear'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-12', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const limit = (more: Partial<Record<keyof LimitInput, unknown>> = {}) =>
  ({
    id: uuid(),
    assemblyId: shop.pumpId,
    task: 'lpSeals',
    seen: '',
    hours: '900',
    days: '',
    firstHours: '',
    firstDays: '',
    early: '10 %',
    late: 5,
    reason: 'sand in the water',
    ...more,
  }) as LimitInput

const duties = (more: Partial<DutiesInput> = {}): DutiesInput => ({
  assemblyId: shop.pumpId,
  seen: [],
  duties: [{ id: uuid(), key: 'hotInlet', factor: 70, reason: '68 °C at the inlet' }],
  ...more,
})

const clockOf = async (task: string) =>
  (await getWear(shop.coordinator, shop.pumpId))!.clocks.find((clock) => clock.task === task)!

test('a limit shows what it moves before it is saved, then holds, and goes back to the model', () =>
  now(async () => {
    const before = await clockOf('lpSeals')
    expect(before).toMatchObject({ hoursLimit: 1000, hoursUsed: 820, state: 'healthy', overrideReason: '' })
    const moves = await previewLimit(shop.coordinator, limit())
    expect(moves).toEqual([
      {
        service: 'Renew low-pressure seals',
        where: 'all cylinders',
        before: expect.objectContaining({ hoursLimit: 1000, daysLimit: 1095, state: 'healthy' }),
        after: expect.objectContaining({ hoursLimit: 900, daysLimit: null, state: 'dueSoon' }),
      },
    ])
    expect(await clockOf('lpSeals')).toEqual(before)
    const input = limit()
    await saveLimit(shop.coordinator, input)
    await saveLimit(shop.coordinator, input)
    expect(await clockOf('lpSeals')).toMatchObject({
      hoursLimit: 900,
      state: 'dueSoon',
      late: 0.05,
      overrideReason: 'sand in the water',
    })
    // The other services go by the model as before.
    expect(await clockOf('hpSeals')).toMatchObject({ hoursLimit: 800 })
    const { overrides } = await rulesOf(shop.viewer, shop.pumpId)
    expect(overrides).toMatchObject([{ task: 'lpSeals', by: 'H. Lindqvist', day: '2026-08-12' }])
    const { changes } = await getAssembly(shop.viewer, 'P-04')
    expect(changes[0]).toMatchObject({
      summary: 'P-04: renew low-pressure seals every 900 h',
      reason: 'sand in the water',
    })
    await clearLimit(shop.coordinator, { assemblyId: shop.pumpId, task: 'lpSeals', seen: overrides[0]!.id })
    expect(await clockOf('lpSeals')).toMatchObject({ hoursLimit: 1000, overrideReason: '' })
  }))

test.each<[string, Partial<Record<keyof LimitInput, unknown>>, string, string]>([
  ['a limit of zero', { hours: '0' }, 'hours', 'A limit is more than 0; leave it blank where there is none.'],
  ['no limit at all', { hours: '' }, 'days', 'Enter hours, days or both.'],
  ['a tolerance above one', { early: '120' }, 'early', 'Enter a share of the limit from 0 to 90 %.'],
  ['no reason', { reason: '' }, 'reason', 'Say why this pump goes by another limit.'],
  ['a service it does not have', { task: 'gearbox' }, 'task', 'Choose a service of this pump model.'],
])('%s is refused beside its field, in the preview as in the saving', (_what, more, field, message) =>
  now(async () => {
    for (const send of [previewLimit, saveLimit])
      expect(await problemIn(send(shop.coordinator, limit(more)))).toMatchObject({
        fields: { [field]: message },
      })
    expect((await rulesOf(shop.coordinator, shop.pumpId)).overrides).toEqual([])
  }),
)

test('an interval changed by two people: the second is told what the first made of it', () =>
  now(async () => {
    await saveLimit(shop.coordinator, limit())
    const problem = await problemIn(saveLimit(shop.coordinator, limit({ hours: 700 })))
    expect(problem).toMatchObject({ kind: 'conflict' })
    expect(problem.message).toContain(
      'H. Lindqvist changed this limit while you were editing: it is 900 h now',
    )
    expect(await clockOf('lpSeals')).toMatchObject({ hoursLimit: 900 })
    expect(await problemIn(saveLimit(shop.technician, limit()))).toMatchObject({ kind: 'notAllowed' })
  }))

test('hard duty shortens the hours of what it touches, shown first, and is stale when somebody was quicker', () =>
  now(async () => {
    const moves = await previewDuties(shop.coordinator, duties())
    expect(moves.map(({ service, after }) => [service, after.hoursLimit])).toEqual(
      expect.arrayContaining([
        ['Renew high-pressure seals', 560],
        ['Renew low-pressure seals', 700],
        ['Renew outlet valves', 840],
      ]),
    )
    expect(moves.map(({ service }) => service)).not.toContain('Change crankcase oil')
    await saveDuties(shop.coordinator, duties())
    expect(await clockOf('hpSeals')).toMatchObject({
      hoursLimit: 560,
      statedHours: 800,
      factor: 0.7,
      daysLimit: 1095,
      duties: [{ key: 'hotInlet', name: 'Hot inlet water', factor: 0.7, reason: '68 °C at the inlet' }],
      state: 'overdue',
    })
    expect(await problemIn(saveDuties(shop.coordinator, duties()))).toMatchObject({ kind: 'conflict' })
    const { duties: kept } = await rulesOf(shop.coordinator, shop.pumpId)
    await saveDuties(shop.coordinator, duties({ seen: kept.map(({ id }) => id), duties: [] }))
    expect(await clockOf('hpSeals')).toMatchObject({ hoursLimit: 800, factor: 1 })
    const refused = duties({ duties: [{ id: uuid(), key: 'hotInlet', factor: 20, reason: '' }] })
    expect(await problemIn(saveDuties(shop.coordinator, refused))).toMatchObject({
      fields: {
        'duties.0.factor': 'Enter what is left of the limit, from 40 to 100 %.',
        'duties.0.reason': 'Say where it was seen or measured.',
      },
    })
  }))

test('the last responsible day allows for parts that are missing and for the crew’s notice', () =>
  now(async () => {
    const plain = await clockOf('lpSeals')
    expect(plain.leadTime).toEqual({ days: 0, parts: [] })
    const days = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 86_400_000
    expect(days(plain.lastResponsibleDay!, plain.band!.early)).toBe(2)
    const partId = uuid()
    await savePart(shop.coordinator, {
      id: partId,
      number: 'LP-20',
      name: 'Low-pressure seal',
      makersNumber: '',
      unit: 'piece',
      packSize: 1,
      price: '',
      leadDays: 21,
      minimum: '0',
      bin: '',
      fits: [{ modelId: shop.modelId, part: 'lpSeal' }],
      note: '',
    } as unknown as PartForm)
    const missing = await clockOf('lpSeals')
    expect(missing.leadTime).toEqual({ days: 21, parts: ['LP-20 Low-pressure seal'] })
    expect(days(missing.lastResponsibleDay!, missing.band!.early)).toBe(23)
    await receivePart(shop.coordinator, {
      id: uuid(),
      partId,
      quantity: '3' as never,
      code: '',
      receivedOn: '2026-08-12',
      price: '' as never,
      expiresOn: null,
      note: '',
    })
    expect((await clockOf('lpSeals')).leadTime.days).toBe(0)
    const { id: _id, ...company } = await getCompany(shop.coordinator)
    await saveCompany(shop.coordinator, { ...company, noticeDays: 5 })
    const noticed = await clockOf('lpSeals')
    expect(days(noticed.lastResponsibleDay!, noticed.band!.early)).toBe(5)
  }))
