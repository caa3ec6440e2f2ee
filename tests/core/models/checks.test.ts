import { readFileSync } from 'node:fs'
import Ajv from 'ajv'
import {
  accessPath,
  changesBetween,
  checkModel,
  completeModel,
  parsePumpModel,
  pumpModelFaults,
} from '@/core/models'
import { pumpModelJsonSchema } from '@/core/models'
import { everyModel, opposed, plateFamily, triplex } from '../composing/models'
import { axial, builtIn, chemical, intensifier, process } from './excerpts'

type Json = Record<string, any> // eslint-disable-line @typescript-eslint/no-explicit-any -- broken on purpose below
const data = (file = 'ostrel-p3-200'): Json =>
  JSON.parse(readFileSync(`src/demo/models/${file}.json`, 'utf8'))
const warnings = (model: Json) =>
  checkModel(parsePumpModel(model))
    .filter(({ kind }) => kind === 'warning')
    .map(({ path, words }) => `${path}: ${words.replaceAll('\u00a0', ' ')}`)
const node = (model: Json, key: string) => model.access.find((each: Json) => each.key === key)
const task = (model: Json, key: string) => model.tasks.find((each: Json) => each.key === key)

test('the shipped models have nothing forgotten; what the manual leaves in doubt stays flagged', () => {
  expect(
    everyModel.map((model) => checkModel(model).filter(({ kind }) => kind === 'warning').length),
    // The sealed safety valve is swapped from outside: nothing needs opening for it.
  ).toEqual([0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0])
  expect(checkModel(triplex).map(({ kind, path }) => [kind, path])).toEqual([
    ['doubt', 'parts.7'],
    ['doubt', 'fasteners.1'],
  ])
})

