import { v7 as uuid } from 'uuid'
import { forget } from '@/db/house'
import { lives } from '@/db/wear'
import { checksOf, listOpenChecks } from '@/services/wear'
import { recordRenewal } from '@/services/wear'
import { correctSheet, findingsOf } from '@/services/sheets'
import { getSigning, signSheet } from '@/services/sheets'
import { listOpenSigns, reportSign } from '@/services/inspection'
import { countPart, getPart, listStock, receivePart, savePart } from '@/services/stores'
import { bookVisit, cancelVisit, getVisit, listOpenVisits, restoreVisit } from '@/services/plan'
import { getWear } from '@/services/wear'
import { saveLimit } from '@/services/wear'
import { at, bookedSheet, type Tablet, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const day = '2026-08-03'
const now = <T>(work: () => Promise<T>, time = '15:00') => at(day, work, time)
/** Two seals of a lot, as a technician notes them for the pump. */
const twoSeals = (partId: string, lotId: string | null) => ({
  ...{ partId, lotId, name: 'seal', unit: 'piece' as const, quantity: 2 },
  ...{ assemblyId: shop.pumpId, part: 'hpSeal' },
})

beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const read = (tablet: Tablet, typed = '1126.5') =>
  tablet.send(tablet.entry('reading', { meterId: shop.meterId, typed, unreadable: '', vouched: true }))

/** Works a booked sheet through and signs it; answers with the signing entry's id. */
async function signed(tablet: Tablet, why: 'preventive' | 'failed' = 'preventive'): Promise<string> {
  await tablet.tickAll()
  const { sheetId } = tablet
  const view = await getSigning(shop.technician, sheetId)
  const id = uuid()
  await signSheet(shop.technician, {
    id,
    sheetId,
    seenUpTo: view.upTo,
    ended: view.ending.map(({ assemblyId, position }) => ({
      assemblyId,
      position,
      endReason: why,
      seenFailingOn: why === 'failed' ? day : null,
    })),
    note: '',
  })
  return id
}

const renewal = (on: string, more: object = {}) => ({
  id: uuid(),
  assemblyId: shop.pumpId,
  task: 'hpSeals',
  positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'],
  day: on,
  runSince: 0,
  endReason: 'unknown' as const,
  note: '',
  ...more,
})

test('a renewal dated before the take-over never pushes aside a life that began after it', async () => {
  // Taken over on 1 June; cylinder 1 renewed in July.
  await at('2026-07-20', () =>
    recordRenewal(shop.coordinator, renewal('2026-07-15', { positions: ['hpSeal@1'] })),
  )
  const before = await lives.all({ assemblyId: shop.pumpId }, [['id', 'ASC']])
  const problem = await problemIn(
    now(() => recordRenewal(shop.coordinator, renewal('2026-05-10', { runSince: 90 }))),
  )
  expect(problem.fields!.day).toContain('was renewed after this day already')
  expect(await lives.all({ assemblyId: shop.pumpId }, [['id', 'ASC']])).toEqual(before)
  // The two that still have what they were taken over with take it.
  await now(() =>
    recordRenewal(
      shop.coordinator,
      renewal('2026-05-10', { runSince: 90, positions: ['hpSeal@2', 'hpSeal@3'] }),
    ),
  )
  const open = await lives.all({ assemblyId: shop.pumpId, status: 'active', endedAt: null })
  const carried = (position: string) => open.find((life) => life.position === position)!.carriedUsage
  expect(['hpSeal@1', 'hpSeal@2'].map(carried)).toEqual([0, 90])
})

test('signing presumes by the limit the pump goes by, not by its model’s', () =>
  now(async () => {
    // 826.5 of the model's 1 000 h: renewed besides, with life left, it would count as disturbed.
    const { sheetId, tablet } = await bookedSheet(shop)
    await read(tablet)
    await tablet.tickAll()
    const said = await tablet.send(
      tablet.entry('renewed', { assemblyId: shop.pumpId, position: 'lpSeal@1', reason: 'while it was open' }),
    )
    expect(said.refused).toEqual([])
    const line = async () => {
      const { ending } = await getSigning(shop.technician, sheetId)
      const { limit, early, state, presumed } = ending.find(({ position }) => position === 'lpSeal@1')!
      return { limit, early, state, presumed }
    }
    expect(await line()).toMatchObject({ limit: 1000, state: 'healthy', presumed: 'disturbed' })
    await saveLimit(shop.coordinator, {
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
    } as never)
    expect(await line()).toEqual({ limit: 900, early: 0.1, state: 'dueSoon', presumed: 'preventive' })
  }))

describe('a position that was not renewed after all', () => {
  const correct = (of: string, sheetId: string, about: object) =>
    correctSheet(shop.technician, {
      id: uuid(),
      sheetId,
      of,
      assemblyId: shop.pumpId,
      reason: 'wrong cylinder',
      ...about,
    } as never)
  const weep = (position: string) =>
    reportSign(shop.technician, {
      id: uuid(),
      machineId: null,
      assemblyId: shop.pumpId,
      symptom: 'weep',
      seenOn: day,
      words: 'wet',
      dripsPerMinute: 12,
      flow: null,
      task: 'hpSeals',
      positions: [position],
      by: '2026-08-10',
    } as never)

  test('opens the sign again that its sheet had settled, and takes back the early check once nothing is left', () =>
    now(async () => {
      for (const position of ['hpSeal@1', 'hpSeal@2']) await weep(position)
      const { sheetId, tablet } = await bookedSheet(shop, [
        { task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] },
      ])
      await read(tablet)
      const of = await signed(tablet)
      expect(await listOpenSigns(shop.viewer)).toEqual([])
      expect(await listOpenChecks(shop.viewer)).toHaveLength(1)
      await correct(of, sheetId, { about: 'notRenewed', position: 'hpSeal@1' })
      expect((await listOpenSigns(shop.viewer)).map(({ positions }) => positions)).toEqual([['hpSeal@1']])
      // Cylinder 2 was renewed: somebody still looks at it.
      expect(await listOpenChecks(shop.viewer)).toHaveLength(1)
      await correct(of, sheetId, { about: 'notRenewed', position: 'hpSeal@2' })
      expect(await listOpenSigns(shop.viewer)).toHaveLength(2)
      expect(await listOpenChecks(shop.viewer)).toEqual([])
      expect((await checksOf(shop.viewer, shop.pumpId)).map(({ result }) => result!.words)).toEqual([
        'nothing was renewed after all',
      ])
    }))

  test('gives the check back that its sheet had left behind', () =>
    now(async () => {
      const first = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])
      await read(first.tablet)
      await signed(first.tablet)
      const [check] = await listOpenChecks(shop.viewer)
      const second = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@2'] }])
      await read(second.tablet, '1126.6')
      const of = await signed(second.tablet)
      expect((await listOpenChecks(shop.viewer)).map(({ sheet }) => sheet.id)).toEqual([second.sheetId])
      await correct(of, second.sheetId, { about: 'notRenewed', position: 'hpSeal@2' })
      expect((await listOpenChecks(shop.viewer)).map(({ id }) => id)).toEqual([check!.id])
    }))

  test('corrected away from failed, it was not first seen failing on any day', () =>
    now(async () => {
      const { sheetId, tablet } = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])
      await read(tablet)
      const of = await signed(tablet, 'failed')
      const ended = () => lives.find({ endSheetId: sheetId, position: 'hpSeal@1' })
      expect(await ended()).toMatchObject({ endReason: 'failed', seenFailingOn: day })
      const about = { about: 'endReason', position: 'hpSeal@1' }
      await correct(of, sheetId, { ...about, endReason: 'preventive' })
      expect(await ended()).toMatchObject({ endReason: 'preventive', seenFailingOn: null })
      expect(await problemIn(correct(of, sheetId, { ...about, endReason: 'preventive' }))).toMatchObject({
        fields: { endReason: 'This is what the sheet says already.' },
      })
    }))

  test('a part that failed soon after a service answers its check, and no longer once it did not fail', () =>
    now(async () => {
      const first = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])
      await read(first.tablet)
      await signed(first.tablet)
      const [check] = await listOpenChecks(shop.viewer)
      // Two hours of work later.
      const second = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])
      await now(() => read(second.tablet, '1128.5'), '18:00')
      const of = await now(() => signed(second.tablet, 'failed'), '18:30')
      const told = async () =>
        (await checksOf(shop.viewer, shop.pumpId)).find(({ id }) => id === check!.id)!.result
      expect(await told()).toMatchObject({ kind: 'found', words: expect.stringContaining('2 h after') })
      const about = { about: 'endReason', position: 'hpSeal@1' }
      await correct(of, second.sheetId, { ...about, endReason: 'disturbed' })
      expect(await told()).toMatchObject({ kind: 'dropped' })
      await correct(of, second.sheetId, { ...about, endReason: 'failed' })
      expect(await told()).toMatchObject({ kind: 'found' })
    }))
})

