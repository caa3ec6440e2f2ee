import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { instancesOf, parsePumpModel, type PumpModel } from '@/core/models'
import { composeSheet, type Job } from '@/core/composing'
import { noPractices, type CompanyPractices } from '@/core/practices'
import { problemOf } from '@/core/problem'

const model = parsePumpModel(JSON.parse(readFileSync('src/demo/models/ostrel-p3-200.json', 'utf8')))
const cylinders = (key: string, ...which: number[]) => which.map((index) => `${key}@${index}`)
const job = (...tasks: Job['tasks']): Job => ({ id: 'P-04', model, tasks })
const compose = (...jobs: Job[]) => composeSheet({ assemblies: jobs })
const seals = { task: 'hpSeals', positions: cylinders('hpSeal', 1, 2, 3) }
const lowSeals = { task: 'lpSeals', positions: cylinders('lpSeal', 1, 2, 3) }
const stripOrder = (choice: string): CompanyPractices => ({
  ...noPractices,
  company: { stripOrder: { choice, reason: '' } },
})
const need = (sheet: ReturnType<typeof composeSheet>) =>
  Object.fromEntries(sheet.parts.map(({ part, quantity }) => [part, quantity]))

test('the way in is opened once for all that is done there, and closed in reverse', () => {
  const sheet = compose(job(seals, lowSeals))
  expect(sheet.opened).toEqual(['manifold', 'sealStack@1', 'sealStack@2', 'sealStack@3'])
  const headings = sheet.steps
    .filter((step) => step.phase === 'rebuild' && step.task === null)
    .map((step) => (step.heading === 'Manifold off' ? step.heading : `${step.heading} ${step.where}`))
  expect([...new Set(headings)]).toEqual([
    'Seal stack out cylinder 3',
    'Seal stack out cylinder 2',
    'Seal stack out cylinder 1',
    'Manifold off',
  ])
  // Both seals are laid in where the stack is closed, so that nothing is renewed apart from it.
  expect([...new Set(sheet.steps.map((step) => step.phase))]).toEqual([
    'makeSafe',
    'stripDown',
    'inspect',
    'rebuild',
    'prove',
  ])
})

test('minutes count the shared way once', () => {
  const sheet = compose(job(seals, lowSeals))
  // Make safe 15, manifold 12 + 18, three stacks of 4 + 5, three seals of 3, three of 2, prove 15.
  expect(sheet.minutes).toBe(15 + 30 + 3 * 9 + 3 * 3 + 3 * 2 + 15)
  // Each on a visit of its own: the way in, making safe and proving twice.
  expect(sheet.minutesOneByOne).toBe(15 + 30 + 27 + 9 + 15 + (15 + 30 + 27 + 6 + 15))
})

test('one cylinder alone opens only its own', () => {
  const sheet = compose(job({ task: 'hpSeals', positions: ['hpSeal@2'] }))
  expect(sheet.opened).toEqual(['manifold', 'sealStack@2'])
  expect(need(sheet)).toEqual({ hpSeal: 1, retainerOring: 1 })
})

test('parts: what is renewed, and what opening destroys, one set for each spot', () => {
  const plungers = { task: 'plungers', positions: cylinders('plunger', 1, 2) }
  const oilSeals = { task: 'oilSeals', positions: cylinders('oilSeal', 2, 3) }
  // Plungers 1 and 2 and oil seals 2 and 3: all three plungers come out, each washer once; no stack does.
  expect(need(compose(job(plungers, oilSeals)))).toEqual({
    copperWasher: 3,
    plungerOring: 3,
    plungerBackup: 3,
    locker: 0.3,
    plunger: 2,
    oilSeal: 2,
  })
})

test('six alike valves are six of one part, whichever side they sit on', () => {
  const valves = ['outlet', 'inlet'].map((side) => ({
    task: `${side}Valves`,
    positions: cylinders(`${side}Valve`, 1, 2, 3),
  }))
  expect(need(compose(job(...valves)))).toEqual({ valve: 6, capOring: 6 })
})

test('an oil change opens nothing and needs its litres', () => {
  const sheet = compose(job({ task: 'oilChange', positions: ['oil'] }))
  expect(sheet.opened).toEqual([])
  expect(need(sheet)).toEqual({ oil: 1.2, drainSeal: 1 })
  expect(sheet.minutes).toBe(15 + 20 + 15)
})

test('work in the open pump goes from the inside out', () => {
  const sheet = compose(job(seals, { task: 'oilSeals', positions: ['oilSeal@1'] }))
  const renewed = sheet.steps.filter(({ step }) => step.phase === 'renew').map((step) => step.heading)
  expect([...new Set(renewed)]).toEqual(['Renew oil seals', 'Renew high-pressure seals'])
})