const forgotten: [what: string, breakIt: (model: Json) => void, warning: string][] = [
  [
    'a task without a node',
    (m) => {
      delete task(m, 'hpSeals').at
      delete node(m, 'sealStack').close[2].lays
    },
    'tasks.2.at: “Renew high-pressure seals” hangs on no node: nothing is opened for it.',
  ],
  [
    'a position that no task renews',
    (m) => (m.tasks = m.tasks.filter((each: Json) => each.key !== 'oilSeals')),
    'positions.7: No task renews “Oil seal”.',
  ],
  [
    'an always-renew part in no kit',
    (m) => (m.kits = m.kits.filter((kit: Json) => kit.key !== 'sealKit')),
    'access.4.consumes.0: “Retainer O-ring” is always renewed, but no kit holds it.',
  ],
  [
    'a fastener without a source',
    (m) => (m.fasteners[0].torque.source = ''),
    'fasteners.0.torque.source: The torque of “Manifold screws” has no source.',
  ],
  [
    'a stage nobody pulls',
    (m) => node(m, 'manifold').close.pop(),
    'fasteners.0: No step pulls stage 2 of “Manifold screws”.',
  ],
  [
    'a node that nothing leads to',
    (m) => m.access.push({ key: 'lid', name: 'Lid off', openMinutes: 1, closeMinutes: 1 }),
    'access.6: No task leads to “Lid off”.',
  ],
  [
    'an orientation missing',
    (m) => delete task(m, 'lpSeals').steps[1].orientation,
    'tasks.3.steps.1: This fits “Low-pressure seal” without saying which way it faces.',
  ],
  [
    'a temporary tool that never comes out',
    (m) =>
      (node(m, 'manifold').close = node(m, 'manifold').close.filter((step: Json) => step.key !== 'pinsOut')),
    'access.3: “Guide pins, pair” go in and never come out.',
  ],
  [
    'a sub-assembly fitted before it is built',
    (m) => delete node(m, 'sealStack').close[6].builds,
    'access.4: “retainerSet” is fitted before it was built on the bench.',
  ],
  [
    'old locker left on the threads',
    (m) => (node(m, 'plungerOut').close = node(m, 'plungerOut').close.slice(1)),
    'access.5.close.6: Old locker is not cleaned off before “Plunger bolts” get new one.',
  ],
  [
    'a bolt with locker tightened again',
    (m) => (m.fasteners[2].retapFirst = true),
    'fasteners.2.retapFirst: “Plunger bolts” have threadlocker: a bolt is never tightened again once it has set.',
  ],
  [
    'an order that goes along one side first',
    (m) => {
      const places = [-45, -15, 15, 45].flatMap((x) => [{ x, y: 20 }])
      m.fasteners[0].layout = [...places, ...places.map(({ x }) => ({ x, y: -20 }))]
      m.fasteners[0].pattern = 'asNumbered'
    },
    'fasteners.0.pattern: This order leaves the plate of “Manifold screws” unbalanced: after some pair the load is 73 % off the middle.',
  ],
  [
    'a removal tool for refitting',
    (m) => {
      m.tools[0].removalOnly = true
      node(m, 'manifold').close.at(-1).tools = ['hexKey']
    },
    'access.3.close.13: “8 mm hexagon key” is for removal only.',
  ],
  [
    'as it came out, without a photo',
    (m) => (node(m, 'manifold').close[4].orientation = { face: 'letter', towards: 'asItCameOut' }),
    'access.3.open: Something goes back as it came out, but no photo is taken before.',
  ],
  [
    'an adjustment never put back',
    (m) => (node(m, 'manifold').open[0].setting = { what: 'spring handle', goes: 'noted' }),
    'access.3: “spring handle” is noted, but not put back.',
  ],
  [
    'a piece of a stack that no step lays in',
    (m) =>
      (node(m, 'sealStack').close = node(m, 'sealStack').close.filter(
        (step: Json) => step.key !== 'support',
      )),
    'access.4.stack.0: No closing step lays “Support ring” into “Seal stack out” again.',
  ],
  [
    'a piece that goes in before what it lies on',
    (m) => node(m, 'sealStack').close.push(node(m, 'sealStack').close.splice(1, 1)[0]),
    'access.4.stack.1: “High-pressure seal” goes in before “Support ring”, on which it lies.',
  ],
  [
    'a renewed piece with no place in the closing',
    (m) => delete node(m, 'sealStack').close[2].lays,
    'access.4.close: “Renew high-pressure seals” renews what lies here, but no closing step says when it goes in.',
  ],
  [
    'oil that is drained and not filled before proving',
    (m) => delete task(m, 'oilChange').steps[2].fluid,
    'tasks.9: “Crankcase oil” runs out here and is never filled again before proving.',
  ],
  [
    'oil that is drained where nothing says so',
    (m) => delete task(m, 'oilChange').steps[0].fluid,
    'tasks.9.steps.0: This seems to let oil out, but it is not marked as running out here: nothing looks after its filling.',
  ],
  [
    'a setting put back before it was noted',
    (m) => (node(m, 'manifold').close[0].setting = { what: 'spring handle', goes: 'putBack' }),
    'access.3: “spring handle” is put back before it was noted.',
  ],
  [
    'a setting put back before it is set and measured',
    (m) => {
      node(m, 'manifold').open[0].setting = { what: 'end play', goes: 'noted' }
      node(m, 'manifold').close[0].setting = { what: 'end play', goes: 'putBack' }
      node(m, 'manifold').close[5].measure = { what: 'end play', unit: 'mm', min: 0, max: 1 }
    },
    'access.3: “end play” is put back before it is set and measured.',
  ],
  [
    'something fitted that stands on no list',
    (m) => delete task(m, 'oilChange').uses,
    'tasks.9.steps.1: This fits “Drain plug seal”, which stands on no list of parts.',
  ],
  [
    'pins that come out before anything holds',
    (m) => {
      const { close } = node(m, 'manifold')
      close.splice(8, 0, close.splice(9, 1)[0])
    },
    'access.3.close.8: The pins come out before any of “Manifold screws” holds.',
  ],
  [
    'pins whose own bolts are forgotten',
    (m) =>
      (node(m, 'manifold').close = node(m, 'manifold').close.filter(
        (step: Json) => step.key !== 'snugPinned',
      )),
    'access.3.close: Guide pins take places of “Manifold screws”, but no step puts their bolts in.',
  ],
  [
    'a locker without its times',
    (m) => {
      delete m.fasteners[2].treatment.curesMinutes
      m.fasteners[2].treatment.amount = ''
    },
    'fasteners.2.treatment: “Plunger bolts” get threadlocker without an amount, a cure.',
  ],
  [
    'a sealant at a step without its times',
    (m) => delete task(m, 'outletValves').paths[0].steps[1].treatment.setsMinutes,
    'tasks.0.paths.0.steps.1.treatment: “Put a thin bead of sealing compound round the seat’s O-ring.” get sealant without a setting time.',
  ],
  [
    'something that slides over dry plungers',
    (m) => (node(m, 'manifold').close = node(m, 'manifold').close.filter(({ key }: Json) => key !== 'lube')),
    'access.3.close.4: This slides over “Plunger”, which nothing has lubricated.',
  ],
  [
    'a head closed with no gate for the crank',
    (m) =>
      (node(m, 'manifold').close = node(m, 'manifold').close.filter(
        ({ key }: Json) => !key.startsWith('crank'),
      )),
    'access.3.close.3: “Manifold off” is closed over the plungers with no gate for where the crank stands.',
  ],
  [
    'a choice without a step',
    (m) =>
      (task(m, 'hpSeals').steps = task(m, 'hpSeals').steps.filter(({ key }: Json) => key !== 'fitDriven')),
    'tasks.2.steps: “Fitting seals”: there is no step for “Driven with a socket and soft mallet”.',
  ],
  [
    'a practice that makes no difference',
    (m) => (node(m, 'manifold').open[2].practice.is = ['removalOnly', 'runDown', 'never']),
    'access.3.open.2.practice: This stands whatever is chosen for “Power tools”: the practice makes no difference.',
  ],
]
test.each(forgotten)('%s is a warning at its place', (_what, breakIt, warning) => {
  const model = data()
  breakIt(model)
  expect(pumpModelFaults(model)).toEqual({})
  expect(warnings(model)).toContain(warning)
})

