import type { PracticeKey } from '../practices'
import { invalid } from '../problem'
import { splitInstance, titleOf, type PositionKey, type Task, type TaskPath } from '../models'
import { positionsOf } from '../wear'
import type { PractisedModel } from './practised'
import type { Job } from './types'

/** A task with the positions it is done on, in the model's order, and the way it is done. */
export type Chosen = {
  task: Task
  path: TaskPath | null
  positions: PositionKey[]
  /** Why, where nobody chose it. */
  why: string
}

/** Whether a new life certainly begins: it renews, and not only where a finding says so. */
export function renewsForCertain({ task, path }: Pick<Chosen, 'task' | 'path'>): boolean {
  return (task.kind === 'renew' || task.kind === 'change') && path?.renews !== 'onCondition'
}

export function minutesEach({ task, path }: Pick<Chosen, 'task' | 'path'>): number {
  return task.minutes + (path?.minutes ?? 0)
}

/**
 * The tasks of a job as its model knows them, in the model's own order, so that the order in which they
 * were chosen does not matter.
 *
 * @param at the job's place in the input, for the path of an error
 * @throws `invalid` for a task, a way or a position that the model does not have, and for nothing chosen
 */
export function chosenTasks(job: Job, { model, practice }: PractisedModel, at: number): Chosen[] {
  const faults: Record<string, string> = {}
  const chosen = new Map<string, Chosen>()
  job.tasks.forEach(({ task: key, positions, path: pathKey }, index) => {
    const place = `assemblies.${at}.tasks.${index}`
    const task = model.tasks.find((each) => each.key === key)
    if (!task) {
      faults[`${place}.task`] = `${titleOf(model)} has no task “${key}”.`
      return
    }
    const path =
      task.paths.find((each) => each.key === pathKey) ?? pathByPractice(task, (by) => practice(by).choice)
    if (pathKey && path?.key !== pathKey) {
      faults[`${place}.path`] = `“${task.name}” cannot be done by “${pathKey}”.`
      return
    }
    const known = positionsOf(model, task)
    positions.forEach((position, each) => {
      if (!known.includes(position))
        faults[`${place}.positions.${each}`] = `“${task.name}” has no position “${position}”.`
    })
    if (positions.length === 0)
      faults[`${place}.positions`] = `Choose at least one position for “${task.name}”.`
    const other = [...chosen.values()].find(
      (each) =>
        each.task === task && each.path !== path && each.positions.some((one) => positions.includes(one)),
    )
    if (other) faults[`${place}.positions`] = `“${task.name}” is chosen in two ways for one position.`
    const before = chosen.get(`${key}/${path?.key}`)?.positions ?? []
    chosen.set(`${key}/${path?.key}`, {
      task,
      path,
      positions: known.filter((each) => positions.includes(each) || before.includes(each)),
      why: '',
    })
  })
  if (Object.keys(faults).length > 0) throw invalid(faults)
  return inModelOrder(model, [...chosen.values()])
}

/** The way of doing a task that the practices choose where nobody does; null where there is only one. */
export function pathByPractice(task: Task, choiceOf: (practice: PracticeKey) => string): TaskPath | null {
  return (
    task.paths.find(({ practice }) => practice && choiceOf(practice.key) === practice.choice) ??
    task.paths[0] ??
    null
  )
}

export function inModelOrder(model: PractisedModel['model'], chosen: Chosen[]): Chosen[] {
  const rank = ({ task, path }: Chosen) =>
    model.tasks.indexOf(task) * 100 + (path ? task.paths.indexOf(path) : 0)
  return [...chosen].sort((a, b) => rank(a) - rank(b))
}

/** Of a position that repeats, the repeat and the index; nulls where there is only one. */
export function placeOf(
  { model }: Pick<PractisedModel, 'model'>,
  instance: PositionKey,
): { repeat: string | null; index: number | null } {
  const { key, index } = splitInstance(instance)
  return { repeat: model.positions.find((each) => each.key === key)?.repeat ?? null, index }
}
