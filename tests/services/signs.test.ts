import { v7 as uuid } from 'uuid'
import type { SignInput } from '@/core/inspection'
import { getAssembly } from '@/services/fleet'
import { checksOf, listOpenChecks, recordEarlyCheck } from '@/services/wear'
import { recordReading } from '@/services/hours'
import { getSigning, signSheet } from '@/services/sheets'
import { startUnplannedSheet } from '@/services/sheets'
import { listOpenSigns, reopenSign, reportSign, settleSign, signsOf } from '@/services/inspection'
import { getWear } from '@/services/wear'
import { at, Tablet, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const day = '2026-08-03'
const now = <T>(work: () => Promise<T>) => at(day, work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const weep = (more: Partial<Record<keyof SignInput, unknown>> = {}) =>
  ({
    id: uuid(),
    machineId: null,
    assemblyId: shop.pumpId,
    symptom: 'weep',
    seenOn: day,
    words: 'wet under cylinder 2',
    dripsPerMinute: '12',
    flow: null,
    task: 'lpSeals',
    positions: ['lpSeal@2'],
    by: '2026-08-08',
    sheetId: null,
    ...more,
  }) as SignInput

const clocksOf = async (task: string) =>
  (await getWear(shop.coordinator, shop.pumpId))!.clocks.filter((clock) => clock.task === task)

/** Works an unplanned sheet from end to end and signs it. */
async function renew(task: string, positions: string[], typed: string): Promise<string> {
  const { id: sheetId } = await startUnplannedSheet(shop.technician, {
    id: uuid(),
    trouble: 'weeping',
    items: [{ assemblyId: shop.pumpId, task, positions }],
  } as never)
  const tablet = new Tablet(shop.technician, sheetId)
  await tablet.send(tablet.entry('reading', { meterId: shop.meterId, typed, unreadable: '', vouched: true }))
  await tablet.tickAll()
  for (const { position } of (await tablet.state()).positions.filter((each) => each.state === 'open'))
    await tablet.send(tablet.entry('kept', { assemblyId: shop.pumpId, position, reason: 'looks sound' }))
  const view = await getSigning(shop.technician, sheetId)
  expect(view.notReady).toEqual([])
  await signSheet(shop.technician, {
    id: uuid(),
    sheetId,
    seenUpTo: view.upTo,
    note: '',
    ended: view.ending.map(({ assemblyId, position }) => ({
      assemblyId,
      position,
      endReason: 'failed' as const,
      seenFailingOn: null,
    })),
  })
  return sheetId
}

test('a weep brings one cylinder forward, says why, and stays until it is settled', () =>
  now(async () => {
    expect(await clocksOf('lpSeals')).toMatchObject([{ where: 'all cylinders', state: 'healthy', signs: [] }])
    const input = weep()
    await reportSign(shop.technician, input)
    await reportSign(shop.technician, input)
    const [sign, rest] = await clocksOf('lpSeals')
    expect(sign).toMatchObject({
      where: 'cylinder 2',
      state: 'dueSoon',
      firstBy: 'sign',
      aboutDay: '2026-08-08',
      lastResponsibleDay: '2026-08-06',
      signs: [
        {
          by: '2026-08-08',
          words: 'Weep or drip at a weep hole: wet under cylinder 2, 12 drips a minute, M. Osei, 3\u00a0Aug',
        },
      ],
    })
    expect(rest).toMatchObject({ where: 'cylinders 1 and 3', state: 'healthy', signs: [] })
    const [open] = await listOpenSigns(shop.viewer)
    expect(open).toMatchObject({
      machineNumber: 'T-04',
      pump: 'P-04',
      service: 'Renew low-pressure seals, cylinder 2',
      figures: '12 drips a minute',
      reportedBy: 'M. Osei',
    })
    expect(open?.triage.likely[0]?.name).toBe('Seals')

    const settle = { id: open!.id, version: 1, outcome: 'elsewhere' as const, words: 'a hose joint above it' }
    await settleSign(shop.coordinator, settle)
    expect(await clocksOf('lpSeals')).toMatchObject([{ where: 'all cylinders', state: 'healthy' }])
    expect(await problemIn(settleSign(shop.technician, settle))).toMatchObject({ kind: 'conflict' })
    const [settled] = await signsOf(shop.viewer, { assemblyId: shop.pumpId })
    expect(settled?.settled).toMatchObject({ outcome: 'elsewhere', by: 'H. Lindqvist', day })
    await reopenSign(shop.technician, { id: settled!.id, version: settled!.version })
    expect(await clocksOf('lpSeals')).toMatchObject([{ where: 'cylinder 2' }, { state: 'healthy' }])
    const { changes } = await getAssembly(shop.viewer, 'P-04')
    expect(changes.slice(0, 3).map((change) => change.summary.split(':')[0])).toEqual([
      'Opened again',
      'Settled',
      'Weep or drip at a weep hole',
    ])
  }))

test.each<[string, Partial<Record<keyof SignInput, unknown>>, string, string]>([
  ['a day to come', { seenOn: '2026-08-04' }, 'seenOn', 'This day is still to come.'],
  ['seen to before it was seen', { by: '2026-08-01' }, 'by', 'It cannot be seen to before it was seen.'],
  ['put off for years', { by: '2029-01-01' }, 'by', 'Within a year: what can wait longer is no sign.'],
  ['a service the pump does not have', { task: 'gearbox' }, 'task', 'P-04 has no such service.'],
  [
    'a position of another service',
    { positions: ['plunger@1'] },
    'positions',
    '“Renew low-pressure seals” has no position “plunger@1”.',
  ],
])('%s is refused beside its field and nothing is kept', (_what, more, field, message) =>
  now(async () => {
    expect(await problemIn(reportSign(shop.technician, weep(more)))).toMatchObject({
      kind: 'invalid',
      fields: { [field]: message },
    })
    expect(await listOpenSigns(shop.viewer)).toEqual([])
  }),
)

test('a sign of the machine alone brings nothing forward and has no pump', () =>
  now(async () => {
    await reportSign(
      shop.technician,
      weep({
        machineId: shop.machineId,
        assemblyId: null,
        symptom: 'hardStart',
        task: '',
        positions: [],
        dripsPerMinute: '',
      }),
    )
    expect(await listOpenSigns(shop.viewer)).toMatchObject([
      { machineNumber: 'T-04', pump: null, service: '' },
    ])
    expect(await signsOf(shop.viewer, { machineId: shop.machineId })).toHaveLength(1)
    expect(await clocksOf('lpSeals')).toMatchObject([{ signs: [] }])
  }))

test('whoever only looks may not report', () =>
  now(async () => {
    expect(await problemIn(reportSign(shop.viewer, weep()))).toMatchObject({ kind: 'notAllowed' })
  }))

test('the sheet that renews what a sign named settles it; another cylinder does not', () =>
  now(async () => {
    await reportSign(shop.technician, weep())
    await renew('lpSeals', ['lpSeal@1'], '1126')
    expect(await listOpenSigns(shop.viewer)).toHaveLength(1)
    await at('2026-08-04', () => renew('lpSeals', ['lpSeal@2'], '1130'))
    const [sign] = await signsOf(shop.viewer, { assemblyId: shop.pumpId })
    expect(sign?.settled).toMatchObject({ outcome: 'mended', by: 'M. Osei' })
    expect(sign?.settled?.words).toMatch(/^Done on sheet \d{4}$/)
  }))

test('a service sets an early check: due by its hours, closed with what it showed', async () => {
  const sheetId = await now(() => renew('lpSeals', ['lpSeal@2'], '1126'))
  const read = (on: string, typed: string) =>
    recordReading(shop.coordinator, {
      id: uuid(),
      meterId: shop.meterId,
      day: on,
      time: '12:00',
      typed,
      readBy: 'crew',
      note: '',
      vouched: true,
    })
  await now(async () => {
    const [check] = await listOpenChecks(shop.viewer)
    // About 2 h a day: 20 h are there in ten days.
    expect(check).toMatchObject({
      pump: 'P-04',
      machineNumber: 'T-04',
      afterHours: 20,
      worked: 0,
      result: null,
    })
    expect(check?.services).toBe('Renew low-pressure seals, cylinder 2')
    expect(check!.aboutDay! >= '2026-08-10' && check!.aboutDay! <= '2026-08-18').toBe(true)
  })
  await at('2026-08-14', async () => {
    await read('2026-08-14', '1151')
    const [check] = await listOpenChecks(shop.viewer)
    expect(check?.worked).toBe(25)
    expect(check!.aboutDay! < '2026-08-14' && check!.aboutDay! >= '2026-08-03').toBe(true)
    const found = {
      id: check!.id,
      version: check!.version,
      result: 'found' as const,
      words: 'weeps again',
      symptom: 'weep' as const,
    }
    await recordEarlyCheck(shop.technician, found)
    expect(await listOpenChecks(shop.viewer)).toEqual([])
    expect(await problemIn(recordEarlyCheck(shop.technician, { ...found, version: 2 }))).toMatchObject({
      kind: 'conflict',
    })
    const [sign] = await listOpenSigns(shop.viewer)
    expect(sign).toMatchObject({
      symptom: 'weep',
      words: 'weeps again',
      sheet: { id: sheetId },
      by: '2026-08-28',
    })
    expect(await checksOf(shop.viewer, shop.pumpId)).toMatchObject([
      { result: { kind: 'found', by: 'M. Osei' } },
    ])
  })
})

test('a service before the early check was due leaves only the new check open', () =>
  now(async () => {
    await renew('lpSeals', ['lpSeal@2'], '1126')
    const second = await at('2026-08-05', () => renew('lpSeals', ['lpSeal@3'], '1130'))
    expect(await listOpenChecks(shop.viewer)).toMatchObject([{ sheet: { id: second } }])
    // Nobody had looked at the first: it is not told as well.
    expect((await checksOf(shop.viewer, shop.pumpId)).map((check) => check.result?.kind)).toEqual([
      undefined,
      'dropped',
    ])
  }))