async function seal(quantity: number, leadDays = 21) {
  const partId = uuid()
  await savePart(shop.coordinator, {
    id: partId,
    number: 'HP-20',
    name: 'High-pressure seal 20',
    makersNumber: '',
    unit: 'piece',
    packSize: 1,
    price: '12.40',
    leadDays,
    minimum: '0' as never,
    bin: 'H-09',
    fits: [{ modelId: shop.modelId, part: 'hpSeal' }],
    note: '',
  })
  const lotId = uuid()
  if (quantity > 0)
    await receivePart(shop.coordinator, {
      id: lotId,
      partId,
      quantity,
      code: '',
      receivedOn: day,
      price: null,
      expiresOn: null,
      note: '',
    })
  return { partId, lotId }
}

describe('parts noted on an open sheet', () => {
  const count = (partId: string, lotId: string, found: number) =>
    countPart(shop.technician, {
      id: uuid(),
      partId,
      lots: [{ lotId, counted: found }],
      reason: 'monthly count',
    } as never)

  test('have left the bin, and a bin that is counted meanwhile is not corrected twice', () =>
    now(async () => {
      const { partId, lotId } = await seal(6)
      const { tablet } = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] }])
      await read(tablet)
      const stock = async () => {
        const line = (await listStock(shop.viewer)).find(({ id }) => id === partId)!
        return [line.onHand, line.taken]
      }
      expect(await stock()).toEqual([6, 0])
      await tablet.send(tablet.entry('part', twoSeals(partId, lotId)))
      expect(await stock()).toEqual([4, 2])
      // Four lie there, as they should.
      await now(() => count(partId, lotId, 4), '15:10')
      expect(await now(stock, '15:11')).toEqual([4, 2])
      await now(() => signed(tablet), '15:20')
      expect(await now(stock, '15:21')).toEqual([4, 0])
      // Three found: one is lost, and that is all.
      await now(() => count(partId, lotId, 3), '15:30')
      expect(await now(stock, '15:31')).toEqual([3, 0])
    }))

  test('what a tablet tells after its bin was counted is taken once', async () => {
    const { partId, lotId, tablet } = await now(async () => {
      const kept = await seal(6)
      const sheet = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] }])
      await read(sheet.tablet)
      return { ...kept, ...sheet }
    })
    // Counted at 16:00: four, since two were taken at 15:30 on a tablet out of reach, which tells at 17:00.
    await now(() => count(partId, lotId, 4), '16:00')
    const use = {
      ...tablet.entry('part', twoSeals(partId, lotId)),
      deviceTime: '2026-08-03T07:30:00.000Z',
    }
    await now(() => tablet.send(use), '17:00')
    const onHand = async () => (await getPart(shop.viewer, partId)).onHand
    expect(await now(onHand, '17:01')).toBe(4)
    await now(() => signed(tablet), '17:10')
    expect(await now(onHand, '17:11')).toBe(4)
    const { movements } = await now(() => getPart(shop.viewer, partId), '17:12')
    expect(movements.map(({ kind, quantity }) => [kind, quantity])).toEqual(
      expect.arrayContaining([
        ['use', -2],
        ['correction', 2],
        ['count', -2],
      ]),
    )
  })

  test('a sheet that has taken its parts wants them no more from the shelf', () =>
    now(async () => {
      const { partId, lotId } = await seal(2)
      const { visitId, tablet } = await bookedSheet(shop, [
        { task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] },
      ])
      await read(tablet)
      const needed = async () => {
        const line = (await listStock(shop.viewer)).find(({ id }) => id === partId)!
        return [line.onHand, line.needed, line.missing]
      }
      expect(await needed()).toEqual([2, 2, 0])
      await tablet.send(tablet.entry('part', twoSeals(partId, lotId)))
      expect(await needed()).toEqual([0, 0, 0])
      expect((await getVisit(shop.viewer, visitId)).state).toBe('inWork')
    }))
})

