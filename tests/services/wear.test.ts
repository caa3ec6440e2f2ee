import { readFileSync } from 'node:fs'
import { v7 as uuid } from 'uuid'
import type { RenewalInput } from '@/core/wear'
import type { Actor } from '@/services/house'
import { addAssembly, getAssembly } from '@/services/fleet'
import { runAt } from '@/services/house'
import { addMachine } from '@/services/fleet'
import { publishPumpModel } from '@/services/models'
import { getPumpModel, savePumpModel } from '@/services/models'
import { recordReading } from '@/services/hours'
import { recordRenewal, startClocks } from '@/services/wear'
import { getWear, listWear } from '@/services/wear'
import { plainMachine, plainMeter } from '../support/machine'
import { freshCompany, problemIn, removeDatabase } from '../support/database'

const text = readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8')
let coordinator: Actor
let yardId: string
let modelId: string
let pumpId: string
let meterId: string

const at = <T>(day: string, work: () => Promise<T>) => runAt(`${day}T15:00:00.000Z`, work)
const read = (day: string, typed: string) =>
  at(day, () =>
    recordReading(coordinator, {
      id: uuid(),
      meterId,
      day,
      time: '13:00',
      typed,
      readBy: '',
      note: '',
      vouched: true,
    }),
  )
const wear = (day: string) => at(day, () => getWear(coordinator, pumpId))
const line = async (day: string, task: string) =>
  (await wear(day))!.clocks
    .filter((clock) => clock.task === task)
    .map((clock) => [clock.where, Math.round(clock.hoursUsed), clock.state])

function renewal(day: string, more: Partial<RenewalInput> = {}): RenewalInput {
  return {
    id: uuid(),
    assemblyId: pumpId,
    task: 'hpSeals',
    positions: ['hpSeal@1', 'hpSeal@2', 'hpSeal@3'],
    day,
    runSince: 0,
    endReason: 'preventive',
    note: '',
    ...more,
  }
}

/** A pump of 500 h taken over on 1 January on a meter that shows 1 000; 10 h a day from then on. */
beforeEach(async () => {
  ;({ coordinator, yardId } = await freshCompany())
  modelId = uuid()
  pumpId = uuid()
  meterId = uuid()
  await savePumpModel(coordinator, { id: modelId, maker: 'Ostrel', name: 'P3-200', design: '', note: '' })
  await at('2026-01-01', () =>
    addMachine(
      coordinator,
      plainMachine('T-04', yardId, {
        meter: plainMeter({ id: meterId, firstTyped: '1000', firstDay: '2026-01-01' }),
        pump: {
          id: pumpId,
          number: 'P-04',
          modelId,
          serial: '',
          usageScale: 'h',
          openingKind: 'known',
          openingUsage: 500,
          takenOverOn: '2026-01-01',
          note: '',
          slot: '',
          share: 100,
          shareBasis: 'own',
        },
      }),
    ),
  )
  for (const [day, typed] of [
    ['2026-01-21', '1200'],
    ['2026-02-10', '1400'],
    ['2026-03-02', '1600'],
  ]) {
    await read(day!, typed!)
  }
})
afterAll(removeDatabase)

const publish = () => at('2026-01-02', () => publishPumpModel(coordinator, { text }))
const begin = (basis: 'pump' | 'takeOver') =>
  at('2026-01-02', () => startClocks(coordinator, { assemblyId: pumpId, basis }))

test('a pump has clocks once its model is published and they are started', async () => {
  expect(await wear('2026-03-02')).toBeNull()
  expect((await problemIn(begin('pump'))).message).toContain('no published data yet')
  expect((await publish()).published).toEqual([{ id: modelId, title: 'Ostrel P3-200', version: 1, pumps: 1 }])
  expect((await wear('2026-03-02'))!.started).toBe(false)
  await begin('pump')
  // 500 h when taken over and 600 h since: 1 100 of 800 h.
  expect(await line('2026-03-02', 'hpSeals')).toEqual([['all cylinders', 1100, 'overdue']])
  expect((await problemIn(begin('pump'))).message).toContain('run already')
})

test('counted from the take-over, and marked as an estimate', async () => {
  await publish()
  await begin('takeOver')
  expect(await line('2026-03-02', 'hpSeals')).toEqual([['all cylinders', 600, 'healthy']])
  expect((await wear('2026-03-02'))!.clocks.every((clock) => clock.assumed)).toBe(true)
})

test('renewing one cylinder restarts that life alone, and the grid tells how far the old one got', async () => {
  await publish()
  await begin('takeOver')
  await at('2026-02-10', () =>
    recordRenewal(
      coordinator,
      renewal('2026-02-10', { positions: ['hpSeal@3'], endReason: 'failed', note: 'weeping' }),
    ),
  )
  // 1 600 less what the meter showed at noon on 10 February, an hour before it was read: about 200.
  expect(await line('2026-03-02', 'hpSeals')).toEqual([
    ['cylinders 1 and 2', 600, 'healthy'],
    ['cylinder 3', 200, 'healthy'],
  ])
  const row = (await wear('2026-03-02'))!.grid
    .flatMap((zone) => zone.rows)
    .find((each) => each.key === 'hpSeal')!
  expect(
    row.cells.map((cell) => [
      cell.position,
      Math.round(cell.used),
      cell.was === null ? null : Math.round(cell.was),
    ]),
  ).toEqual([
    ['hpSeal@1', 600, null],
    ['hpSeal@2', 600, null],
    ['hpSeal@3', 200, 400],
  ])
  const [change] = (await getAssembly(coordinator, 'P-04')).changes
  expect(change).toMatchObject({ reason: 'weeping', by: 'H. Lindqvist' })
})

