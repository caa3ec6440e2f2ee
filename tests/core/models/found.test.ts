import { readFileSync } from 'node:fs'
import { foundTorque, modelForSize, parsePumpModel, pumpModelFaults, withTorque } from '@/core/models'

const read = (file: string) => JSON.parse(readFileSync(`src/demo/models/${file}.json`, 'utf8'))
const found = { value: 80, unit: 'N·m', source: 'manual page 12' }

test('a found torque is stated and verified; stages below it stay, told in its unit, so that no pass is skipped', () => {
  expect(foundTorque({ state: 'notGiven', source: '' }, found)).toEqual({
    state: 'stated',
    value: 80,
    unit: 'N·m',
    stages: [],
    source: 'manual page 12',
    verified: true,
  })
  const before = { state: 'stated' as const, value: 40, unit: 'N·m', source: '', verified: false }
  expect(foundTorque({ ...before, stages: [20, 40] }, found)).toMatchObject({ stages: [20, 80] })
  expect(foundTorque({ ...before, stages: [20, 90, 120] }, found)).toMatchObject({ stages: [20, 80] })
  // 20 ft-lb is 27.1 N·m.
  expect(foundTorque({ ...before, unit: 'ft-lb', stages: [20, 40] }, found)).toMatchObject({
    stages: [27.1, 80],
  })
})

test('it goes into a model of one size, which stays whole and is not changed itself', () => {
  const model = parsePumpModel(read('ostrel-p3-200'))
  const next = withTorque(model, null, 'valveCap', found)
  const cap = (one: typeof model) => one.fasteners.find(({ key }) => key === 'valveCap')!.torque
  expect(cap(next)).toMatchObject({ value: 80, source: 'manual page 12', verified: true })
  expect(cap(model)).toMatchObject({ verified: false })
  expect(pumpModelFaults(JSON.parse(JSON.stringify(next)))).toEqual({})
  expect(() => withTorque(model, null, 'noSuchBolt', found)).toThrow(/has no fastener “noSuchBolt”/)
})

test('in a family only the size that it was found for gets it, over whatever differed there', () => {
  const family = parsePumpModel(read('ostrel-p3-500'))
  const own = family.sizes[1]!
  own.differs = { ...own.differs, 'fasteners.topPlateBolt.torque.verified': false }
  const next = withTorque(family, 's700', 'topPlateBolt', { ...found, value: 120 })
  const torque = (size: string) =>
    modelForSize(next, size).fasteners.find(({ key }) => key === 'topPlateBolt')!.torque
  expect(torque('s700')).toMatchObject({ value: 120, stages: [55, 120], verified: true })
  expect(torque('s500')).toEqual(family.fasteners.find(({ key }) => key === 'topPlateBolt')!.torque)
  expect(pumpModelFaults(JSON.parse(JSON.stringify(next)))).toEqual({})
  expect(() => withTorque(family, 's900', 'topPlateBolt', found)).toThrow(/has no size “s900”/)
})
