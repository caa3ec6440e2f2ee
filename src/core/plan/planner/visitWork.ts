import type { PlanMachine, PlanTask } from './types'

export type VisitWork = {
  /** One person's, without travel. */
  minutes: number
  helpers: number
  /** Of each helper. */
  helperMinutes: number
}

type Task = Pick<PlanTask, 'access' | 'minutes' | 'people' | 'helperMinutes'>

/**
 * What a visit takes: each node of the tasks' paths once, and each task's own minutes. A helper spends all of
 * it, or what the tasks give, where each that wants a helper gives something.
 */
export function visitWork(machine: Pick<PlanMachine, 'accessMinutes'>, tasks: readonly Task[]): VisitWork {
  let minutes = 0
  let people = 1
  let given = 0
  let stays = false
  // Asked a million times for a plan: a few tasks with a few nodes are compared faster than put in a set.
  for (let at = 0; at < tasks.length; at++) {
    const task = tasks[at]!
    minutes += task.minutes
    if (task.people !== undefined && task.people > people) people = task.people
    if (task.helperMinutes !== undefined) given += task.helperMinutes
    else if (task.people !== undefined && task.people > 1) stays = true
    for (let which = 0; which < task.access.length; which++) {
      const node = task.access[which]!
      if (!isOpen(tasks, at, which, node)) minutes += machine.accessMinutes[node] ?? 0
    }
  }
  return { minutes, helpers: people - 1, helperMinutes: stays ? minutes : given }
}

/** Whether a task before, or an earlier entry of the same path, has opened a node. */
function isOpen(tasks: readonly Task[], at: number, which: number, node: string): boolean {
  for (let before = 0; before < at; before++) if (tasks[before]!.access.includes(node)) return true
  return tasks[at]!.access.indexOf(node) < which
}

/** The special tools that a task wants, each once. */
export const toolsOf = ({ tool, moreTools = [] }: Pick<PlanTask, 'tool' | 'moreTools'>): string[] => [
  ...new Set([...(tool === undefined ? [] : [tool]), ...moreTools]),
]

/** Minutes that a member spends on the way there and back; none without yards, or in their own. */
export function travelBoth(
  travel: Record<string, Record<string, number>> | undefined,
  home: string | undefined,
  yard: string | undefined,
): number {
  if (home === undefined || yard === undefined || home === yard) return 0
  return 2 * (travel?.[home]?.[yard] ?? travel?.[yard]?.[home] ?? 0)
}
