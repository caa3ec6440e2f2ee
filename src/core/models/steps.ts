import type { PumpModel, Step } from './types'

/** Every list of steps with its path. */
export function stepLists(model: PumpModel): [path: string, steps: Step[]][] {
  return [
    ['makeSafe', model.makeSafe],
    ...model.access.flatMap((node, index): [string, Step[]][] => [
      [`access.${index}.open`, node.open],
      [`access.${index}.close`, node.close],
    ]),
    ...model.tasks.flatMap((task, index): [string, Step[]][] => [
      [`tasks.${index}.steps`, task.steps],
      ...task.paths.map((path, each): [string, Step[]] => [`tasks.${index}.paths.${each}.steps`, path.steps]),
    ]),
    ['prove', model.prove],
  ]
}

/** Every step with its path. */
export function eachStep(model: PumpModel): { path: string; step: Step }[] {
  return stepLists(model).flatMap(([list, steps]) =>
    steps.map((step, index) => ({ path: `${list}.${index}`, step })),
  )
}
