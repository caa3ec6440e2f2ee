import { Crew } from './crew'
import type { Machine, Task } from './linked'
import { Means } from './means'
import type { PlanProblem } from './types'
import type { Doing, Visit } from './visit'
import { visitWork, type VisitWork } from './visitWork'

// Named once: where code runs apart from its globals, each look at one of them is slow.
const { max, min } = Math
const endless = Infinity

const none: readonly Task[] = []
const nobody: readonly Doing[] = []

/** What a day for some tasks weighs while they are being judged, besides what it costs. */
export type Judging = {
  /** Whether opening costs a task its share of it, as the bound has it. */
  shares: boolean
  /** What opening something weighs; below 1 it counts on others to share it. */
  openingWeighs: number
  /** A day that is made more tempting, and by how much. */
  lure: { day: number; worth: number } | null
}

/**
 * The visits of a plan in the making, with what they cost: who does what on which day. All that is added keeps
 * the rules of people, benches, tools and parts; when a task may be done is not asked here.
 */
export class Visits {
  /** Of each machine, by day. */
  readonly on: Map<number, Visit>[]
  readonly judging: Judging = { shares: false, openingWeighs: 1, lure: null }
  /** Of the plan so far; whoever puts tasks on days adds what the days cost. */
  cost = 0
  /** What the ways of the new visit that was judged last would cost. */
  ownWays = 0
  private readonly means: Means
  private readonly rate: number
  private readonly downtime: number

  constructor(
    problem: PlanProblem,
    machineCount: number,
    private readonly crew: Crew,
  ) {
    this.on = Array.from({ length: machineCount }, () => new Map<number, Visit>())
    this.means = new Means(problem)
    this.rate = problem.labourRatePerMinute
    this.downtime = problem.downtimeCostPerDay ?? 0
  }

  /** Puts a visit where it stands, more than fits taken as it is. */
  put(visit: Visit): void {
    this.on[visit.machine.index]!.set(visit.day, visit)
    this.load(visit)
  }

  /** Puts more on a visit than it holds, whatever it breaks. */
  putMore(visit: Visit, doing: readonly Doing[]): void {
    this.unload(visit)
    visit.doing = [...visit.doing, ...doing]
    visit.work = workOf(visit.machine, visit.doing)
    this.load(visit)
  }

  private load(visit: Visit): void {
    this.change(visit, 1)
  }
  unload(visit: Visit): void {
    this.change(visit, -1)
  }

  private change(visit: Visit, sign: 1 | -1): void {
    const { machine, day, lead, helpers, work } = visit
    this.cost += this.crew.give(lead, day, machine, work.minutes, sign)
    for (const helper of helpers) this.cost += this.crew.give(helper, day, machine, work.helperMinutes, sign)
    this.cost += sign * this.bare(visit)
    this.cost -= sign * this.crew.keptOf(machine, day, lead)
    this.means.take(visit, sign)
  }

  /** What a visit costs by itself, without ways and whom was told. */
  bare({ machine, work, helpers }: Visit): number {
    return (
      machine.visitFixedCost +
      this.downtime +
      this.rate * (work.minutes + work.helperMinutes * helpers.length)
    )
  }

  /** Which rule keeps some tasks of a machine from a day, as the plan stands. */
  stopOn(tasks: readonly Task[], day: number): 'parts' | 'tool' | 'bench' | 'helpers' | 'minutes' {
    const machine = tasks[0]!.on
    const visit = this.on[machine.index]!.get(day)
    if (!this.means.hasRoom(tasks, day, visit)) return this.means.shortOf(tasks, day, visit)
    const work = visitWork(machine, tasks)
    return work.helpers > 0 && this.crew.canLead(machine, day, tasks, work) ? 'helpers' : 'minutes'
  }

  /**
   * What it adds to the cost to do some tasks of one machine on a day, the days' own costs not counted.
   *
   * @returns Infinity where a rule forbids it
   */
  addCost(tasks: readonly Task[], day: number): number {
    const { lure } = this.judging
    const cost = this.costOn(tasks, day)
    return lure?.day === day ? cost - lure.worth : cost
  }

  private costOn(tasks: readonly Task[], day: number): number {
    const machine = tasks[0]!.on
    const visit = this.on[machine.index]!.get(day)
    if (!this.means.hasRoom(tasks, day, visit)) return endless
    if (!visit) return this.newCost(tasks, day)
    const before = visit.work
    const work = visitWork(machine, [...visit.doing.map(({ task }) => task), ...tasks])
    if (visit.isFixed) return this.joinCost(visit, tasks, work)
    const labour =
      this.rate *
      (work.minutes -
        before.minutes +
        work.helpers * work.helperMinutes -
        before.helpers * before.helperMinutes)
    if (this.crew.canDoMore(visit, tasks, work)) return labour
    this.unload(visit)
    const was = this.cost
    const crew = this.crew.choose(machine, day, tasks, visit.doing, work, false)
    this.load(visit)
    if (!crew) return endless
    // What the present crew costs by its ways and whom was told, against the new one.
    const present = this.cost - was - this.bare(visit)
    return labour + crew.cost - present
  }

