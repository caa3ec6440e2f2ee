import { readFileSync } from 'node:fs'
import { firstChecks, signSchema, earlyCheckSchema, symptomKeys, type Seen } from '@/core/inspection'
import { parsePumpModel } from '@/core/models'

const model = parsePumpModel(JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8')))
const seen = (symptom: Seen['symptom'], more: Partial<Seen> = {}): Seen => ({
  symptom,
  dripsPerMinute: null,
  flow: null,
  ...more,
})

test('pressure low: nozzle, water and unloader are looked at before a valve or a seal comes out', () => {
  const { checks, likely } = firstChecks(seen('pressureLow'), model)
  const at = (key: string) => checks.findIndex((check) => check.key === key)
  expect(likely.map((each) => each.name)).toEqual([
    'Nozzle',
    'Water supply and strainer',
    'Unloader',
    'Valves',
    'Seals',
  ])
  for (const cheap of ['tankLevel', 'strainer', 'nozzle', 'bypassLine'])
    expect(at(cheap)).toBeLessThan(at('unloaderFree'))
  expect(checks.slice(-2).map((check) => check.key)).toEqual(['valvesOut', 'manifoldOff'])
})

test.each(symptomKeys)(
  '%s: what opens something comes last, and nothing that can hurt goes without its caution',
  (key) => {
    const { checks } = firstChecks(seen(key), model)
    expect(checks.length).toBeGreaterThan(2)
    const rank = { look: 0, running: 1, opening: 2 }
    const order = checks.map((check) => rank[check.risk])
    expect(order).toEqual([...order].sort())
    for (const check of checks) if (check.risk !== 'look') expect(check.caution).not.toBe('')
  },
)

test('low flow on the nozzle’s curve puts the unloader first', () => {
  const flow = { nozzleSize: 5, bar: 150, litresPerMinute: 14, usualLitresPerMinute: 16 }
  const triage = firstChecks(seen('pressureLow', { flow }), model)
  expect(triage.likely[0]).toMatchObject({ name: 'Unloader' })
  expect(triage.flow?.words).toContain('by-pass line first')
})

test('the usual flow at too little pressure is the nozzle', () => {
  const flow = { nozzleSize: 5, bar: 150, litresPerMinute: 16, usualLitresPerMinute: 16 }
  const { likely } = firstChecks(seen('pressureLow', { flow }), model)
  expect(likely.map(({ name, weight }) => [name, weight]).slice(0, 2)).toEqual([
    ['Nozzle', 10],
    ['Water supply and strainer', 2],
  ])
})

test('known hard duty raises what it touches, and says so', () => {
  // Starved inlet touches valves and seals: 3 + 2 and 2 + 2, past the unloader's 4.
  const { likely } = firstChecks(seen('pressureLow'), model, ['starvedInlet'])
  expect(likely.map(({ name, weight }) => [name, weight])).toEqual([
    ['Nozzle', 6],
    ['Water supply and strainer', 5],
    ['Valves', 5],
    ['Unloader', 4],
    ['Seals', 4],
  ])
  expect(likely[2]?.why).toContain('starved or lifted inlet')
})

test('a suspect names its positions and the services that renew them', () => {
  const [seals] = firstChecks(seen('weep'), model).likely
  expect(seals?.positions).toEqual(['hpSeal@1', 'hpSeal@2', 'hpSeal@3', 'lpSeal@1', 'lpSeal@2', 'lpSeal@3'])
  expect(seals?.tasks.sort()).toEqual(['hpSeals', 'lpSeals'])
})

test.each([
  [null, 14, false],
  [2, 14, false],
  [5, 5, false],
  [29, 5, false],
  [30, 1, true],
])('%p drips a minute: look within %d days, stop: %p', (dripsPerMinute, withinDays, stop) => {
  const triage = firstChecks(seen('weep', { dripsPerMinute }), model)
  expect([triage.withinDays, triage.stop !== '']).toEqual([withinDays, stop])
})

describe('what is entered', () => {
  const sign = {
    id: '018f0000-0000-7000-8000-000000000001',
    machineId: null,
    assemblyId: '018f0000-0000-7000-8000-000000000002',
    symptom: 'weep',
    seenOn: '2026-10-14',
    words: 'wet under cylinder 2',
    dripsPerMinute: '12',
    flow: { nozzleSize: '', bar: '', litresPerMinute: '', usualLitresPerMinute: '' },
    task: 'hpSeals',
    positions: ['hpSeal@2'],
    by: '2026-10-19',
    sheetId: null,
  }
  test('blank flow figures mean that none was read', () => {
    const { value, error } = signSchema.validate(sign)
    expect(error).toBeUndefined()
    expect(value).toMatchObject({ dripsPerMinute: 12, flow: null })
  })
  test('half of the flow figures is refused in plain words', () => {
    const { error } = signSchema.validate({ ...sign, flow: { ...sign.flow, bar: '150' } })
    expect(error?.message).toContain('All four figures')
  })
  test.each([
    ['symptom', '', 'Choose what was seen.'],
    ['words', '', 'Say what was seen, in a few words.'],
    ['dripsPerMinute', '-3', 'Enter 0 to 600.'],
    ['dripsPerMinute', 'many', 'number'],
  ])('%s %p is refused', (field, value, says) => {
    expect(signSchema.validate({ ...sign, [field]: value }).error?.message).toContain(says)
  })
  test('an early check that found something says what', () => {
    const check = { id: sign.id, version: 1, result: 'found', words: '', symptom: '' }
    const { error } = earlyCheckSchema.validate(check, { abortEarly: false })
    expect([...new Set(error?.details.map((each) => each.message))]).toEqual([
      'Say what was found.',
      'Choose what was seen.',
    ])
    expect(earlyCheckSchema.validate({ ...check, result: 'good' }).error).toBeUndefined()
  })
})
