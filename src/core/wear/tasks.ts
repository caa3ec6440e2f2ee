import { daysBetween } from '../calendar'
import {
  instancesOf,
  positionName,
  repeatName,
  splitInstance,
  type PositionKey,
  type PositionSort,
  type PumpModel,
  type Task,
} from '../models'
import { clockOf, worseClock, type Clock } from './clock'
import { noRules, ruledLimit, type RuledLimit, type WearRules } from './rules'
import { signsOn, type ForwardSign } from './signs'

/**
 * When a position was last renewed, or a task last done on it: usage of the assembly then, and the day.
 * `first` says that this is its first interval since the pump was new.
 */
export type Since = { usage: number; day: string; first: boolean; assumed: boolean }

/** What is known of an assembly's wear. Renewing restarts lives; the other tasks have clocks of their own. */
export type WearRecord = {
  /** Usage and day now. */
  usage: number
  today: string
  /** Of each position: when its present part was fitted. */
  lives: Record<PositionKey, Since>
  /** Of each task that renews nothing: when it was last done, by position. */
  done: Record<string, Record<PositionKey, Since>>
}

/** One due item: a task on the positions whose clocks stand alike. */
export type TaskClock = {
  task: Task
  /** The limit it goes by, and what made it so. */
  ruled: RuledLimit
  positions: PositionKey[]
  /** "cylinders 1 and 2", or blank where the positions do not repeat. */
  where: string
  clock: Clock
  /** Since when it counts. */
  since: Since
  assumed: boolean
  /** Open signs that bring it forward. */
  signs: ForwardSign[]
}

/**
 * Every task of a model with its clocks, worst first. Positions of one task that stand alike (same
 * start, same signs) share a line; a cylinder renewed on its own, or one that weeps, has a line of its own.
 *
 * A renewing task runs on the lives of its positions, so renewing one cylinder's seal restarts that
 * life only. An inspection has its own clock, restarted by the inspection and by renewing what it looks
 * at, never restarting the life.
 *
 * @param model the pump model
 * @param record what is known of the assembly; a position without a start is left out
 * @param rules what this assembly goes by beside its model
 * @param signs open signs that bring services forward
 */
export function taskClocks(
  model: PumpModel,
  record: WearRecord,
  rules: WearRules = noRules,
  signs: ForwardSign[] = [],
): TaskClock[] {
  const clocks = model.tasks.flatMap((task) => {
    const ruled = ruledLimit(task, sortsOf(model, task), rules)
    const groups = new Map<string, { positions: PositionKey[]; since: Since; own: ForwardSign[] }>()
    for (const position of positionsOf(model, task)) {
      const since = sinceOf(task, position, record)
      if (!since) continue
      const own = signsOn(signs, task.key, position)
      const key = [since.usage, since.day, since.first, since.assumed, ...own.map((sign) => sign.id)].join(
        '|',
      )
      const group = groups.get(key) ?? { positions: [], since, own }
      group.positions.push(position)
      groups.set(key, group)
    }
    return [...groups.values()].map(({ positions, since, own }): TaskClock => {
      const used = {
        hours: Math.max(0, record.usage - since.usage),
        days: Math.max(0, daysBetween(since.day, record.today)),
      }
      return {
        task,
        ruled,
        positions,
        where: whereWords(model, positions),
        clock: clockOf(used, ruled.limit, ruled.tolerance, since.first),
        since,
        assumed: since.assumed,
        signs: own,
      }
    })
  })
  return clocks.sort((a, b) => worseClock(a.clock, b.clock))
}

/** What kinds of position a task is about. */
export function sortsOf(model: PumpModel, task: Task): PositionSort[] {
  return model.positions.filter((each) => task.positions.includes(each.key)).map((each) => each.sort)
}

/** Every position instance a task is about. */
export function positionsOf(model: PumpModel, task: Task): PositionKey[] {
  return task.positions.flatMap((key) => {
    const position = model.positions.find((each) => each.key === key)
    return position ? instancesOf(model, position) : []
  })
}

function sinceOf(task: Task, position: PositionKey, record: WearRecord): Since | undefined {
  const life = record.lives[position]
  if (task.kind === 'renew' || task.kind === 'change') return life
  const done = record.done[task.key]?.[position]
  if (!done || !life) return done ?? life
  return done.day > life.day || (done.day === life.day && done.usage >= life.usage) ? done : life
}

/**
 * @example whereWords(model, ['hpSeal@1', 'hpSeal@2']) // 'cylinders 1 and 2'
 * @example whereWords(model, ['inletValve@1', 'outletValve@1']) // 'cylinder 1'
 */
export function whereWords(model: PumpModel, positions: PositionKey[]): string {
  const first = model.positions.find((each) => each.key === splitInstance(positions[0] ?? '').key)
  if (!first || first.repeat === null) return ''
  const indices = [...new Set(positions.map((position) => splitInstance(position).index ?? 0))].sort(
    (a, b) => a - b,
  )
  const repeat = model.repeats.find((each) => each.key === first.repeat)
  if (!repeat) return positions.map((position) => positionName(model, position)).join(', ')
  if (indices.length === repeat.count && repeat.count > 1) return `all ${repeat.name}s`
  if (repeat.labels) return indices.map((index) => repeatName(model, repeat.key, index)).join(', ')
  if (indices.length === 1) return `${repeat.name} ${indices[0]}`
  return `${repeat.name}s ${indices.slice(0, -1).join(', ')} and ${indices.at(-1)}`
}
