import { v7 as uuid } from 'uuid'
import type { NewMachineInput } from '@/core/fleet'
import type { Actor } from '@/services/house'
import { addAssembly, getAssembly, listAssemblies, retireAssembly } from '@/services/fleet'
import { moveAssembly, undoMove } from '@/services/fleet'
import { runAt } from '@/services/house'
import {
  addMachine,
  getMachine,
  listChanges,
  listMachines,
  retireMachine,
  returnMachine,
  saveMachine,
} from '@/services/fleet'
import { savePumpModel } from '@/services/models'
import { recordReading } from '@/services/hours'
import { plainMachine } from '../support/machine'
import { freshCompany, problemIn, removeDatabase } from '../support/database'

let coordinator: Actor
let yardId: string
let modelId: string

beforeEach(async () => {
  ;({ coordinator, yardId } = await freshCompany())
  modelId = uuid()
  await savePumpModel(coordinator, {
    id: modelId,
    maker: 'Ostrel',
    name: 'P3-200',
    design: 'compact triplex',
    note: '',
  })
})
afterAll(removeDatabase)

const machine = (number: string, more: Partial<NewMachineInput> = {}) => plainMachine(number, yardId, more)

const pump = (number: string) => ({
  id: uuid(),
  number,
  modelId,
  serial: '20917',
  usageScale: 'h' as const,
  openingKind: 'known' as const,
  openingUsage: 500,
  takenOverOn: '2026-06-01',
  note: '',
  slot: 'main pump',
  share: 80,
  shareBasis: 'assumed' as const,
})

const read = (meterId: string, day: string, typed: string, vouched = false) =>
  recordReading(coordinator, {
    id: uuid(),
    meterId,
    day,
    time: '12:00',
    typed,
    readBy: '',
    note: '',
    vouched,
  })

const at = <T>(day: string, work: () => Promise<T>) => runAt(`${day}T15:00:00.000Z`, work)

test('a machine is added with its meter, its first reading and its pump, and all of it can be read back', async () => {
  const input = machine('t-04')
  await at('2026-06-10', () => addMachine(coordinator, { ...input, pump: pump('P-01') }))
  const page = await at('2026-06-10', () => getMachine(coordinator, 'T-04'))
  expect(page.number).toBe('T-04')
  expect(page.workingPressure).toEqual({ si: 2e7, value: 200, unit: 'bar' })
  expect(page.meters[0]!.total).toBe(100)
  expect(page.fitted.map(({ number, title, usage }) => ({ number, title, usage }))).toEqual([
    { number: 'P-01', title: 'Ostrel P3-200', usage: 500 },
  ])
  expect(page.changes.map((change) => change.summary)).toEqual([
    'P-01 Ostrel P3-200 taken over, fitted to T-04, main pump',
    'Engine hours read: 100.0\u00a0h',
    'Meter added: Engine hours',
    'T-04 silo trailer added',
  ])
})

test('a machine whose pump is refused is not added at all', async () => {
  const input = { ...machine('T-05'), pump: { ...pump('P-02'), modelId: uuid() } }
  expect(await problemIn(addMachine(coordinator, input))).toMatchObject({
    kind: 'invalid',
    fields: { 'pump.modelId': 'Choose a pump model from the list.' },
  })
  expect(await listMachines(coordinator)).toEqual([])
})

test('adding the same machine twice, as a double click would, adds one', async () => {
  const input = machine('T-06')
  await addMachine(coordinator, input)
  await addMachine(coordinator, input)
  expect(await listMachines(coordinator)).toHaveLength(1)
})

test('two machines cannot share a number, whatever the case', async () => {
  await addMachine(coordinator, machine('T-04'))
  expect(await problemIn(addMachine(coordinator, machine('t-04')))).toMatchObject({
    fields: { number: 'Another machine has this number.' },
  })
})

test('each wrong value is named beside its own field', async () => {
  const bad = machine('T 04!', {
    name: 'x'.repeat(81),
    yardId: uuid(),
    storage: 'barn' as never,
    workingPressure: { value: 'lots', unit: 'bar' } as never,
    inServiceSince: '2026-02-30',
  })
  const problem = await problemIn(addMachine(coordinator, bad))
  expect(problem.fields).toEqual({
    number: 'Use letters, digits and hyphens, such as T-04.',
    name: 'At most 80 characters; this has 81.',
    storage: 'Choose one of the values offered.',
    workingPressure: '“lots” is not a number.',
    inServiceSince: 'There is no such day in the calendar.',
  })
})

test('a stale edit is refused and tells who changed what', async () => {
  const { meter: _meter, pump: _pump, ...input } = machine('T-04')
  await addMachine(coordinator, machine('T-04', { id: input.id }))
  await saveMachine(coordinator, { ...input, version: 1, storage: 'heated' })
  const problem = await problemIn(saveMachine(coordinator, { ...input, version: 1, bay: '9' }))
  expect(problem).toMatchObject({
    kind: 'conflict',
    stale: { version: 2, by: 'H. Lindqvist', changed: ['storage'], current: { storage: 'heated', bay: '4' } },
  })
  expect((await getMachine(coordinator, 'T-04')).bay).toBe('4')
})

test('the audit trail of an edit holds the values before and after', async () => {
  const { meter: _meter, pump: _pump, ...input } = machine('T-04')
  await addMachine(coordinator, machine('T-04', { id: input.id }))
  await saveMachine(coordinator, { ...input, version: 1, storage: 'heated', bay: '7' })
  const [change] = (await getMachine(coordinator, 'T-04')).changes
  expect(change).toMatchObject({ by: 'H. Lindqvist', summary: 'T-04 changed' })
  expect(change!.changes).toEqual([
    { field: 'bay', before: '4', after: '7' },
    { field: 'storage', before: 'outdoors', after: 'heated' },
  ])
})

