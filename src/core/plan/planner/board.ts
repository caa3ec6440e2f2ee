import { readBooked } from './booked'
import { chainCost, Chains, isBroken } from './chains'
import { Crew } from './crew'
import { repeatWindow } from './dayCost'
import { linkTasks, readMachines, weightOfMissing, yardsOf, type Machine, type Task } from './linked'
import type { PlanCrew, PlanProblem } from './types'
import { eps, type Visit } from './visit'
import { Visits, workOf, type Judging } from './visits'

// Named once: where code runs apart from its globals, each look at one of them is slow.
const { max, min } = Math
const endless = Infinity

/** A machine's part of a plan. Lists of visits are never changed in place, so they are kept as they are. */
export type SavedPart = {
  visits: Pick<Visit, 'day' | 'lead' | 'helpers' | 'doing' | 'work'>[]
  days: number[][]
}

const noVisits: readonly Visit[] = []
const nobodyHelps: readonly number[] = []

/**
 * A plan in the making: which task is done on which days, by which visits. All that is put on it keeps every
 * rule; what it costs is known after each change.
 */
export class Board {
  readonly horizon: number
  readonly tasks: Task[]
  readonly machines: Machine[]
  /** What one required task that is left out weighs: more than any plan costs. */
  readonly missingWeighs: number
  /** Days on which each task is done, in order. */
  readonly days: number[][]
  missing = 0
  /** Whether a task that others wait for is done early enough for their windows. */
  heedsNext = false
  readonly rate: number
  private readonly crewOf: Crew
  private readonly visits: Visits
  private readonly chains: Chains

  constructor(problem: PlanProblem) {
    const yards = yardsOf(problem)
    this.horizon = problem.horizonDays
    this.rate = problem.labourRatePerMinute
    this.machines = readMachines(problem, yards)
    this.tasks = linkTasks(problem, this.machines)
    this.days = this.tasks.map(() => [])
    this.missingWeighs = weightOfMissing(problem)
    this.crewOf = new Crew(problem, yards.length)
    this.visits = new Visits(problem, this.machines.length, this.crewOf)
    this.chains = new Chains(this.horizon, this.missingWeighs, (tasks, day) =>
      this.visits.addCost(tasks, day),
    )
    this.missing = this.tasks.filter(({ isRequired }) => isRequired).length
    for (const { machine: id, crew, day, moveCost } of problem.present ?? []) {
      const machine = this.machines.find((each) => each.id === id)
      const member = this.crewOf.indexOf(crew)
      this.visits.cost += moveCost
      if (machine && member >= 0 && day >= 0 && day < this.horizon)
        this.crewOf.tell(machine, day, member, moveCost)
    }
    this.putBooked(problem)
  }

  get crew(): readonly PlanCrew[] {
    return this.crewOf.members
  }

  /** Of each machine, by day. */
  get visitOn(): readonly ReadonlyMap<number, Visit>[] {
    return this.visits.on
  }

  get judging(): Judging {
    return this.visits.judging
  }

  get cost(): number {
    return this.visits.cost
  }

  get score(): number {
    return this.cost + this.missing * this.missingWeighs
  }

  /** Whether people were told of a visit to a machine. */
  isTold(machine: Machine): boolean {
    return this.crewOf.isTold(machine)
  }

  /** Puts what is booked where it stands; more than fits is taken as it is. */
  private putBooked(problem: PlanProblem): void {
    const { visits, times } = readBooked(problem, this)
    for (const { machine, day, lead, helpers, doing } of visits) {
      const known = this.visits.on[machine.index]!.get(day)
      // Two bookings of one machine on a day: the work of both is on the first, as it will be done.
      if (known) this.visits.putMore(known, doing)
      else {
        const work = workOf(machine, doing)
        this.visits.put({ machine, day, lead, helpers, doing, work, isFixed: true, ownHelpers: helpers })
      }
    }
    for (const [task, days] of times) {
      this.days[task.index]!.push(...days)
      task.fixedDays = days
      if (task.isRequired) this.missing--
      this.count(task)
    }
  }

  /** Whether the next time of a task that is done is due inside the horizon and found no day. */
  isBroken(task: Task): boolean {
    return isBroken(task, this.days[task.index]!, this.horizon)
  }

  /** Whether a task, or its next time, is wanted and found no day. */
  isMissing(task: Task): boolean {
    return this.days[task.index]!.length === 0 ? task.isRequired : this.isBroken(task)
  }

  /** Which rule keeps some tasks of a machine from a day, as the plan stands. */
  stopOn(tasks: readonly Task[], day: number): ReturnType<Visits['stopOn']> {
    return this.visits.stopOn(tasks, day)
  }