test('a part renewed before the pump was taken over carries the hours it had run since', async () => {
  await publish()
  await begin('pump')
  await at('2026-03-02', () => recordRenewal(coordinator, renewal('2025-11-15', { runSince: 120 })))
  expect(await line('2026-03-02', 'hpSeals')).toEqual([['all cylinders', 720, 'dueSoon']])
  const clock = (await wear('2026-03-02'))!.clocks.find((each) => each.task === 'hpSeals')!
  // 16 days of November, 31 + 31 + 28 of the months after, and 1: 107 days since 15 November.
  expect(clock.daysUsed).toBe(107)
})

test('what is left is estimated from the pump’s present use', async () => {
  await publish()
  await begin('takeOver')
  // 200 h left at 10 h a day: 20 days from 2 March, the middle a little later, with a band around it.
  const clock = (await wear('2026-03-02'))!.clocks.find((each) => each.task === 'hpSeals')!
  expect(clock.aboutDay).toBe('2026-03-23')
  expect(clock.band!.early < '2026-03-22').toBe(true)
  expect(clock.band!.late! > '2026-03-23').toBe(true)
})

test('a renewal sent twice is recorded once; one dated before a later renewal is refused', async () => {
  await publish()
  await begin('takeOver')
  const first = renewal('2026-02-10')
  await at('2026-02-11', () => recordRenewal(coordinator, first))
  await at('2026-02-11', () => recordRenewal(coordinator, first))
  expect(await line('2026-03-02', 'hpSeals')).toEqual([['all cylinders', 200, 'healthy']])
  const late = await problemIn(at('2026-03-02', () => recordRenewal(coordinator, renewal('2026-01-20'))))
  expect(late.fields!.day).toContain('was renewed after this day already')
})

test.each([
  [{ task: 'polish' }, 'task', 'Choose a service of this pump model that renews something.'],
  [{ positions: ['hpSeal@4'] }, 'positions', '“Renew high-pressure seals” has no position “hpSeal@4”.'],
  [{ positions: [] }, 'positions', 'Choose at least one position.'],
  [{ day: '2026-12-01' }, 'day', 'This day is still to come.'],
  [{ endReason: 'bored' as never }, 'endReason', 'Say why the old part came out.'],
])('a renewal with %j is refused beside its field', async (wrong, field, message) => {
  await publish()
  await begin('takeOver')
  const problem = await problemIn(
    at('2026-03-02', () => recordRenewal(coordinator, renewal('2026-02-10', wrong))),
  )
  expect(problem.fields).toEqual({ [field]: message })
  expect(await line('2026-03-02', 'hpSeals')).toEqual([['all cylinders', 600, 'healthy']])
})

test('model data that is broken is refused and nothing is published', async () => {
  const refused = async (data: string) =>
    (await problemIn(publishPumpModel(coordinator, { text: data }))).fields!.text!
  expect(await refused('{')).toContain('This is not JSON')
  expect(await refused(text.replace('"part": "hpSeal"', '"part": "gasket"'))).toContain(
    'positions.2.part: There is no “gasket” among the parts.',
  )
  expect((await getPumpModel(coordinator, modelId)).versions).toEqual([])
  const technician: Actor = { ...coordinator, role: 'technician' }
  expect((await problemIn(publishPumpModel(technician, { text }))).kind).toBe('notAllowed')
})

test('a new version is the next one; the pumps go over to it and the old one stays', async () => {
  await publish()
  await begin('takeOver')
  const tighter = text.replace('"hours": 800', '"hours": 500')
  expect(await publishPumpModel(coordinator, { text: tighter })).toMatchObject({
    published: [{ id: modelId, title: 'Ostrel P3-200', version: 2, pumps: 1 }],
  })
  expect(await line('2026-03-02', 'hpSeals')).toEqual([['all cylinders', 600, 'overdue']])
  expect((await getPumpModel(coordinator, modelId)).versions.map(({ version }) => version)).toEqual([2, 1])
})

test('a pump taken over new has its first interval, and a spare gets the newest version', async () => {
  await publish()
  const id = uuid()
  await at('2026-01-03', () =>
    addAssembly(coordinator, {
      id,
      number: 'P-30',
      kind: 'pump',
      modelId,
      name: '',
      serial: '',
      usageScale: 'h',
      openingKind: 'new',
      openingUsage: 0,
      takenOverOn: '2026-01-03',
      note: '',
      place: { where: 'shelf', yardId, bin: '' },
    }),
  )
  await at('2026-01-03', () => startClocks(coordinator, { assemblyId: id, basis: 'pump' }))
  const views = await at('2026-01-04', () => listWear(coordinator))
  const oil = views
    .find((view) => view.number === 'P-30')!
    .clocks.find((clock) => clock.task === 'oilChange')!
  expect(oil).toMatchObject({ hoursLimit: 50, hoursUsed: 0, assumed: false })
  // On a shelf it is not used: only the days tell, 365 from the day it came.
  expect(oil.aboutDay).toBe('2027-01-03')
})