test('technicians and viewers cannot change the fleet', async () => {
  for (const role of ['technician', 'viewer'] as const) {
    const problem = await problemIn(addMachine({ ...coordinator, role }, machine('T-07')))
    expect(problem.kind).toBe('notAllowed')
  }
  expect(await listMachines(coordinator)).toEqual([])
})

test('a pump takes its hours and its record along when it moves, and gathers none on the shelf', async () => {
  const first = machine('T-01', { pump: pump('P-01') })
  const second = machine('T-02', { meter: { ...machine('x').meter, firstTyped: '1000' } })
  await at('2026-06-01', async () => {
    await addMachine(coordinator, first)
    await addMachine(coordinator, second)
  })
  await at('2026-06-11', () => read(first.meter.id, '2026-06-11', '150', true))
  const id = first.pump!.id
  const move = (day: string, version: number, place: Parameters<typeof moveAssembly>[1]['place']) =>
    at(day, () =>
      moveAssembly(coordinator, {
        id: uuid(),
        assemblyId: id,
        version,
        day,
        time: '12:00',
        place,
        reason: 'test',
      }),
    )
  await move('2026-06-11', 1, { where: 'shelf', yardId, bin: 'H-12' })
  await at('2026-06-21', () => read(first.meter.id, '2026-06-21', '200', true))
  await at('2026-06-21', () => read(second.meter.id, '2026-06-21', '1040', true))
  const place = {
    where: 'machine' as const,
    machineId: second.id,
    meterId: second.meter.id,
    slot: '',
    share: 100,
    shareBasis: 'own' as const,
  }
  await move('2026-06-21', 2, place)
  await at('2026-06-25', () => read(second.meter.id, '2026-06-25', '1065', true))

  // 500 h known, 0.8 x 50 h on T-01, nothing on the shelf, 25 h on T-02.
  const page = await at('2026-06-26', () => getAssembly(coordinator, 'P-01'))
  expect(page.usage).toBeCloseTo(500 + 0.8 * 50 + 25, 6)
  expect(page.stays.map((stay) => [stay.machineNumber ?? stay.yardName, Math.round(stay.used)])).toEqual([
    ['T-01', 40],
    ['Harbour yard', 0],
    ['T-02', 25],
  ])
  expect((await getMachine(coordinator, 'T-01')).past[0]).toMatchObject({ number: 'P-01' })

  await undoMove(coordinator, { assemblyId: id, fittingId: page.place.id })
  const back = await getAssembly(coordinator, 'P-01')
  expect(back.place.yardName).toBe('Harbour yard')
  expect(back.usage).toBeCloseTo(540, 6)
})

test('a pump counted from another machine’s meter is refused', async () => {
  const first = machine('T-01')
  const second = machine('T-02')
  await addMachine(coordinator, first)
  await addMachine(coordinator, second)
  const problem = await problemIn(
    addAssembly(coordinator, {
      ...pump('P-09'),
      kind: 'pump',
      name: '',
      place: {
        where: 'machine',
        machineId: first.id,
        meterId: second.meter.id,
        slot: '',
        share: 100,
        shareBasis: 'own',
      },
    } as never),
  )
  // The machine form's own fields do not belong in an assembly: say so rather than drop them.
  expect(Object.keys(problem.fields!)).toEqual(expect.arrayContaining(['slot', 'share', 'shareBasis']))
  const { slot: _slot, share: _share, shareBasis: _basis, ...plain } = pump('P-09')
  const place = {
    where: 'machine' as const,
    machineId: first.id,
    meterId: second.meter.id,
    slot: '',
    share: 100,
    shareBasis: 'own' as const,
  }
  expect(
    await problemIn(addAssembly(coordinator, { ...plain, kind: 'pump', name: '', place })),
  ).toMatchObject({
    fields: { 'place.meterId': 'Choose a meter of T-01.' },
  })
  expect(await listAssemblies(coordinator)).toEqual([])
})

test('a machine with a pump on it is not retired; without one it is, and can come back', async () => {
  const input = machine('T-01', { pump: pump('P-01') })
  await at('2026-06-10', () => addMachine(coordinator, input))
  const retire = () =>
    at('2026-06-12', () => retireMachine(coordinator, { id: input.id, version: 1, reason: 'sold' }))
  expect((await problemIn(retire())).message).toContain('still has P-01 on it')
  const shelf = { where: 'shelf' as const, yardId, bin: '' }
  await at('2026-06-11', () =>
    moveAssembly(coordinator, {
      id: uuid(),
      assemblyId: input.pump!.id,
      version: 1,
      day: '2026-06-11',
      time: '09:00',
      place: shelf,
      reason: '',
    }),
  )
  await retire()
  await retireAssembly(coordinator, { id: input.pump!.id, version: 2, reason: 'cracked manifold' })
  expect((await listMachines(coordinator))[0]!.retiredOn).toBe('2026-06-12')
  await returnMachine(coordinator, { id: input.id, version: 2 })
  expect((await listMachines(coordinator))[0]!.retiredOn).toBeNull()
})

test('all changes of one thing are told when somebody asks, and of that thing only', async () => {
  await addMachine(coordinator, machine('T-04'))
  await addMachine(coordinator, machine('T-05'))
  const page = await getMachine(coordinator, 'T-04')
  const told = await listChanges(coordinator, { machineId: page.id })
  expect(told).toEqual(page.changes)
  expect(told.length).toBeGreaterThan(0)
  expect(told.filter(({ summary }) => summary.includes('T-05'))).toEqual([])
  for (const about of [{}, { machineId: page.id, assemblyId: page.id }])
    expect(await problemIn(listChanges(coordinator, about as never))).toMatchObject({ kind: 'invalid' })
})