const broken: [what: string, breakIt: (model: Json) => void, path: string, words: string | RegExp][] = [
  [
    'two positions with one name',
    (m) => (m.positions[1].name = 'outlet valve'),
    'positions.1.name',
    'Two positions are called “outlet valve”: name them apart.',
  ],
  ['a kit of nothing', (m) => (m.kits[0].holds = []), 'kits.0.holds', 'A kit holds something.'],
  ['negative minutes', (m) => (m.access[0].openMinutes = -1), 'access.0.openMinutes', 'Enter 0 or more.'],
  [
    '10,000 steps',
    (m) =>
      (m.prove = Array.from({ length: 10_000 }, (_, at) => ({ key: `s${at}`, text: 'x', phase: 'prove' }))),
    'steps',
    /^The model has 10\d+ steps; at most 2000/,
  ],
  [
    'a need that does not exist',
    (m) => (m.access[0].needs = ['lid']),
    'access.0.needs.0',
    'There is no “lid” among the access nodes.',
  ],
  [
    'a circle by a need',
    (m) => (node(m, 'manifold').needs = ['plungerOut']),
    'access.3.parent',
    'The way in goes round in a circle: manifold, plungerOut, manifold.',
  ],
  [
    'a practice that does not exist',
    (m) => (m.manual = [{ practice: 'headOff', choice: 'dynamite', source: 'page 1' }]),
    'manual.0.choice',
    '“Taking the manifold off” has no choice “dynamite”.',
  ],
  [
    'a reuse that always renews',
    (m) => delete task(m, 'outletValves').paths[1].steps[8].when,
    'tasks.0.paths.1.renews',
    'Its renewing steps must hang on an answer: where everything is renewed, say “always”.',
  ],
  [
    'a bench sub-assembly of another node',
    (m) => (node(m, 'manifold').close[0].fits = 'retainerSet'),
    'access.3.close.0.fits',
    '“Manifold off” has no bench sub-assembly “retainerSet”.',
  ],
  [
    'a pin at a bolt that is not there',
    (m) => (m.fasteners[0].pinned = [9]),
    'fasteners.0.pinned',
    'There are only 8 of them.',
  ],
]
test.each(broken)('%s is refused at its path', (_what, breakIt, path, words) => {
  const model = data()
  breakIt(model)
  const faults = pumpModelFaults(model)
  if (typeof words === 'string') expect(faults[path]).toBe(words)
  else expect(faults[path]).toMatch(words)
})

