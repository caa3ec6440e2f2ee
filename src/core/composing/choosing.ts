import { resolvePractice, type CompanyPractices, type PracticeKey } from '../practices'
import { titleOf, type PositionKey, type PumpModel, type Task } from '../models'
import { positionsOf } from '../wear'
import { pathByPractice } from './chosen'

const choiceIn = (model: PumpModel, chosen: CompanyPractices) => (practice: PracticeKey) =>
  resolvePractice(practice, { title: titleOf(model), manual: model.manual }, chosen).choice

/** The key of the way in which a task is done where nobody says otherwise; blank where there is only one. */
export function usualPath(model: PumpModel, task: Task, chosen: CompanyPractices): string {
  return pathByPractice(task, choiceIn(model, chosen))?.key ?? ''
}

/**
 * The positions that a task begins with when somebody chooses it: all of them, or only those that are due
 * where the company renews only what failed and something is due.
 *
 * @param due positions of this task whose clocks are not healthy
 * @example usualPositions(model, hpSeals, ['hpSeal@2'], failedOnly) // ['hpSeal@2']
 */
export function usualPositions(
  model: PumpModel,
  task: Task,
  due: PositionKey[],
  chosen: CompanyPractices,
): PositionKey[] {
  const all = positionsOf(model, task)
  const own = all.filter((each) => due.includes(each))
  return choiceIn(model, chosen)('howMuch') === 'failedOnly' && own.length > 0 ? own : all
}
