import fc from 'fast-check'
import type { CompanyPractices } from '@/core/practices'
import type { ChosenTask } from '@/core/composing'
import { instancesOf, type PumpModel } from '@/core/models'
import { chosen, everyModel } from './models'

/** Any tasks of a model, each on some of its positions and in any of its ways. */
export const anyTasks = (model: PumpModel) =>
  fc.uniqueArray(fc.constantFrom(...model.tasks), { minLength: 1 }).chain((tasks) =>
    fc.tuple(
      ...tasks.map((task) => {
        const positions = model.positions
          .filter(({ key }) => task.positions.includes(key))
          .flatMap((position) => instancesOf(model, position))
        return fc
          .tuple(
            fc.subarray(positions, { minLength: 1 }),
            fc.constantFrom(null, ...task.paths.map(({ key }) => key)),
          )
          .map(([some, path]): ChosenTask => ({ task: task.key, positions: some, path }))
      }),
    ),
  )
/** Any choice of the practices that change how a sheet is composed. */
export const anyPractices = fc
  .record({
    stripOrder: fc.constantFrom('itemByItem', 'oneAtATime'),
    goodValves: fc.constantFrom('renew', 'inspect'),
    guidePins: fc.constantFrom('used', 'without'),
    benchOrPlace: fc.constantFrom('inPlace', 'onBench'),
    capOrings: fc.constantFrom('always', 'onCondition'),
    headBoltThreads: fc.constantFrom('asManual', 'threadlocker'),
  })
  .map((choices): CompanyPractices =>
    chosen(...(Object.entries(choices) as [Parameters<typeof chosen>[0][0], string][])),
  )
/** Any of the shipped models with any work on it, by any practices. */
export const anyJob = fc
  .constantFrom(...everyModel)
  .chain((model) => fc.tuple(fc.constant(model), anyTasks(model), anyPractices))