test('one cylinder at a time: cylinder 1 is opened, worked and closed before cylinder 2', () => {
  const oilSeals = { task: 'oilSeals', positions: cylinders('oilSeal', 1, 2) }
  const walk = (choice: string) => {
    const { steps } = composeSheet({ assemblies: [job(oilSeals)] }, stripOrder(choice))
    const places = steps
      .filter(({ phase }) => phase !== 'makeSafe' && phase !== 'prove')
      .map(({ phase, heading, where }) =>
        heading === 'Manifold off' ? `${phase} ${heading}` : `${phase} ${heading} ${where}`.trim(),
      )
    return places.filter((place, at) => place !== places[at - 1])
  }
  expect(walk('itemByItem')).toEqual([
    'stripDown Manifold off',
    'stripDown Plunger off cylinder 1',
    'stripDown Plunger off cylinder 2',
    'renew Renew oil seals cylinder 1',
    'renew Renew oil seals cylinder 2',
    'rebuild Plunger off cylinder 2',
    'rebuild Plunger off cylinder 1',
    'rebuild Manifold off',
  ])
  expect(walk('oneAtATime')).toEqual([
    'stripDown Manifold off',
    ...[1, 2].flatMap((cylinder) => [
      `stripDown Plunger off cylinder ${cylinder}`,
      `renew Renew oil seals cylinder ${cylinder}`,
      `rebuild Plunger off cylinder ${cylinder}`,
    ]),
    'rebuild Manifold off',
  ])
})

test('a once-node behind per-cylinder nodes needs all of them open', () => {
  const behind: PumpModel = {
    ...model,
    access: [
      ...model.access,
      {
        key: 'backPlate',
        name: 'Back plate',
        parent: 'plungerOut',
        repeat: null,
        openMinutes: 5,
        closeMinutes: 5,
        open: [],
        close: [],
        consumes: [],
        needs: [],
        practice: null,
        stack: [],
        innermost: null,
        bench: [],
        disturbs: [],
      },
    ],
    tasks: model.tasks.map((task) => (task.key === 'oilChange' ? { ...task, at: 'backPlate' } : task)),
  }
  const sheet = compose({ id: 'P-04', model: behind, tasks: [{ task: 'oilChange', positions: ['oil'] }] })
  expect(sheet.opened).toEqual(['manifold', ...cylinders('plungerOut', 1, 2, 3), 'backPlate'])
})

test('two pumps on one visit are made safe once and proved once', () => {
  const second: Job = { ...job(seals), id: 'P-31' }
  const sheet = compose(job(seals), second)
  expect(sheet.steps.filter((step) => step.step.key === 'lockOut')).toHaveLength(1)
  expect(sheet.minutes).toBe(2 * compose(job(seals)).minutes - 15 - 15)
})

test('what goes in temporarily comes out, and is on the tool list', () => {
  const sheet = compose(job(seals))
  const moves = sheet.steps.flatMap(({ step }) =>
    step.temporary ? [`${step.temporary.tool} ${step.temporary.goes}`] : [],
  )
  expect(moves).toEqual(['guidePins in', 'guidePins out'])
  expect(sheet.tools.find((tool) => tool.key === 'guidePins')).toMatchObject({
    temporary: true,
    special: true,
  })
})

test('a task or a position that the model does not have is refused by its path', () => {
  const refused = () =>
    compose(job({ task: 'polish', positions: [] }, { task: 'hpSeals', positions: ['hpSeal@4'] }))
  try {
    refused()
    throw new Error('Nothing was refused.')
  } catch (error) {
    expect(problemOf(error)).toMatchObject({
      kind: 'invalid',
      fields: {
        'assemblies.0.tasks.0.task': 'Ostrel P3-200 has no task “polish”.',
        'assemblies.0.tasks.1.positions.0': '“Renew high-pressure seals” has no position “hpSeal@4”.',
      },
    })
  }
})

const anyTasks = fc
  .uniqueArray(fc.constantFrom(...model.tasks.map((task) => task.key)), { minLength: 1 })
  .chain((keys) =>
    fc.tuple(
      ...keys.map((key) => {
        const task = model.tasks.find((each) => each.key === key)!
        const position = model.positions.find((each) => each.key === task.positions[0])!
        return fc
          .subarray(instancesOf(model, position), { minLength: 1 })
          .map((positions) => ({ task: key, positions }))
      }),
    ),
  )

test('composing does not depend on the order in which tasks and positions were chosen', () => {
  fc.assert(
    fc.property(anyTasks, (tasks) => {
      const turned = [...tasks]
        .reverse()
        .map(({ task, positions }) => ({ task, positions: [...positions].reverse() }))
      expect(compose(job(...turned))).toEqual(compose(job(...tasks)))
    }),
  )
})

test('step keys are unique, every parent is open before its child, and doing it together never takes longer', () => {
  fc.assert(
    fc.property(anyTasks, fc.constantFrom('itemByItem' as const, 'oneAtATime' as const), (tasks, order) => {
      const sheet = composeSheet({ assemblies: [job(...tasks)] }, stripOrder(order))
      const keys = sheet.steps.map((step) => step.key)
      expect(new Set(keys).size).toBe(keys.length)
      for (const [at, key] of sheet.opened.entries()) {
        const [node, index] = key.split('@')
        const parent = model.access.find((each) => each.key === node)!.parent
        if (parent && parent !== 'offMachine')
          expect(sheet.opened.slice(0, at)).toContain(parent === 'manifold' ? parent : `${parent}@${index}`)
      }
      expect(sheet.minutes).toBeLessThanOrEqual(sheet.minutesOneByOne)
    }),
  )
})
