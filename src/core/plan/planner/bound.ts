import type { Board } from './board'
import type { Machine, Task } from './linked'
import { dayCost, reachOf } from './dayCost'
import type { PlanProblem } from './types'

// Named once: where code runs apart from its globals, each look at one of them is slow.
const { abs, max, min } = Math
const endless = Infinity

export type MachineBound = {
  /** No plan of the placed tasks of the machine costs less. */
  least: number
  /** Each task's share, by day, of what is opened for it. */
  opening: Map<Task, Float64Array>
}

/** A thing that is paid once a day for all tasks that want it: the visit, or a node of the access tree. */
type Shared = { cost: number; users: number[]; isVisit: boolean; name: string }

/**
 * The least that the placed tasks can cost, whatever the crew: machine by machine, the cost of each visit and of each
 * opened node is shared out among the tasks that could use it on that day, and each task by itself takes its
 * cheapest days for its own cost and its shares. However the sharing is done, no plan costs less than the sum:
 * the plan pays each thing once and whole, the tasks together at most that. The sharing is then bettered by
 * subgradient steps (the Lagrangean dual of an uncapacitated location problem, with a shortest path for what repeats).
 *
 * Cornuejols, Nemhauser and Wolsey, The uncapacitated facility location problem, 1990.
 *
 * @param board the plan found; its cost, without ways, tells how far the steps go
 * @param rounds of sharing anew, at most
 */
export function boundOf(machine: Machine, board: Board, problem: PlanProblem, rounds: number): MachineBound {
  const { labourRatePerMinute: rate, downtimeCostPerDay = 0, horizonDays } = problem
  const placed = machine.tasks.filter(({ index }) => board.days[index]!.length > 0)
  const visits = [...board.visitOn[machine.index]!.values()]
  const fixedVisits = visits.filter(({ isFixed }) => isFixed)
  // What is booked costs what it costs; who joins pays neither the visit nor what is open already.
  let base = 0
  const openOn = new Map<number, Set<string>>()
  for (const { day, doing, ownHelpers } of fixedVisits) {
    const own = doing.filter(({ task, at }) => at < 0 || (at >= 0 && at < task.fixedDays.length))
    const nodes = new Set(own.flatMap(({ task }) => task.access))
    const minutes =
      own.reduce((sum, { task }) => sum + task.minutes, 0) +
      [...nodes].reduce((sum, node) => sum + (machine.accessMinutes[node] ?? 0), 0)
    const stays = own.some(({ task }) => (task.people ?? 1) > 1 && task.helperMinutes === undefined)
    const given = own.reduce((sum, { task }) => sum + (task.helperMinutes ?? 0), 0)
    base +=
      machine.visitFixedCost +
      downtimeCostPerDay +
      rate * (minutes + ownHelpers.length * (stays ? minutes : given))
    openOn.set(day, nodes)
  }
  for (const task of placed) if (task.fixedDays.length > 0) base += fixedCost(task)
  const free = placed.filter(
    (task) => task.isWanted && (task.fixedDays.length === 0 || task.repeatEveryDays !== undefined),
  )
  const optional = machine.tasks.filter(
    (task) => !task.isWanted && task.fixedDays.length === 0 && task.never === null,
  )
  const gains = optional.reduce((sum, task) => sum + min(0, leastDay(task, horizonDays)), 0)
  if (free.length === 0) return { least: base + gains, opening: new Map() }
  const chains = free.map((task) => new Chain(task, machine, board, problem))
  const shared = sharedOf(free, machine, rate, downtimeCostPerDay)
  const isFree = (each: Shared, day: number) =>
    each.isVisit ? openOn.has(day) : (openOn.get(day)?.has(each.name) ?? false)
  // Shares of each thing on each day: equal ones to begin with, among those that could be there on it.
  const shares = shared.map((each) => {
    const own = each.users.map(() => new Float64Array(horizonDays))
    for (let day = 0; day < horizonDays; day++) {
      if (isFree(each, day)) continue
      const sum = each.users.reduce((total, user) => total + chains[user]!.likes[day]!, 0)
      each.users.forEach((user, at) => {
        if (sum > 0) own[at]![day] = (each.cost * chains[user]!.likes[day]!) / sum
      })
    }
    return own
  })
  for (const [at, each] of shared.entries())
    each.users.forEach((user, which) => chains[user]!.shares.push(shares[at]![which]!))
  let value = 0
  for (const chain of chains) {
    chain.solve()
    value += chain.value
  }
  let best = value
  // What the plan pays for the same, as far as it is known: the steps aim there.
  const aim = board.costOf(machine) - base
  let pace = 2
  let idle = 0
  const there = shared.map(({ users }) => users.map((user) => chains[user]!.mayBe))
  const changed = new Set<number>()
  const uses: number[] = []
  for (let round = 0; round < rounds && best < aim - 1e-7; round++) {
    // Where some users of a thing are there on a day and others are not, the latter can take more of it.
    const moves: { at: number; day: number; here: number; count: number }[] = []
    let length = 0
    for (let at = 0; at < shared.length; at++) {
      const { users } = shared[at]!
      uses.length = 0
      for (const user of users) for (const day of chains[user]!.days) if (!uses.includes(day)) uses.push(day)
      for (const day of uses) {
        if (isFree(shared[at]!, day)) continue
        let here = 0
        let count = 0
        let may = 0
        for (let which = 0; which < users.length; which++) {
          if (!there[at]![which]![day]) continue
          may++
          if (!chains[users[which]!]!.days.includes(day)) continue
          count++
          here |= 1 << which
        }
        if (count === may) continue
        moves.push({ at, day, here, count: count / may })
        length += count * (1 - count / may) ** 2 + (may - count) * (count / may) ** 2
      }
    }
    if (length === 0) break
    const step = (pace * max(aim - value, 0.001 * abs(aim))) / length
    changed.clear()
    for (const { at, day, here, count } of moves) {
      const { users, cost } = shared[at]!
      const own = shares[at]!
      for (let which = 0; which < users.length; which++)
        if (there[at]![which]![day]) {
          own[which]![day]! += step * ((here & (1 << which) ? 1 : 0) - count)
          changed.add(users[which]!)
        }
      toShares(own, there[at]!, day, cost)
    }
    for (const user of changed) {
      value -= chains[user]!.value
      chains[user]!.solve()
      value += chains[user]!.value
    }
    if (value > best + 1e-9) {
      best = value
      idle = 0
    } else if (++idle >= 8) {
      pace /= 2
      idle = 0
      if (pace < 0.004) break
    }
  }
  return {
    least: base + gains + best,
    opening: new Map(chains.map((chain) => [chain.task, chain.opening()])),
  }
}