test('data that is far too large is refused before it is looked at, however deep it is', () => {
  const model = data()
  model.positions = Array.from({ length: 15_000 }, (_, at) => ({
    key: `p${at}`,
    name: `P ${at}`,
    zone: 'manifold',
  }))
  expect(pumpModelFaults(model)['']).toMatch(/^The data has 15\d+ pieces; at most 12000/)
  const deep = JSON.parse('['.repeat(5000) + ']'.repeat(5000))
  expect(pumpModelFaults({ ...data(), notice: deep })).toEqual({
    '': 'The data is nested far deeper than a model is.',
  })
})

test('a size that differs where there is nothing, or into nonsense, is refused by its path', () => {
  const model = data('ostrel-p3-500')
  model.sizes[1].differs = { 'fasteners.lid.torque.value': 3 }
  expect(pumpModelFaults(model)).toEqual({
    'sizes.1.differs.fasteners.lid.torque.value': expect.stringContaining('leads nowhere'),
  })
  model.sizes[1].differs = { 'positions.oil.pieces': -1 }
  expect(pumpModelFaults(model)['sizes.1.differs']).toContain('positions.7.pieces')
  expect(plateFamily.sizes.map(({ name }) => name)).toEqual(['P3-500', 'P3-700'])
})

test('the way in to a node names everything that opens before it', () => {
  expect(accessPath(triplex, 'plungerOut')).toEqual(['offMachine', 'manifold', 'plungerOut'])
  expect(accessPath(opposed, 'plungerOut')).toEqual([
    'outletManifold',
    'outletValveOut',
    'inletManifold',
    'inletValveOut',
    'head',
    'plungerOut',
  ])
  expect(accessPath(triplex, null)).toEqual([])
  expect(() => accessPath(triplex, 'lid')).toThrow('no node “lid”')
})

test('what changed between two versions is told by keys, and moving something is no change', () => {
  const model = data()
  task(model, 'hpSeals').limit.hours = 700
  model.parts.reverse()
  model.tools.push({ key: 'lamp', name: 'Lamp' })
  model.kits = model.kits.filter((kit: Json) => kit.key !== 'valveKit')
  expect(changesBetween(triplex, parsePumpModel(model)).filter(({ path }) => path !== 'parts.order')).toEqual(
    [
      { path: 'tools.lamp', before: 'nothing', after: 'Lamp' },
      { path: 'tasks.hpSeals.limit.hours', before: '800', after: '700' },
      { path: 'kits.valveKit', before: 'Valve kit of three', after: 'nothing' },
    ],
  )
  expect(changesBetween(triplex, triplex)).toEqual([])
})

test('a version published before the language had grown is completed, not refused', () => {
  const old = data()
  for (const list of ['kits', 'fluids', 'sizes', 'manual']) delete old[list]
  for (const each of old.access)
    for (const key of ['needs', 'stack', 'bench', 'disturbs', 'practice']) delete each[key]
  delete old.fasteners[0].treatment
  const model = completeModel(old)
  expect([model.kits, model.sizes, model.access[0]!.stack]).toEqual([[], [], []])
  expect(model.fasteners[0]!.treatment).toMatchObject({ kind: 'none', surface: '' })
})

test('the JSON Schema takes what the parser takes and refuses what it refuses', () => {
  const validate = new Ajv({ strict: false }).compile(pumpModelJsonSchema())
  const files = ['ostrel-p3-200', 'ostrel-p3-500', 'tarnwick-k4', 'quillon-d35', 'quillon-u20', 'ostrel-wl2']
  for (const model of [...files.map(data), axial, builtIn, chemical, intensifier, process])
    expect([validate(model), validate.errors]).toEqual([true, null])
  for (const breakIt of [
    (m: Json) => (m.access[0].openMinutes = -1),
    (m: Json) => delete m.maker,
    (m: Json) => (m.tasks[0].kind = 'polish'),
    (m: Json) => (m.kits[0].holds = []),
  ]) {
    const model = data()
    breakIt(model)
    expect(validate(model)).toBe(false)
    expect(Object.keys(pumpModelFaults(model)).length).toBeGreaterThan(0)
  }
})