  /** What is paid on a machine, without ways and moves. */
  costOf(machine: Machine): number {
    let cost = 0
    for (const visit of this.visits.on[machine.index]!.values()) cost += this.visits.bare(visit)
    for (const task of machine.tasks) {
      const days = this.days[task.index]!
      if (days.length > 0) cost += chainCost(task, days, this.horizon)
    }
    return cost
  }

  /** Takes a task off every day but the fixed ones. */
  remove(task: Task): void {
    const days = this.days[task.index]!
    const { fixedDays } = task
    if (days.length === fixedDays.length) return
    this.uncount(task)
    for (let at = days.length - 1; at >= fixedDays.length; at--) this.visits.takeOff(task, days[at]!)
    days.length = fixedDays.length
    this.count(task)
  }

  private count(task: Task): void {
    const days = this.days[task.index]!
    if (days.length === 0) {
      if (task.isRequired) this.missing++
      return
    }
    this.visits.cost += chainCost(task, days, this.horizon)
    if (this.isBroken(task)) this.missing++
  }
  private uncount(task: Task): void {
    const days = this.days[task.index]!
    if (days.length === 0) {
      if (task.isRequired) this.missing--
      return
    }
    this.visits.cost -= chainCost(task, days, this.horizon)
    if (this.isBroken(task)) this.missing--
  }

  /** The days between which the first time of a task may lie, by its window and what comes before and after. */
  firstWindow(task: Task, together: readonly Task[] = task.group): { from: number; to: number } | null {
    if (task.never) return null
    let from = max(0, task.earliest, task.partsFromDay ?? 0)
    let to = min(this.horizon - 1, this.heedsNext ? task.latestForNext : task.latest)
    for (const other of task.before) {
      if (together.includes(other)) continue
      const [day] = this.days[other.index]!
      if (day === undefined) return null
      from = max(from, other.on === task.on ? day : day + 1)
    }
    for (const other of task.next) {
      if (together.includes(other)) continue
      const [day] = this.days[other.index]!
      if (day !== undefined) to = min(to, other.on === task.on ? day : day - 1)
    }
    return from <= to ? { from, to } : null
  }

  /** Days on which later times of a task may lie, because something else has to be on the same visit. */
  private laterDays(task: Task): ReadonlySet<number> | null {
    const chains = task.implied
      .filter(({ repeatEveryDays }) => repeatEveryDays !== undefined)
      .map(({ index }) => this.days[index]!)
    if (chains.length === 0) return null
    return new Set(chains[0]!.filter((day) => chains.every((days) => days.includes(day))))
  }

  /**
   * Puts a group of tasks that belong on one visit where it costs least, with their repeats; what has to be on
   * that visit besides and is on none comes along.
   *
   * @param keep only where the cost falls: for what need not be done
   * @param only the day of the first time, where that is given
   * @returns whether it stands there now
   */
  insert(group: readonly Task[], { keep = true, only }: { keep?: boolean; only?: number } = {}): boolean {
    const wanted: Task[] = []
    let from = 0
    let to = this.horizon - 1
    for (const task of closure(group)) {
      const [day] = this.days[task.index]!
      if (day !== undefined) {
        from = max(from, day)
        to = min(to, day)
        continue
      }
      if (task.on !== group[0]!.on) return false
      wanted.push(task)
    }
    for (const task of wanted) {
      const window = this.firstWindow(task, wanted)
      if (!window) return false
      from = max(from, window.from)
      to = min(to, window.to)
    }
    if (only !== undefined) {
      from = max(from, only)
      to = min(to, only)
    }
    // What was fixed for a first time has only its repeats to place.
    const rest = group.filter((task) => task.fixedDays.length > 0)
    if (wanted.length === 0) return rest.reduce((done, task) => this.follow(task) && done, true)
    if (from > to) return false
    const tails = wanted.map((task) => this.chains.tails(task, from, null))
    let best = endless
    let first = -1
    const look = (day: number) => {
      let sum = this.visits.addCost(wanted, day)
      if (sum === endless) return false
      for (let at = 0; at < wanted.length; at++) sum += wanted[at]!.dayCosts[day]! + tails[at]!.cost[day]!
      if (sum < best) {
        best = sum
        first = day
      }
      return true
    }
    const [one] = wanted as [Task]
    if (
      wanted.length === 1 &&
      one.repeatEveryDays === undefined &&
      !this.judging.lure &&
      !this.judging.shares &&
      !this.isTold(one.on)
    ) {
      // A visit of its own costs the same on every day but for ways: the first day that takes one is the cheapest.
      const least = one.on.nearest.length > 0 ? one.on.ways[one.on.nearest[0]!]! : 0
      for (let at = 0; at < one.cheapestDays.length; at++) {
        const day = one.cheapestDays[at]!
        if (day < from || day > to || this.visits.on[one.on.index]!.has(day)) continue
        if (look(day) && least === 0 && this.visits.ownWays === 0) break
      }
      for (const day of this.visits.on[one.on.index]!.keys()) if (day >= from && day <= to) look(day)
    } else for (let day = from; day <= to; day++) look(day)
    if (first < 0 || (!keep && best >= -eps)) return false
    const doing = wanted.map((task) => ({ task, at: 0 }))
    if (!this.visits.add(doing, first)) return false
    for (const task of wanted) {
      this.uncount(task)
      this.days[task.index]!.push(first)
      this.count(task)
    }
    // The chain that was reckoned still holds, unless another task of the visit has put something on its days.
    const isAlone = wanted.length === 1 && wanted[0]!.implied.length === 0
    for (const task of wanted) this.follow(task, isAlone ? tails[0]!.next : undefined)
    for (const task of rest) this.follow(task)
    return true
  }

