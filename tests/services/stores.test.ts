import { v7 as uuid } from 'uuid'
import type { PartForm } from '@/core/stores'
import {
  countPart,
  getPart,
  listBenchParts,
  listStock,
  receivePart,
  retirePart,
  returnPart,
  savePart,
} from '@/services/stores'
import { bookVisit, partAhead } from '@/services/plan'
import { problemIn, removeDatabase } from '../support/database'
import { at, workshop, type Workshop } from '../support/bench'

let shop: Workshop
const day = '2026-08-03'
const now = <T>(work: () => Promise<T>) => at(day, work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const form = (more: Partial<Record<keyof PartForm, unknown>> = {}): PartForm =>
  ({
    id: uuid(),
    number: 'V-3',
    name: 'Valve',
    makersNumber: '',
    unit: 'piece',
    packSize: 3,
    price: '18.00',
    leadDays: 21,
    minimum: '6',
    bin: 'H-02',
    fits: [{ modelId: shop.modelId, part: 'valve' }],
    note: '',
    ...more,
  }) as PartForm

const hpSeal = () => [{ modelId: shop.modelId, part: 'hpSeal' }]

const receipt = (partId: string, quantity: string, more = {}) => ({
  id: uuid(),
  partId,
  quantity: quantity as never,
  code: '',
  receivedOn: day,
  price: '' as never,
  expiresOn: null,
  note: '',
  ...more,
})

test('a part is added, received in lots and counted; the book follows and says why', () =>
  now(async () => {
    const part = form()
    await savePart(shop.coordinator, part)
    const first = receipt(part.id, '6')
    expect(await receivePart(shop.technician, first)).toEqual({ lot: 1 })
    expect(await receivePart(shop.technician, first)).toEqual({ lot: 1 })
    await receivePart(shop.technician, receipt(part.id, '3', { code: 'B12' }))
    expect(await getPart(shop.coordinator, 'V-3')).toMatchObject({ onHand: 9, below: false, lots: 2 })
    const count = {
      id: uuid(),
      partId: part.id,
      lots: [{ lotId: first.id, counted: '4' as never }],
      reason: 'year end',
    }
    expect(await countPart(shop.technician, count)).toEqual({ changed: 1 })
    await countPart(shop.technician, count)
    const page = await getPart(shop.coordinator, 'V-3')
    expect(page).toMatchObject({ onHand: 7, openPack: 1 })
    expect(page.movements.map(({ kind, quantity }) => [kind, quantity])).toEqual([
      ['count', -2],
      ['receipt', 3],
      ['receipt', 6],
    ])
    expect(page.history.map((event) => event.summary)[0]).toBe('V-3 Valve counted: \u22122 against the book')
    // The opened pack of lot 1 is to be used first.
    const [bench] = await listBenchParts(shop.technician)
    expect(bench!.lots.map((lot) => lot.label)).toEqual(['lot 1, 4 there, opened', 'lot 2, B12, 3 there'])
  }))

test('bad input is refused beside its field, and nothing is kept', () =>
  now(async () => {
    const part = form()
    await savePart(shop.coordinator, part)
    expect(await problemIn(savePart(shop.coordinator, form()))).toMatchObject({
      fields: { number: 'This number is taken by another part.' },
    })
    expect(await problemIn(savePart(shop.technician, form({ number: 'X' })))).toMatchObject({
      kind: 'notAllowed',
    })
    expect(await problemIn(receivePart(shop.technician, receipt(part.id, '1.5')))).toMatchObject({
      fields: { quantity: 'Pieces come whole.' },
    })
    expect(await problemIn(receivePart(shop.technician, receipt(part.id, '0')))).toMatchObject({
      fields: { quantity: 'Enter 0.001 or more.' },
    })
    expect(
      await problemIn(receivePart(shop.technician, receipt(part.id, '3', { receivedOn: '2026-09-01' }))),
    ).toMatchObject({ fields: { receivedOn: 'This day is still to come.' } })
    expect(
      await problemIn(receivePart(shop.technician, receipt(part.id, '3', { expiresOn: '2026-08-01' }))),
    ).toMatchObject({ fields: { expiresOn: expect.stringContaining('before it came in') } })
    expect(await problemIn(receivePart(shop.viewer, receipt(part.id, '3')))).toMatchObject({
      kind: 'notAllowed',
    })
    const lot = receipt(part.id, '3')
    await receivePart(shop.technician, lot)
    const counted = (value: string, lotId = lot.id) =>
      countPart(shop.technician, {
        id: uuid(),
        partId: part.id,
        lots: [{ lotId, counted: value as never }],
        reason: 'check',
      })
    expect(await problemIn(counted('-1'))).toMatchObject({
      fields: { 'lots.0.counted': 'A bin holds 0 or more.' },
    })
    expect(await problemIn(counted('1.5'))).toMatchObject({
      fields: { 'lots.0.counted': 'Pieces come whole.' },
    })
    expect(await problemIn(counted('1', uuid()))).toMatchObject({
      fields: { 'lots.0.counted': 'This lot is not of this part.' },
    })
    expect(await problemIn(counted(''))).toMatchObject({ fields: { lots: expect.any(String) } })
    expect((await getPart(shop.coordinator, 'V-3')).onHand).toBe(3)
  }))

test('two people editing one part: the second is told what the first changed', () =>
  now(async () => {
    const part = form()
    await savePart(shop.coordinator, part)
    await savePart(shop.coordinator, { ...part, version: 1, bin: 'H-03' })
    expect(await problemIn(savePart(shop.coordinator, { ...part, version: 1, leadDays: 10 }))).toMatchObject({
      kind: 'conflict',
      stale: { changed: ['bin'] },
    })
  }))

test('what visits need is dealt out by day; what would come too late is marked', () =>
  now(async () => {
    const part = form()
    await savePart(shop.coordinator, part)
    await receivePart(shop.coordinator, receipt(part.id, '4'))
    const book = (task: string, on: string) =>
      bookVisit(shop.coordinator, {
        id: uuid(),
        items: [
          {
            assemblyId: shop.pumpId,
            task,
            positions: [1, 2, 3].map((index) => `${task.slice(0, -1)}@${index}`),
          },
        ],
        day: on,
        startTime: '',
        leadId: shop.technician.id,
        note: '',
      })
    await book('outletValves', '2026-08-05')
    await book('inletValves', '2026-08-20')
    const [line] = await listStock(shop.coordinator)
    expect(line).toMatchObject({ needed: 6, missing: 2, tooLate: true, below: true })
    const page = await getPart(shop.coordinator, part.id)
    expect(
      page.visits.map(({ day: on, available, missing, arrives }) => [on, available, missing, arrives]),
    ).toEqual([
      ['2026-08-05', 3, 0, null],
      ['2026-08-20', 1, 2, '2026-08-24'],
    ])
  }))

test('a part with stock is not retired; counted out, it is, and comes back', () =>
  now(async () => {
    const part = form()
    await savePart(shop.coordinator, part)
    const lot = receipt(part.id, '3')
    await receivePart(shop.coordinator, lot)
    const retire = { id: part.id, version: 1, reason: 'model sold' }
    expect((await problemIn(retirePart(shop.coordinator, retire))).message).toBe(
      'There are 3 on hand. Count them out first.',
    )
    expect(await problemIn(savePart(shop.coordinator, { ...part, version: 1, unit: 'L' }))).toMatchObject({
      fields: { unit: expect.any(String) },
    })
    await countPart(shop.coordinator, {
      id: uuid(),
      partId: part.id,
      lots: [{ lotId: lot.id, counted: '0' as never }],
      reason: 'sold with the pump',
    })
    await retirePart(shop.coordinator, retire)
    expect(await listBenchParts(shop.coordinator)).toEqual([])
    expect(await problemIn(receivePart(shop.coordinator, receipt(part.id, '3')))).toMatchObject({
      kind: 'conflict',
    })
    await returnPart(shop.coordinator, { id: part.id, version: 2 })
    expect(await listBenchParts(shop.coordinator)).toHaveLength(1)
  }))

test('what is coming takes a part: a visit surely, a service past its limit surely, and it is ordered in time', () =>
  now(async () => {
    const part = form({ number: 'HP-1', name: 'HP seal', packSize: 1, minimum: '0', fits: hpSeal() })
    await savePart(shop.coordinator, part)
    await receivePart(shop.technician, receipt(part.id, '4'))
    // 820 h on seals of 800 h: all three cylinders are past their limit, and on no visit.
    const before = await partAhead(shop.viewer, part.id)
    const perSeal = before.uses.reduce((sum, use) => sum + use.quantity, 0) / 3
    expect(before.uses.every((use) => use.visitId === null && use.chance === 1)).toBe(true)
    expect(before.weeks).toHaveLength(27)
    expect(before.weeks[0]).toMatchObject({ day, median: 4 - 3 * perSeal, low: 4 - 3 * perSeal })
    // Booked for one cylinder a week later: that one is wanted then, the others still now.
    await bookVisit(shop.coordinator, {
      id: uuid(),
      items: [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: ['hpSeal@1'] }],
      day: '2026-08-10',
      startTime: '',
      leadId: shop.technician.id,
      note: '',
    })
    const booked = await partAhead(shop.viewer, part.id)
    expect(booked.uses.filter((use) => use.visitId !== null)).toMatchObject([
      { day: '2026-08-10', quantity: perSeal, chance: 1 },
    ])
    expect(booked.weeks.map(({ median }) => median).slice(0, 2)).toEqual([4 - 2 * perSeal, 4 - 3 * perSeal])
  }))

test('what nobody fits takes nothing and asks for no order; an unknown part is not found', () =>
  now(async () => {
    const part = form({ number: 'X-1', fits: [] })
    await savePart(shop.coordinator, part)
    // The least to have is wanted all the same: six are missing, which take 21 days.
    expect(await partAhead(shop.viewer, part.id)).toMatchObject({
      uses: [],
      advice: { orderBy: '2026-07-13', late: true, quantity: 6 },
    })
    expect((await problemIn(partAhead(shop.viewer, uuid()))).kind).toBe('notFound')
  }))
