import { eachStep, parsePumpModel, type PumpModel } from '@/core/models'
import {
  orientationFaces,
  orientationTowards,
  patterns,
  positionSorts,
  treatmentKinds,
} from '@/core/models/types'
import { everyModel, plateFamily } from '../composing/models'
import { axial, builtIn, chemical, intensifier, process } from './excerpts'

const models: PumpModel[] = [
  ...everyModel,
  plateFamily,
  ...[axial, builtIn, chemical, intensifier, process].map((excerpt) => parsePumpModel(excerpt)),
]
const steps = models.flatMap((model) => eachStep(model).map(({ step }) => step))

/** Fields that none of these objects says anything with. */
function neverSaid(objects: object[]): string[] {
  const says = (value: unknown) =>
    value !== null &&
    value !== '' &&
    value !== false &&
    value !== undefined &&
    !(Array.isArray(value) && value.length === 0)
  return Object.keys(objects[0]!).filter(
    (field) => !objects.some((each) => says((each as Record<string, unknown>)[field])),
  )
}
const missing = (all: readonly string[], said: (string | undefined)[]) =>
  all.filter((each) => !said.includes(each))

test('everything the language can say of a model, a step, a node, a task is said somewhere here', () => {
  const kinds = {
    model: models,
    sizes: models.flatMap((model) => model.sizes),
    repeats: models.flatMap((model) => model.repeats),
    positions: models.flatMap((model) => model.positions),
    parts: models.flatMap((model) => model.parts),
    fluids: models.flatMap((model) => model.fluids),
    kits: models.flatMap((model) => model.kits),
    tools: models.flatMap((model) => model.tools),
    fasteners: models.flatMap((model) => model.fasteners),
    access: models.flatMap((model) => model.access),
    stacks: models.flatMap((model) => model.access.flatMap((node) => node.stack)),
    tasks: models.flatMap((model) => model.tasks),
    paths: models.flatMap((model) => model.tasks.flatMap((task) => task.paths)),
    treatments: steps.flatMap((step) => step.treatment ?? []),
    steps,
  }
  const never = Object.entries(kinds).flatMap(([kind, objects]) =>
    neverSaid(objects).map((field) => `${kind}.${field}`),
  )
  expect(never).toEqual([])
  expect(steps.some((step) => step.people > 1)).toBe(true)
})

test('every value of a list of values is used: faces, directions, treatments, states of a torque, orders', () => {
  const orientations = [
    ...steps.map((step) => step.orientation),
    ...models.flatMap((model) => model.access.flatMap((node) => node.stack.map((item) => item.orientation))),
  ]
  const fasteners = models.flatMap((model) => model.fasteners)
  const nodes = models.flatMap((model) => model.access)
  expect({
    faces: missing(
      orientationFaces,
      orientations.map((each) => each?.face),
    ),
    towards: missing(
      orientationTowards,
      orientations.map((each) => each?.towards),
    ),
    treatments: missing(treatmentKinds, [
      ...fasteners.map(({ treatment }) => treatment.kind),
      ...steps.map((step) => step.treatment?.kind),
    ]),
    torques: missing(
      ['stated', 'handTight', 'byFeel', 'notGiven'],
      fasteners.map(({ torque }) => torque.state),
    ),
    patterns: missing(
      patterns,
      fasteners.map(({ pattern }) => pattern),
    ),
    sorts: missing(
      positionSorts,
      models.flatMap((model) => model.positions.map(({ sort }) => sort)),
    ),
    kinds: missing(
      ['renew', 'inspect', 'change', 'adjust'],
      models.flatMap((model) => model.tasks.map(({ kind }) => kind)),
    ),
    cleans: missing(
      ['threads', 'bores', 'seats'],
      steps.map(({ cleans }) => cleans ?? undefined),
    ),
    disturbs: missing(
      ['renew', 'onCondition', 'keep'],
      nodes.flatMap((node) => node.disturbs.map(({ rule }) => rule)),
    ),
  }).toEqual({
    faces: [],
    towards: [],
    treatments: [],
    torques: [],
    patterns: [],
    sorts: [],
    kinds: [],
    cleans: [],
    disturbs: [],
  })
})
