import type { Machine, Task } from './linked'
import { readOccurrence } from './occurrences'
import type { PlanProblem } from './types'
import type { Doing, Visit } from './visit'

type Booked = {
  /** In the order in which they are given; two may be on one machine and day. */
  visits: Pick<Visit, 'machine' | 'day' | 'lead' | 'helpers' | 'doing'>[]
  /** The days on which tasks are done by them, in the order of their times. */
  times: Map<Task, number[]>
}

/**
 * The fixed visits of a problem inside its horizon. A time that is named again, or out of turn, counts for none,
 * and what is no task of the machine is left out: checking a plan tells it.
 */
export function readBooked(
  { fixed = [], horizonDays, crew }: PlanProblem,
  { machines, tasks }: { machines: readonly Machine[]; tasks: readonly Task[] },
): Booked {
  const taskOf = new Map(tasks.map((task) => [task.id, task]))
  const memberOf = (id: string) => crew.findIndex((member) => member.id === id)
  const named = new Map<Task, { at: number; day: number; doing: Doing }[]>()
  const booked: Booked = { visits: [], times: new Map() }
  for (const { machine: on, day, crew: lead, helpers = [], tasks: ids } of fixed) {
    const machine = machines.find((each) => each.id === on)
    if (!machine || day < 0 || day >= horizonDays) continue
    const doing: Doing[] = []
    for (const id of ids) {
      const read = readOccurrence(id, (each) => taskOf.get(each)?.on === machine)
      if (!read) continue
      const task = taskOf.get(read.id)!
      const each = { task, at: -1 }
      doing.push(each)
      named.set(task, [...(named.get(task) ?? []), { at: read.at, day, doing: each }])
    }
    booked.visits.push({ machine, day, lead: memberOf(lead), helpers: helpers.map(memberOf), doing })
  }
  for (const [task, times] of named) {
    const days: number[] = []
    for (const { at, day, doing } of times.sort((a, b) => a.at - b.at)) {
      if (at !== days.length || (at > 0 && (task.repeatEveryDays === undefined || day <= days[at - 1]!)))
        continue
      doing.at = at
      days.push(day)
    }
    if (days.length > 0) booked.times.set(task, days)
  }
  return booked
}