test('a service waits for its parts where earlier visits take what is there', () =>
  now(async () => {
    await seal(3)
    const lead = async () =>
      (await getWear(shop.viewer, shop.pumpId))!.clocks.find(
        ({ task, positions }) => task === 'hpSeals' && positions.includes('hpSeal@3'),
      )!.leadTime
    // Three there for three cylinders: nothing to wait for.
    expect(await lead()).toEqual({ days: 0, parts: [] })
    await bookVisit(shop.coordinator, {
      id: uuid(),
      items: [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: ['hpSeal@1', 'hpSeal@2'] }],
      day: '2026-08-04',
      startTime: '',
      leadId: shop.technician.id,
      note: '',
    })
    // The clock still names all three; its parts are reserved by the visit that has two of them.
    expect(await lead()).toEqual({ days: 0, parts: [] })
    const [visit] = await listOpenVisits(shop.viewer)
    expect(
      (await getVisit(shop.viewer, visit!.id)).parts.find(({ part }) => part === 'hpSeal')!.stock,
    ).toMatchObject({
      available: 2,
      missing: 0,
    })
  }))

test('only a visit that was cancelled is booked again', () =>
  now(async () => {
    const id = uuid()
    await bookVisit(shop.coordinator, {
      id,
      items: [{ assemblyId: shop.pumpId, task: 'hpSeals', positions: ['hpSeal@1'] }],
      day: '2026-08-04',
      startTime: '',
      leadId: shop.technician.id,
      note: '',
    })
    expect(await problemIn(restoreVisit(shop.coordinator, { id, version: 1 }))).toMatchObject({
      kind: 'conflict',
      message: expect.stringContaining('is not cancelled'),
    })
    await cancelVisit(shop.coordinator, { id, version: 1, reason: 'job moved' })
    await restoreVisit(shop.coordinator, { id, version: 2 })
    expect((await listOpenVisits(shop.viewer)).map(({ state }) => state)).toEqual(['booked'])
  }))

