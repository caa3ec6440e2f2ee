import { readFileSync } from 'node:fs'
import { allPositions, parsePumpModel, positionName, pumpModelFaults, splitInstance } from '@/core/models'

type Json = Record<string, any> // eslint-disable-line @typescript-eslint/no-explicit-any -- broken on purpose below
const data = (): Json => JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8'))

test('the compact triplex is read, with its defaults filled in', () => {
  const model = parsePumpModel(data())
  // Six positions on each of three cylinders, the oil and the inlet filter.
  expect(allPositions(model)).toHaveLength(8 * 3 + 2)
  expect(positionName(model, 'hpSeal@2')).toBe('High-pressure seal, cylinder 2')
  expect(positionName(model, 'oil')).toBe('Crankcase oil')
  expect(splitInstance('hpSeal@2')).toEqual({ key: 'hpSeal', index: 2 })
  expect(model.tasks[0]!.tolerance).toEqual({ early: 0.1, late: 0.1 })
  expect(model.tasks.find((task) => task.key === 'oilChange')!.limit).toEqual({
    hours: 400,
    days: 365,
    firstHours: 50,
    firstDays: null,
  })
})

test('what was read can be written and read again', () => {
  const model = parsePumpModel(data())
  expect(parsePumpModel(JSON.parse(JSON.stringify(model)))).toEqual(model)
})

const broken: [what: string, breakIt: (model: Json) => void, faults: Record<string, string>][] = [
  [
    'a dangling part',
    (model) => (model.positions[2].part = 'gasket'),
    { 'positions.2.part': 'There is no “gasket” among the parts.' },
  ],
  [
    'a dangling node',
    (model) => (model.tasks[0].at = 'lid'),
    { 'tasks.0.at': 'There is no “lid” among the access nodes.' },
  ],
  [
    'a dangling tool in a step',
    (model) => (model.tasks[0].steps[0].tools = ['crowbar']),
    { 'tasks.0.steps.0.tools.0': 'There is no “crowbar” among the tools.' },
  ],
  [
    'a circle in the way in',
    (model) => (model.access[3].parent = 'plungerOut'),
    {
      'access.3.parent': 'The way in goes round in a circle: manifold, plungerOut, manifold.',
    },
  ],
  [
    'a key twice',
    (model) => model.tools.push({ key: 'hexKey', name: 'x' }),
    { 'tools.16.key': '“hexKey” stands here twice.' },
  ],
  [
    'no limit',
    (model) => (model.tasks[0].limit = {}),
    { 'tasks.0.limit': 'Give a limit in hours, in days, or both.' },
  ],
  [
    'a position that does not repeat as its node does',
    (model) => (model.tasks[2].positions = ['oil']),
    {
      'tasks.2.positions.0':
        '“Seal stack out” opens for one cylinder at a time, but this position does not repeat by it.',
    },
  ],
  [
    'stages that do not end at the torque',
    (model) => (model.fasteners[0].torque.stages = [20, 35]),
    { 'fasteners.0.torque.stages': 'The stages rise and end at the stated value.' },
  ],
  [
    'a stage that the fastener does not have',
    (model) => (model.access[3].close.at(-1).stage = 3),
    { 'access.3.close.13.stage': 'Its fastener has no such stage.' },
  ],
  [
    'a bolt without a place',
    (model) => model.fasteners[0].layout.pop(),
    { 'fasteners.0.layout': 'There are 8 of them, but 7 places.' },
  ],
  [
    'a piece laid in that is no position',
    (model) => (model.access[4].close[2].lays = 'lid'),
    { 'access.4.close.2.lays': 'There is no “lid” among the positions.' },
  ],
  [
    'a piece that two steps lay in',
    (model) => (model.access[4].close[1].lays = 'hpSeal'),
    {
      'access.4.close.1.lays': 'Two steps of this node lay it in: say which one it is.',
      'access.4.close.2.lays': 'Two steps of this node lay it in: say which one it is.',
    },
  ],
  [
    'a piece laid in while it is opened',
    (model) => (model.access[4].open[0].lays = 'hpSeal'),
    { 'access.4.open.0.lays': 'Only a closing step lays something in.' },
  ],
  [
    'a piece laid in where its task does not fit it',
    (model) => (model.tasks[2].at = 'manifold'),
    { 'access.4.close.2.lays': '“Renew high-pressure seals” fits it elsewhere: it would go in twice.' },
  ],
  [
    'a fact that nobody asks',
    (model) => (model.makeSafe[0].fact = { key: 'hand', is: ['left'] }),
    { 'makeSafe.0.fact.key': 'There is no “hand” among the facts.' },
  ],
  [
    'a fact that is never so',
    (model) => (model.makeSafe[0].fact = { key: 'drive', is: ['steam'] }),
    { 'makeSafe.0.fact.is.0': '“Drive” is never this.' },
  ],
  [
    'a step that hangs on a fact and on an answer',
    (model) => (model.prove[4].fact = { key: 'drive', is: ['petrol'] }),
    { 'prove.4.fact': 'A step hangs on a fact or on an answer, not on both.' },
  ],
  [
    'bolts that are run in, but not which',
    (model) => (model.prove[0].snug = true),
    { 'prove.0.fastener': 'Say which bolts this is about.' },
  ],
  [
    'pins in places where none stand',
    (model) => (model.fasteners[0].pinned = []),
    { 'access.3.close.10.places': 'No guide pins take the places of these.' },
  ],
  [
    'an application in another unit than its bottle',
    (model) => (model.fasteners[2].treatment.takes.unit = 'g'),
    { 'fasteners.2.treatment.takes.unit': '“Medium threadlocker” is counted in mL.' },
  ],
  [
    'work on condition that judges nothing',
    (model) => delete model.tasks[5].steps[0].asks,
    { 'tasks.5.steps': 'What is renewed on condition is judged first: a step asks what was found.' },
  ],
  [
    'work on condition that always renews',
    (model) => delete model.tasks[5].steps[1].when,
    { 'tasks.5.steps.1': 'Renewed on condition: this step must hang on an answer.' },
  ],
  [
    'work on condition that renews where nothing lays it in',
    (model) => delete model.access[5].close[4].lays,
    { 'tasks.5.renewsAt': 'A closing step of “Plunger off” says where each piece is laid in.' },
  ],
  [
    'a sub-assembly built of one that comes later',
    (model) => model.access[4].bench.unshift({ key: 'outer', name: 'Outer', of: ['retainerSet'] }),
    { 'access.4.bench.0.of.0': '“retainerSet” must be listed before what it is built into.' },
  ],
  [
    'another format',
    (model) => (model.format = 2),
    { format: 'This is format 1; another version of Atelier wrote this model.' },
  ],
]

