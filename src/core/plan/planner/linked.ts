import { dayCost, reachOf } from './dayCost'
import type { PlanMachine, PlanProblem, PlanTask } from './types'
import { toolsOf, travelBoth, visitWork, type VisitWork } from './visitWork'

/** A task with what the search asks again and again. */
export type Task = PlanTask & {
  index: number
  on: Machine
  /** Counts as left out where it is not done. */
  isRequired: boolean
  /** Required itself, or something required waits for it or wants it on its visit. */
  isWanted: boolean
  /** How deep it stands in what has to come before it. */
  depth: number
  before: Task[]
  next: Task[]
  /** The last day that leaves those who wait for it a day in their windows. */
  latestForNext: number
  implied: Task[]
  impliedBy: Task[]
  /** Those that are put on a visit together. */
  group: Task[]
  /** It hangs on something that is not in the problem, or cannot be on its visit. */
  never: 'after' | 'implies' | null
  fixedDays: number[]
  partIndexes: number[]
  /** Of the tools that are counted. */
  toolIndexes: number[]
  /** Its share of what is opened for it, by day, as the bound has it; null until that is known. */
  opening: Float64Array | null
  /** What days cost by themselves: of the first time by day, of a repeat from the first day of its window on. */
  dayCosts: Float64Array
  laterCosts: Float64Array
  /** The days of its window, the cheapest first. */
  cheapestDays: Int16Array
  /** The task in a list, and what a visit for it alone takes. */
  alone: readonly Task[]
  aloneWork: VisitWork
}

export type Machine = PlanMachine & {
  index: number
  yardIndex: number
  benchIndex: number
  isBlocked: Uint8Array
  tasks: Task[]
  /** Members of the crew, nearest first, and the minutes of each one's way there and back. */
  nearest: number[]
  hasFixed: boolean
  ways: Float64Array
}

/** Every yard that somebody or some machine belongs to. */
export const yardsOf = ({ crew, machines }: PlanProblem): string[] =>
  [...new Set([...crew.map(({ yard }) => yard), ...machines.map(({ yard }) => yard)])].filter(
    (yard): yard is string => yard !== undefined,
  )

/** The machines of a problem, without their tasks yet. */
export function readMachines(problem: PlanProblem, yards: readonly string[]): Machine[] {
  const { horizonDays, crew, benches = [], fixed = [], travelMinutes } = problem
  return problem.machines.map((machine, index) => {
    const isBlocked = new Uint8Array(horizonDays)
    for (const day of machine.blockedDays) if (day >= 0 && day < horizonDays) isBlocked[day] = 1
    const ways = Float64Array.from(crew, ({ yard }) => travelBoth(travelMinutes, yard, machine.yard))
    return {
      index,
      isBlocked,
      yardIndex: machine.yard === undefined ? -1 : yards.indexOf(machine.yard),
      benchIndex: benches.findIndex(({ yard }) => yard === machine.yard),
      tasks: [],
      ways,
      hasFixed: fixed.some((each) => each.machine === machine.id),
      nearest: crew.map((_, at) => at).sort((a, b) => ways[a]! - ways[b]!),
      ...machine,
    }
  })
}

