import { dayCost } from './dayCost'
import { readOccurrence } from './occurrences'
import type { PlanCost, PlannedVisit, PlanProblem, PlanTask } from './types'
import { travelBoth, visitWork } from './visitWork'

/** The tasks of a problem by what ids mean, those of repeats too. */
export function taskReader(problem: PlanProblem): (id: string) => { task: PlanTask; at: number } | null {
  const taskOf = new Map(problem.tasks.map((task) => [task.id, task]))
  return (id) => {
    const read = readOccurrence(id, (each) => taskOf.has(each))
    return read && { task: taskOf.get(read.id)!, at: read.at }
  }
}

/** The days on which each task is done, by its times; what no task is meant by is left out. */
export function timesOf(
  problem: PlanProblem,
  visits: readonly Pick<PlannedVisit, 'day' | 'tasks'>[],
): Map<PlanTask, Map<number, number>> {
  const read = taskReader(problem)
  const times = new Map<PlanTask, Map<number, number>>()
  for (const { day, tasks } of visits)
    for (const id of tasks) {
      const found = read(id)
      if (!found) continue
      const own = times.get(found.task) ?? new Map<number, number>()
      own.set(found.at, day)
      times.set(found.task, own)
    }
  return times
}

/**
 * What a plan costs, reckoned from nothing: fixed costs of visits, labour of everybody with their ways, life given
 * up early (and the rest of the horizon after the last time of what repeats), risk of the late, moves, down-time.
 */
export function planCost(problem: PlanProblem, visits: readonly PlannedVisit[]): PlanCost {
  const { labourRatePerMinute: rate, downtimeCostPerDay = 0, crew, horizonDays } = problem
  const machineOf = new Map(problem.machines.map((machine) => [machine.id, machine]))
  const memberOf = new Map(crew.map((member) => [member.id, member]))
  const read = taskReader(problem)
  const cost: PlanCost = { total: 0, visits: 0, labour: 0, early: 0, late: 0, moves: 0, downtime: 0 }
  const ways = new Set<string>()
  const stands = new Set<string>()
  for (const { machine: machineId, day, crew: lead, helpers, tasks } of visits) {
    const machine = machineOf.get(machineId)
    if (!machine) continue
    const { minutes, helperMinutes } = visitWork(
      machine,
      tasks.flatMap((id) => read(id)?.task ?? []),
    )
    cost.visits += machine.visitFixedCost
    cost.labour += rate * (minutes + helperMinutes * helpers.length)
    stands.add(JSON.stringify([machineId, day]))
    for (const member of [lead, ...helpers]) {
      const way = JSON.stringify([member, day, machine.yard])
      if (ways.has(way)) continue
      ways.add(way)
      cost.labour += rate * travelBoth(problem.travelMinutes, memberOf.get(member)?.yard, machine.yard)
    }
  }
  for (const [task, times] of timesOf(problem, visits)) {
    let due = task.due
    let last = 0
    for (const [, day] of [...times].sort(([a], [b]) => a - b)) {
      cost[day < due ? 'early' : 'late'] += dayCost(task, day, due)
      due = day + (task.repeatEveryDays ?? 0)
      last = day
    }
    if (task.repeatEveryDays !== undefined) cost.early += (task.endCostPerDay ?? 0) * (horizonDays - last)
  }
  for (const each of problem.present ?? [])
    if (
      !visits.some(
        ({ machine, day, crew: lead }) => machine === each.machine && day === each.day && lead === each.crew,
      )
    )
      cost.moves += each.moveCost
  cost.downtime = downtimeCostPerDay * stands.size
  cost.total = cost.visits + cost.labour + cost.early + cost.late + cost.moves + cost.downtime
  return cost
}