test.each(broken)('%s is named by its path', (_what, breakIt, faults) => {
  const model = data()
  breakIt(model)
  expect(pumpModelFaults(model)).toEqual(faults)
})

test('a torque is stated, or says in words why it is not; never blank or zero', () => {
  const model = data()
  model.fasteners[0].torque = { state: 'stated', value: 0, unit: 'N·m' }
  model.fasteners[1].torque = { state: 'byFeel', value: 80 }
  expect(Object.keys(pumpModelFaults(model))).toEqual(
    expect.arrayContaining(['fasteners.0.torque.value', 'fasteners.1.torque.value']),
  )
})

test.each([[null], ['text'], [[]], [{}], [{ format: 1 }]])(
  '%p is no model, and says so without crashing',
  (nonsense) => {
    expect(Object.keys(pumpModelFaults(nonsense)).length).toBeGreaterThan(0)
  },
)

describe('nothing that is pasted reaches what every object has by nature', () => {
  const family = (differs: Record<string, unknown>) =>
    JSON.parse(
      JSON.stringify({ ...data(), sizes: [{ key: 's25', name: 'P3-25', differs: {} }] }).replace(
        '"differs":{}',
        `"differs":${JSON.stringify(differs).replace('PROTO', '__proto__')}`,
      ),
    ) as Json
  afterEach(() => expect(({} as Json).polluted).toBeUndefined())

  test.each([
    'PROTO.polluted',
    'constructor.prototype.polluted',
    'fasteners.constructor.prototype.polluted',
    'fasteners.plungerBolt.PROTO.polluted',
    'notice.constructor.prototype.polluted',
    'toString',
    'PROTO',
  ])('a difference at %s leads nowhere', (path) => {
    const faults = pumpModelFaults(family({ [path]: 'yes' }))
    expect(Object.values(faults)).toContainEqual(expect.stringContaining('This leads nowhere'))
  })

  test.each(['constructor', 'toString', 'valueOf', 'hasOwnProperty'])('no key is called %s', (key) => {
    const model = data()
    model.tasks[0].key = key
    expect(pumpModelFaults(model)).toMatchObject({
      'tasks.0.key': 'This word cannot be a key: choose another.',
    })
  })
})

test('so many sizes of so large a model that checking them would hold up everybody are refused unseen', () => {
  const sizes = Array.from({ length: 3000 }, (_, index) => ({
    key: `s${index}`,
    name: `S ${index}`,
    differs: {},
  }))
  expect(pumpModelFaults({ ...data(), sizes })).toEqual({
    sizes: '3000 sizes of so large a model are more than can be checked. Split the family.',
  })
  const few = sizes.slice(0, 12)
  expect(pumpModelFaults({ ...data(), sizes: few })).toEqual({})
})