/** Tasks with what they hang together with. */
export function linkTasks(problem: PlanProblem, machines: Machine[]): Task[] {
  const machineOf = new Map(machines.map((machine) => [machine.id, machine]))
  const tools = new Map((problem.tools ?? []).map(({ id }, index) => [id, index]))
  const stock = new Map((problem.stock ?? []).map(({ part }, index) => [part, index]))
  const tasks = problem.tasks.map((task, index): Task => {
    const on = machineOf.get(task.machine)!
    const isRequired = task.due < problem.horizonDays
    const costs = dayCosts(task, problem.horizonDays)
    const made: Task = {
      dayCosts: costs,
      laterCosts: laterCosts(task, problem.horizonDays),
      alone: [],
      opening: null,
      aloneWork: visitWork(on, [task]),
      cheapestDays: cheapestDays(task, costs),
      index,
      on,
      isRequired,
      isWanted: isRequired,
      depth: 0,
      fixedDays: [],
      never: null,
      latestForNext: task.latest,
      before: [],
      next: [],
      implied: [],
      impliedBy: [],
      group: [],
      partIndexes: (task.parts ?? []).map(({ part }) => stock.get(part) ?? -1),
      toolIndexes: toolsOf(task).flatMap((id) => tools.get(id) ?? []),
      ...task,
    }
    made.alone = [made]
    return made
  })
  const taskOf = new Map(tasks.map((task) => [task.id, task]))
  for (const task of tasks) {
    task.on.tasks.push(task)
    for (const id of task.after ?? []) {
      const other = taskOf.get(id)
      if (other === task) continue
      if (!other) {
        task.never = 'after'
        continue
      }
      task.before.push(other)
      other.next.push(task)
    }
    for (const id of task.implies ?? []) {
      const other = taskOf.get(id)
      if (other === task) continue
      if (!other || other.on !== task.on) {
        task.never = 'implies'
        continue
      }
      task.implied.push(other)
      other.impliedBy.push(task)
    }
  }
  const want = (task: Task) => {
    for (const other of [...task.before, ...task.implied])
      if (!other.isWanted) {
        other.isWanted = true
        want(other)
      }
  }
  for (const task of tasks) if (task.isRequired) want(task)
  const depthOf = (task: Task, seen: Set<Task>): number => {
    if (task.before.length === 0) return 0
    if (seen.has(task)) return 0
    const inside = new Set(seen).add(task)
    return task.before.reduce((depth, other) => Math.max(depth, depthOf(other, inside) + 1), 0)
  }
  for (const task of tasks) task.depth = depthOf(task, new Set())
  const first = new Map<Task, number>()
  for (const task of [...tasks].sort((a, b) => a.depth - b.depth)) {
    const waits = task.before.map((other) => (first.get(other) ?? 0) + (other.on === task.on ? 0 : 1))
    first.set(task, Math.max(0, task.earliest, task.partsFromDay ?? 0, ...waits))
  }
  // The deepest first: what waits knows its own last day before those it waits for. What can never be is no reason.
  for (const task of [...tasks].sort((a, b) => b.depth - a.depth))
    for (const other of task.next)
      if (other.isWanted && other.never === null && other.latestForNext >= first.get(other)!)
        task.latestForNext = Math.min(
          task.latestForNext,
          other.latestForNext - (other.on === task.on ? 0 : 1),
        )
  const grouped = new Set<Task>()
  for (const task of tasks) {
    if (grouped.has(task)) continue
    const group = new Set<Task>()
    const join = (each: Task) => {
      if (group.has(each)) return
      group.add(each)
      if (each.isWanted) each.implied.forEach(join)
      each.impliedBy.filter(({ isWanted }) => isWanted).forEach(join)
    }
    join(task)
    const members = [...group].sort((a, b) => b.impliedBy.length - a.impliedBy.length || a.index - b.index)
    const depth = members.reduce((most, each) => Math.max(most, each.depth), 0)
    for (const each of members) {
      each.group = members
      each.depth = depth
      grouped.add(each)
    }
  }
  return tasks
}

function dayCosts(task: PlanTask, horizon: number): Float64Array {
  const costs = new Float64Array(horizon)
  for (let day = 0; day < horizon; day++) costs[day] = dayCost(task, day)
  return costs
}

/** What a repeat costs by its day alone, from the first day of its window to the last that matters. */
function laterCosts(task: PlanTask, horizon: number): Float64Array {
  if (task.repeatEveryDays === undefined) return new Float64Array(0)
  const { earlyDays, lateDays } = reachOf(task)
  const costs = new Float64Array(Math.max(0, earlyDays + Math.min(lateDays, horizon) + 1))
  for (let at = 0; at < costs.length; at++) costs[at] = dayCost(task, at - earlyDays, 0)
  return costs
}

function cheapestDays({ earliest, latest }: PlanTask, costs: Float64Array): Int16Array {
  const days: number[] = []
  for (let day = Math.max(0, earliest); day <= Math.min(costs.length - 1, latest); day++) days.push(day)
  return Int16Array.from(days.sort((a, b) => costs[a]! - costs[b]! || a - b))
}

/** More than any plan of the problem can cost, so that leaving something out is never worth it. */
export function weightOfMissing(problem: PlanProblem): number {
  const { horizonDays, labourRatePerMinute, downtimeCostPerDay = 0 } = problem
  const machineOf = new Map(problem.machines.map((machine) => [machine.id, machine]))
  const ways = Math.max(0, ...Object.values(problem.travelMinutes ?? {}).flatMap((to) => Object.values(to)))
  let sum = 1
  for (const task of problem.tasks) {
    const machine = machineOf.get(task.machine)!
    const times = task.repeatEveryDays === undefined ? 1 : Math.ceil(horizonDays / task.repeatEveryDays) + 1
    const opening = task.access.reduce((total, node) => total + (machine.accessMinutes[node] ?? 0), 0)
    const people = task.people ?? 1
    const reach = Math.max(horizonDays, Math.abs(task.due)) + horizonDays
    const most = Math.max(
      0,
      reach * Math.max(Math.abs(task.earlyCostPerDay), Math.abs(task.lateCostPerDay)),
      ...(task.costByDay ?? []).map(Math.abs),
    )
    sum +=
      times *
        (machine.visitFixedCost +
          downtimeCostPerDay +
          labourRatePerMinute * people * (opening + task.minutes + (task.helperMinutes ?? 0) + 2 * ways) +
          most) +
      Math.abs(task.endCostPerDay ?? 0) * horizonDays
  }
  for (const { moveCost } of problem.present ?? []) sum += Math.abs(moveCost)
  return Math.max(1, Math.ceil(sum))
}