  /** Puts the repeats of a task after the times that it has. @returns whether all of them found a day */
  private follow(task: Task, known?: Int16Array): boolean {
    if (task.repeatEveryDays === undefined) return true
    const days = this.days[task.index]!
    const start = days[days.length - 1]!
    if (start + task.repeatEveryDays >= this.horizon) return true
    const next = known ?? this.chains.tails(task, start, this.laterDays(task)).next
    this.uncount(task)
    for (let day = next[start]!; day >= 0; day = next[day]!) {
      if (!this.visits.add([{ task, at: days.length }], day)) break
      days.push(day)
    }
    this.count(task)
    return !this.isBroken(task)
  }

  /** Puts a task where a plan has it, as far as the rules allow. @returns whether all of it stands there */
  putAt(group: readonly Task[], day: number, lead: number): boolean {
    if (group.some((task) => this.days[task.index]!.length > 0)) return false
    for (const task of group) {
      const window = this.firstWindow(task, group)
      if (!window || day < window.from || day > window.to) return false
    }
    const doing = group.map((task) => ({ task, at: 0 }))
    if (!this.visits.add(doing, day, lead)) return false
    for (const task of group) {
      this.uncount(task)
      this.days[task.index]!.push(day)
      this.count(task)
    }
    return true
  }

  /** Puts the next time of a repeating task on a day. */
  putNext(task: Task, day: number, lead: number): boolean {
    const days = this.days[task.index]!
    const last = days[days.length - 1]
    if (last === undefined || task.repeatEveryDays === undefined) return false
    const window = repeatWindow(task, last)
    if (window.due >= this.horizon || day < window.from || day > window.to) return false
    if (day >= this.horizon || this.laterDays(task)?.has(day) === false) return false
    if (!this.visits.add([{ task, at: days.length }], day, lead)) return false
    this.uncount(task)
    days.push(day)
    this.count(task)
    return true
  }

  /** A machine's part of the plan, to come back to. */
  save(machine: Machine): SavedPart {
    const visits: SavedPart['visits'] = []
    for (const { day, lead, helpers, doing, work } of this.visits.on[machine.index]!.values())
      visits.push({ day, lead, helpers, doing, work })
    const days: number[][] = []
    for (const { index } of machine.tasks) days.push(this.days[index]!.slice())
    return { visits, days }
  }

  /** Takes a machine's part of the plan away, to be laid out again from what was saved. */
  clear(machine: Machine): void {
    for (const task of machine.tasks) this.uncount(task)
    for (const visit of this.visits.on[machine.index]!.values()) this.visits.unload(visit)
  }

  /** Lays out what was saved of a machine that was cleared. */
  lay(machine: Machine, { visits, days }: SavedPart): void {
    const own = this.visits.on[machine.index]!
    const fixed = machine.hasFixed ? [...own.values()].filter(({ isFixed }) => isFixed) : noVisits
    own.clear()
    for (const { day, lead, helpers, doing, work } of visits) {
      const ownHelpers = fixed.find((each) => each.day === day)?.ownHelpers
      this.visits.put({
        machine,
        day,
        lead,
        helpers,
        doing,
        work,
        isFixed: ownHelpers !== undefined,
        ownHelpers: ownHelpers ?? nobodyHelps,
      })
    }
    machine.tasks.forEach((task, at) => {
      const now = this.days[task.index]!
      now.length = 0
      now.push(...days[at]!)
      this.count(task)
    })
  }
}

/** What has to be on the visit of some tasks, and on that of those. */
function closure(group: readonly Task[]): Task[] {
  if (group.length === 1 && group[0]!.implied.length === 0) return [group[0]!]
  const all = new Set<Task>()
  const take = (task: Task) => {
    if (all.has(task)) return
    all.add(task)
    task.implied.forEach(take)
  }
  group.forEach(take)
  // What is implied first: its repeats are where the others' may be.
  return [...all].sort((a, b) => Number(b.impliedBy.length > 0) - Number(a.impliedBy.length > 0))
}
