import { assemblySchema, machineSchema, moveSchema, nextNumber, placeSchema } from '@/core/fleet'
import { changesBetween } from '@/core/house'
import { fieldName, isWorthShowing, showValue } from '@/core/fleet'
import { mayDo, permissions, type Permission } from '@/core/access'
import { check } from '@/core/problem'
import { problemOf } from '@/core/problem'

function refused(work: () => unknown): Record<string, string> {
  try {
    work()
  } catch (error) {
    const problem = problemOf(error)
    if (problem?.kind === 'invalid') return problem.fields
  }
  throw new Error('Nothing was refused.')
}

const id = '0192c0de-0000-7000-8000-000000000001'
const assembly = {
  id,
  number: 'p-01',
  kind: 'pump',
  modelId: id,
  name: '',
  serial: '',
  usageScale: 'h',
  openingKind: 'known',
  openingUsage: '1 046,5',
  takenOverOn: '2026-06-01',
  note: '',
}

test('a pump is checked and cleaned: number in capitals, hours as a number', () => {
  expect(check(assemblySchema, assembly)).toMatchObject({ number: 'P-01', openingUsage: 1046.5 })
})

test('what was taken over decides which hours are asked for', () => {
  expect(refused(() => check(assemblySchema, { ...assembly, openingUsage: '' }))).toEqual({
    openingUsage: 'Enter the hours it had, or choose another answer.',
  })
  expect(check(assemblySchema, { ...assembly, openingKind: 'new', openingUsage: '300' })).toMatchObject({
    openingUsage: 0,
  })
  expect(check(assemblySchema, { ...assembly, openingKind: 'unknown', openingUsage: '' })).toMatchObject({
    openingUsage: 0,
  })
})

test('a pump has a model, an accessory a name', () => {
  expect(refused(() => check(assemblySchema, { ...assembly, modelId: '' }))).toEqual({
    modelId: 'Choose a pump model.',
  })
  expect(
    refused(() => check(assemblySchema, { ...assembly, kind: 'accessory', modelId: '', name: '' })),
  ).toEqual({
    name: 'Say what it is, such as “unloader” or “two-cylinder diesel”.',
  })
  expect(
    check(assemblySchema, { ...assembly, kind: 'accessory', modelId: '', name: 'unloader' }),
  ).toMatchObject({ modelId: null })
})

test('a place is a machine with its meter, or a shelf, and nothing of the other', () => {
  const fitted = {
    where: 'machine',
    machineId: id,
    meterId: id,
    slot: '',
    share: '80 %',
    shareBasis: 'measured',
  }
  expect(check(placeSchema, fitted)).toMatchObject({ share: 0.8 })
  expect(refused(() => check(placeSchema, { ...fitted, share: '0' }))).toEqual({
    share: 'Enter a share from 1 to 100 %.',
  })
  expect(refused(() => check(placeSchema, { where: 'shelf', yardId: '', bin: '' }))).toEqual({
    yardId: 'Choose a yard.',
  })
  const move = {
    id,
    assemblyId: id,
    version: 1,
    day: '2026-06-01',
    time: '25:00',
    reason: '',
    place: { ...fitted, machineId: '' },
  }
  expect(refused(() => check(moveSchema, move))).toEqual({
    time: 'Enter a time as 07:30.',
    'place.machineId': 'Choose a machine.',
  })
})

test.each([
  ['workingPressure', { value: '0.2', unit: 'bar' }, 'Enter a pressure between 1 and 7000 bar.'],
  ['workingPressure', { value: '200', unit: 'furlong' }, 'Choose a unit of pressure.'],
  ['hoseLength', { value: '-3', unit: 'm' }, 'Enter a length between 0.1 and 1000 m.'],
])('%s %p: %s', (field, value, message) => {
  const machine = {
    id,
    number: 'T-1',
    name: 'x',
    kind: 'van',
    yardId: id,
    storage: 'heated',
    drive: 'petrol',
  }
  expect(check(machineSchema, machine)).toMatchObject({ bypass: 'tank', workingPressure: null })
  expect(refused(() => check(machineSchema, { ...machine, [field]: value }))).toEqual({ [field]: message })
})

test('the next number follows the highest of its series', () => {
  expect(nextNumber('P', ['P-01', 'p-09', 'T-30', 'P-X'])).toBe('P-10')
  expect(nextNumber('P', [])).toBe('P-01')
  expect(nextNumber('T', ['T-099'])).toBe('T-100')
})

test('what changed between two versions, without bookkeeping and emptiness', () => {
  const before = {
    version: 1,
    bay: '4',
    note: '',
    flow: { si: 1, value: 1, unit: 'L/min' },
    passwordHash: 'a',
  }
  const after = {
    version: 2,
    bay: '6',
    note: null,
    flow: { si: 1, value: 1, unit: 'L/min' },
    passwordHash: 'b',
  }
  expect(changesBetween(before, after)).toEqual([{ field: 'bay', before: '4', after: '6' }])
})

test('stored values are said in words', () => {
  expect(showValue('storage', 'indoorsUnheated')).toBe('Indoors, unheated')
  expect(showValue('flow', { si: 1, value: 21, unit: 'L/min' })).toBe('21\u00a0L/min')
  expect(showValue('bay', '')).toBe('–')
  expect([fieldName('yardId'), isWorthShowing('yardId'), isWorthShowing('recordedById')]).toEqual([
    'Yard',
    true,
    false,
  ])
})

test('coordinators may do everything, technicians read meters, report signs, work sheets and count bins, viewers look', () => {
  const all = Object.keys(permissions) as Permission[]
  expect(all.filter((permission) => mayDo('coordinator', permission))).toEqual(all)
  expect(all.filter((permission) => mayDo('technician', permission))).toEqual([
    'readings.enter',
    'signs.report',
    'sheets.work',
    'stores.count',
  ])
  expect(all.filter((permission) => mayDo('viewer', permission))).toEqual([])
})