const sorted = new Float64Array(64)

/** Brings shares back to none below zero and a sum that is the cost: the nearest such (Held, Wolfe, Crowder 1974). */
function toShares(
  own: readonly Float64Array[],
  there: readonly Uint8Array[],
  day: number,
  cost: number,
): void {
  const room = own.length > sorted.length ? new Float64Array(own.length) : sorted
  let count = 0
  for (let at = 0; at < own.length; at++) {
    if (!there[at]![day]) continue
    // Kept in falling order as they come: a handful of tasks.
    const value = own[at]![day]!
    let place = count++
    for (; place > 0 && room[place - 1]! < value; place--) room[place] = room[place - 1]!
    room[place] = value
  }
  let sum = 0
  let cut = 0
  for (let at = 0; at < count; at++) {
    sum += room[at]!
    const candidate = (sum - cost) / (at + 1)
    if (room[at]! > candidate) cut = candidate
  }
  for (let at = 0; at < own.length; at++) if (there[at]![day]) own[at]![day] = max(0, own[at]![day]! - cut)
}

/** A bound at a glance, for a plan whose goodness nobody asks: the own work of what is placed, on its best days. */
export function plainBound(board: Board, { labourRatePerMinute: rate, horizonDays }: PlanProblem): number {
  let sum = 0
  for (const task of board.tasks)
    if (board.days[task.index]!.length > 0) sum += rate * task.minutes + leastDay(task, horizonDays)
  return sum
}

function sharedOf(tasks: Task[], machine: Machine, rate: number, downtime: number): Shared[] {
  const all = tasks.map((_, at) => at)
  const result: Shared[] = [{ cost: machine.visitFixedCost + downtime, users: all, isVisit: true, name: '' }]
  for (const node of new Set(tasks.flatMap(({ access }) => access))) {
    const users = all.filter((at) => tasks[at]!.access.includes(node))
    result.push({ cost: rate * (machine.accessMinutes[node] ?? 0), users, isVisit: false, name: node })
    // Helpers who stay the whole visit open it too.
    const stay = users.filter((at) => (tasks[at]!.people ?? 1) > 1 && tasks[at]!.helperMinutes === undefined)
    const least = min(...stay.map((at) => tasks[at]!.people! - 1))
    if (stay.length > 0)
      result.push({
        cost: rate * (machine.accessMinutes[node] ?? 0) * least,
        users: stay,
        isVisit: false,
        name: `helpers ${node}`,
      })
  }
  return result.filter(({ cost, users }) => cost > 0 && users.length > 0)
}

/** A task by itself: its cheapest days for its own cost and its shares of what it wants. */
class Chain {
  readonly mayBe: Uint8Array
  /** How much a day is like its own: who gives up least by coming there pays most of the first sharing. */
  readonly likes: Float64Array
  readonly shares: Float64Array[] = []
  days: number[] = []
  value = 0
  private readonly own: number
  private readonly sum: Float64Array
  private readonly tail: Float64Array
  private readonly next: Int16Array
  private readonly from: number
  private readonly to: number
  private readonly isLoose: boolean
  /** What the days themselves cost: of the first time by day, of a repeat by its distance from its due day. */
  private readonly first: Float64Array
  private readonly later: Float64Array
  private readonly earlyDays: number
  private readonly lateDays: number