  /** What a visit of its own costs. */
  private newCost(tasks: readonly Task[], day: number): number {
    const machine = tasks[0]!.on
    const work = tasks.length === 1 ? tasks[0]!.aloneWork : visitWork(machine, tasks)
    const ways = this.crew.leastWays(machine, day, tasks, work)
    if (ways === endless) return endless
    this.ownWays = ways
    const own = tasks.length === 1 ? tasks[0]!.minutes : tasks.reduce((sum, { minutes }) => sum + minutes, 0)
    const opening = machine.visitFixedCost + this.downtime + this.rate * (work.minutes - own)
    return this.openingOf(tasks, day, opening) + this.rate * (own + work.helpers * work.helperMinutes) + ways
  }

  /** What more on a fixed visit costs: its people stay, others may come to help. */
  private joinCost(visit: Visit, tasks: readonly Task[], work: VisitWork): number {
    const { machine, day, work: before } = visit
    const helpers = this.crew.helpersToo(visit, tasks, work)
    if (!helpers) return endless
    return (
      this.rate *
        (work.minutes -
          before.minutes +
          helpers.length * work.helperMinutes -
          visit.helpers.length * before.helperMinutes) +
      helpers
        .slice(visit.helpers.length)
        .reduce((sum, member) => sum + this.crew.wayCost(member, day, machine), 0)
    )
  }

  /** What opening counts for while an insertion is judged. */
  private openingOf(tasks: readonly Task[], day: number, whole: number): number {
    const { shares, openingWeighs } = this.judging
    if (!shares) return whole * openingWeighs
    let share = 0
    for (const { opening } of tasks) share += opening ? opening[day]! : whole
    return min(whole, share * openingWeighs)
  }

  /** Puts some tasks of one machine on a day. @returns whether a rule allowed it; nothing changes where not */
  add(doing: readonly Doing[], day: number, lead = -1): boolean {
    const tasks = doing.map(({ task }) => task)
    const machine = tasks[0]!.on
    const visit = this.on[machine.index]!.get(day)
    if (!this.means.hasRoom(tasks, day, visit)) return false
    const work = visitWork(machine, [...(visit?.doing.map(({ task }) => task) ?? none), ...tasks])
    if (!visit) {
      const crew =
        (lead >= 0 ? this.crew.choose(machine, day, tasks, nobody, work, true, lead) : null) ??
        this.crew.choose(machine, day, tasks, nobody, work, true)
      if (!crew) return false
      const { lead: leads, helpers } = crew
      this.put({
        machine,
        day,
        lead: leads,
        helpers,
        doing: [...doing],
        work,
        isFixed: false,
        ownHelpers: [],
      })
      return true
    }
    if (visit.isFixed) {
      const helpers = this.crew.helpersToo(visit, tasks, work)
      if (!helpers) return false
      this.unload(visit)
      visit.helpers = helpers
    } else if (this.crew.canDoMore(visit, tasks, work)) this.unload(visit)
    else {
      this.unload(visit)
      const crew = this.crew.choose(machine, day, tasks, visit.doing, work, true)
      if (!crew) {
        this.load(visit)
        return false
      }
      visit.lead = crew.lead
      visit.helpers = crew.helpers
    }
    visit.doing = [...visit.doing, ...doing]
    visit.work = work
    this.load(visit)
    return true
  }

  /** Takes a task off a day; a visit that is left with nothing is gone. */
  takeOff(task: Task, day: number): void {
    const visits = this.on[task.on.index]!
    const visit = visits.get(day)!
    this.unload(visit)
    visit.doing = visit.doing.filter((each) => each.task !== task || each.at < 0)
    if (visit.doing.length === 0 && !visit.isFixed) {
      visits.delete(day)
      return
    }
    visit.work = workOf(visit.machine, visit.doing)
    visit.helpers = visit.helpers.slice(0, max(visit.work.helpers, visit.ownHelpers.length))
    this.load(visit)
  }
}

/** What a visit takes with all that is done on it. */
export const workOf = (machine: Machine, doing: readonly Doing[]): VisitWork =>
  visitWork(
    machine,
    doing.map(({ task }) => task),
  )