test('what was found on a pump is kept of its sheets, and told anew after a correction and beside another sheet', () =>
  now(async () => {
    const found = () => findingsOf(shop.coordinator, { id: shop.pumpId, number: 'P-04' }, [])
    /** What stands, which must be what is told where nothing is kept. */
    const told = async () => {
      const kept = await found()
      forget()
      expect(kept).toEqual(await found())
      return kept.map(({ kind, what, by, sheet }) => [kind, what, by, sheet?.number])
    }
    expect(await told()).toEqual([])
    const { sheetId, tablet } = await bookedSheet(shop, [{ task: 'hpSeals', positions: ['hpSeal@1'] }])
    await read(tablet)
    await tablet.send(tablet.entry('remark', { text: 'scored on the drive side' }))
    // An open sheet tells nothing yet.
    expect(await told()).toEqual([])
    const of = await signed(tablet, 'failed')
    const first = await told()
    expect(first).toContainEqual(['remark', 'scored on the drive side', 'M. Osei', '0001'])
    expect(first.filter(([kind]) => kind === 'failed')).toEqual([
      ['failed', expect.stringMatching(/^Failed: .*seal/i), 'M. Osei', '0001'],
    ])
    await correctSheet(shop.technician, {
      ...{ id: uuid(), sheetId, of, assemblyId: shop.pumpId, reason: 'it was renewed in time' },
      ...{ about: 'endReason', position: 'hpSeal@1', endReason: 'preventive' },
    } as never)
    expect((await told()).filter(([kind]) => kind === 'failed')).toEqual([])
    expect(await told()).toContainEqual(['remark', 'scored on the drive side', 'M. Osei', '0001'])
  }))