  constructor(
    readonly task: Task,
    machine: Machine,
    private readonly board: Board,
    problem: PlanProblem,
  ) {
    const { horizonDays, labourRatePerMinute: rate } = problem
    const helper = (task.people ?? 1) - 1
    this.own = rate * (task.minutes + helper * (task.helperMinutes ?? task.minutes))
    this.sum = new Float64Array(horizonDays)
    this.tail = new Float64Array(horizonDays)
    this.next = new Int16Array(horizonDays)
    this.from = max(0, task.earliest, task.partsFromDay ?? 0)
    this.to = min(horizonDays - 1, task.latest)
    this.first = task.dayCosts.map((cost) => cost + this.own)
    const { earlyDays, lateDays } = reachOf(task)
    this.earlyDays = earlyDays
    this.lateDays = min(lateDays, horizonDays)
    this.later = task.laterCosts.map((cost) => cost + this.own)
    // Where the plan leaves out a repeat, a chain may end anywhere: the bound is of what is placed.
    this.isLoose = board.isBroken(task)
    this.mayBe = new Uint8Array(horizonDays)
    const able = problem.crew.filter(({ skills }) => task.skill === undefined || skills.includes(task.skill))
    for (let day = 0; day < horizonDays; day++) {
      const isThere =
        !machine.isBlocked[day] &&
        day >= (task.partsFromDay ?? 0) &&
        (task.repeatEveryDays !== undefined ? day >= this.from : day >= this.from && day <= this.to) &&
        able.some(({ minutesByDay }) => (minutesByDay[day] ?? 0) >= task.minutes)
      if (isThere) this.mayBe[day] = 1
    }
    // A day that the plan uses is one that may be used, whatever was reckoned above.
    for (const day of board.days[task.index]!) this.mayBe[day] = 1
    const opening =
      machine.visitFixedCost +
      (problem.downtimeCostPerDay ?? 0) +
      rate * task.access.reduce((total, node) => total + (machine.accessMinutes[node] ?? 0), 0)
    let least = endless
    for (let day = 0; day < horizonDays; day++) if (this.mayBe[day]) least = min(least, this.first[day]!)
    this.likes = new Float64Array(horizonDays)
    for (let day = 0; day < horizonDays; day++)
      if (this.mayBe[day])
        this.likes[day] =
          task.repeatEveryDays !== undefined && day > this.to
            ? 0.5
            : 0.001 + max(0, 1 - (this.first[day]! - least) / max(1e-9, opening))
  }

  /** All its shares together, by day. */
  opening(): Float64Array {
    const sum = new Float64Array(this.board.horizon)
    for (const share of this.shares) for (let day = 0; day < sum.length; day++) sum[day]! += share[day]!
    return sum
  }

  solve(): void {
    const { task, sum, tail, next, board, mayBe, later, earlyDays, lateDays } = this
    const { horizon } = board
    const every = task.repeatEveryDays
    const start = task.fixedDays[task.fixedDays.length - 1]
    const last = every === undefined ? this.to : horizon - 1
    const from = start === undefined ? this.from : start + 1
    for (let day = from; day <= last; day++) sum[day] = mayBe[day] ? 0 : endless
    for (const share of this.shares) for (let day = from; day <= last; day++) sum[day]! += share[day]!
    if (every !== undefined) {
      const end = task.endCostPerDay ?? 0
      for (let day = horizon - 1; day >= min(from, start ?? from); day--) {
        next[day] = -1
        const stop = end * (horizon - day)
        const due = day + every
        if (due >= horizon) {
          tail[day] = stop
          continue
        }
        let best = this.isLoose ? stop : endless
        const until = min(due + lateDays, horizon - 1)
        const shift = earlyDays - due
        for (let to = max(day + 1, due - earlyDays, 0); to <= until; to++) {
          const cost = sum[to]! + later[to + shift]! + tail[to]!
          if (cost < best) {
            best = cost
            next[day] = to
          }
        }
        tail[day] = best
      }
    }
    this.days = []
    if (start !== undefined) {
      this.value = tail[start]! - (task.endCostPerDay ?? 0) * (horizon - start)
      for (let day = next[start]!; day >= 0; day = next[day]!) this.days.push(day)
      return
    }
    let best = endless
    let first = -1
    for (let day = this.from; day <= this.to; day++) {
      const cost = sum[day]! + this.first[day]! + (every === undefined ? 0 : tail[day]!)
      if (cost < best) {
        best = cost
        first = day
      }
    }
    this.value = best
    for (let day = first; day >= 0; day = every === undefined ? -1 : next[day]!) this.days.push(day)
  }
}

/** What is charged for the days of a task that are fixed, and for the time after the last of them. */
function fixedCost(task: Task): number {
  let due = task.due
  let cost = 0
  for (const day of task.fixedDays) {
    cost += dayCost(task, day, due)
    due = day + (task.repeatEveryDays ?? 0)
  }
  return cost
}

/** The least that a day alone costs, for what need not be done. */
function leastDay(task: Task, horizon: number): number {
  let least = 0
  for (let day = max(0, task.earliest); day <= min(horizon - 1, task.latest); day++) {
    least = min(least, dayCost(task, day))
  }
  return least
}
