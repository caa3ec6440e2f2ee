import type { Machine, Task } from './linked'
import type { PlanCrew, PlanProblem } from './types'
import { eps, type Doing, type Visit } from './visit'
import type { VisitWork } from './visitWork'

const { max } = Math
const endless = Infinity
const nobody: readonly Doing[] = []

/** Who does a visit, and what their ways cost less what is saved where people find it as they were told. */
export type Chosen = { lead: number; helpers: number[]; cost: number }

/**
 * The people of a plan: what each has left of every day's minutes, which yards they go to, what they may lead,
 * and what they were told. A member is a number in the list of the crew, -1 somebody who is not in it.
 */
export class Crew {
  readonly members: PlanCrew[]
  private readonly days: number
  private readonly rate: number
  private readonly yardCount: number
  private readonly capacity: Float64Array
  private readonly load: Float64Array
  private readonly trips: Int16Array
  private readonly hasSkill: Set<string>[]
  private readonly toldMachines = new Set<number>()
  private readonly told = new Map<number, { member: number; cost: number }[]>()

  constructor({ crew, horizonDays, labourRatePerMinute }: PlanProblem, yardCount: number) {
    this.members = crew
    this.days = horizonDays
    this.rate = labourRatePerMinute
    this.yardCount = yardCount
    this.capacity = new Float64Array(crew.length * horizonDays)
    crew.forEach((member, index) => {
      for (let day = 0; day < horizonDays; day++)
        this.capacity[index * horizonDays + day] = member.minutesByDay[day] ?? 0
    })
    this.load = new Float64Array(crew.length * horizonDays)
    this.trips = new Int16Array(crew.length * horizonDays * max(1, yardCount))
    this.hasSkill = crew.map(({ skills }) => new Set(skills))
  }

  indexOf(id: string): number {
    return this.members.findIndex((member) => member.id === id)
  }

  /** A member was told of a visit to a machine on a day; to change that costs something. */
  tell(machine: Machine, day: number, member: number, cost: number): void {
    const key = machine.index * this.days + day
    this.toldMachines.add(machine.index)
    this.told.set(key, [...(this.told.get(key) ?? []), { member, cost }])
  }

  /** Whether people were told of a visit to a machine. */
  isTold(machine: Machine): boolean {
    return this.toldMachines.has(machine.index)
  }

  private isToldOn(machine: Machine, day: number): boolean {
    return this.told.has(machine.index * this.days + day)
  }

  /** What is saved where the people who were told of a visit find it as they were told. */
  keptOf(machine: Machine, day: number, lead: number): number {
    const told = this.told.get(machine.index * this.days + day)
    if (!told) return 0
    return told.reduce((sum, { member, cost }) => sum + (member === lead ? cost : 0), 0)
  }

  /** What the way to a machine still costs a member on a day: nothing where they go to its yard anyway. */
  wayCost(member: number, day: number, machine: Machine): number {
    return this.wayOf(member, day, machine) * this.rate
  }

  /** Minutes that a member would still spend on the way to a yard on a day. */
  private wayOf(member: number, day: number, machine: Machine): number {
    if (machine.yardIndex < 0 || member < 0) return 0
    const way = machine.ways[member]!
    return way === 0 || this.trips[this.tripAt(member, day, machine.yardIndex)]! > 0 ? 0 : way
  }
  private tripAt(member: number, day: number, yard: number): number {
    return (member * this.days + day) * this.yardCount + yard
  }

  /** Gives a member some minutes of work at a machine, or takes them back. @returns what their ways cost more */
  give(member: number, day: number, machine: Machine, minutes: number, sign: 1 | -1): number {
    if (member < 0) return 0
    const at = member * this.days + day
    let ways = 0
    if (machine.yardIndex >= 0) {
      const trip = this.tripAt(member, day, machine.yardIndex)
      if (sign < 0) this.trips[trip]!--
      const way = this.wayOf(member, day, machine)
      if (sign > 0) this.trips[trip]!++
      this.load[at]! += sign * way
      ways = sign * way * this.rate
    }
    this.load[at]! += sign * minutes
    return ways
  }

  private mayLead(member: number, tasks: readonly Task[], doing: readonly Doing[]): boolean {
    const skills = this.hasSkill[member]!
    for (const { skill } of tasks) if (skill !== undefined && !skills.has(skill)) return false
    for (const { task } of doing) if (task.skill !== undefined && !skills.has(task.skill)) return false
    return true
  }

  /** Minutes that a member has left on a day for a machine, the way there and back taken off. */
  private leftOf(member: number, day: number, machine: Machine): number {
    const at = member * this.days + day
    return this.capacity[at]! - this.load[at]! - this.wayOf(member, day, machine) + eps
  }

  /** Whether a member who goes there anyway has some more minutes on a day. */
  private hasMore(member: number, day: number, minutes: number): boolean {
    const at = member * this.days + day
    return this.load[at]! + minutes <= this.capacity[at]! + eps
  }

  /** Whether anybody who may lead some tasks has the time for them on a day. */
  canLead(machine: Machine, day: number, tasks: readonly Task[], work: VisitWork): boolean {
    return machine.nearest.some(
      (member) => this.leftOf(member, day, machine) >= work.minutes && this.mayLead(member, tasks, nobody),
    )
  }

  /**
   * What the ways of the cheapest crew cost; most days somebody of the yard can take a new visit.
   *
   * @returns Infinity where nobody can
   */
  leastWays(machine: Machine, day: number, tasks: readonly Task[], work: VisitWork): number {
    if (work.helpers > 0 || this.isToldOn(machine, day))
      return this.choose(machine, day, tasks, nobody, work, false)?.cost ?? endless
    let least = endless
    for (let at = 0; at < machine.nearest.length; at++) {
      const member = machine.nearest[at]!
      const way = this.wayOf(member, day, machine)
      if (way * this.rate >= least) continue
      const where = member * this.days + day
      if (this.capacity[where]! - this.load[where]! - way + eps < work.minutes) continue
      if (!this.mayLead(member, tasks, nobody)) continue
      least = way * this.rate
      if (least === 0) break
    }
    return least
  }

  /**
   * Who would do it for least, of those who may and have the time: the lead, then helpers.
   *
   * @param fit takes the one with least time left over, where several cost the same
   * @returns null where nobody can
   */
  choose(
    machine: Machine,
    day: number,
    tasks: readonly Task[],
    doing: readonly Doing[],
    work: VisitWork,
    fit: boolean,
    only = -1,
  ): Chosen | null {
    const told = this.isToldOn(machine, day)
    let lead = -1
    let least = endless
    let spare = endless
    for (const member of machine.nearest) {
      if (only >= 0 && member !== only) continue
      const left = this.leftOf(member, day, machine)
      if (left < work.minutes || !this.mayLead(member, tasks, doing)) continue
      const cost = this.wayCost(member, day, machine) - (told ? this.keptOf(machine, day, member) : 0)
      if (cost < least - eps || (fit && cost < least + eps && left < spare)) {
        lead = member
        least = cost
        spare = left
        if (!fit && !told && cost <= 0) break
      }
    }
    if (lead < 0) return null
    const helpers: number[] = []
    while (helpers.length < work.helpers) {
      let best = -1
      let bestCost = endless
      let bestLeft = endless
      for (const member of machine.nearest) {
        if (member === lead || helpers.includes(member)) continue
        const left = this.leftOf(member, day, machine)
        if (left < work.helperMinutes) continue
        const cost = this.wayCost(member, day, machine)
        if (cost < bestCost - eps || (cost < bestCost + eps && left < bestLeft)) {
          best = member
          bestCost = cost
          bestLeft = left
        }
      }
      if (best < 0) return only >= 0 ? null : this.otherLead(machine, day, tasks, doing, work)
      helpers.push(best)
      least += bestCost
    }
    return { lead, helpers, cost: least }
  }

  /** Where the cheapest lead leaves nobody to help: every pair of lead and helpers, nearest first. */
  private otherLead(
    machine: Machine,
    day: number,
    tasks: readonly Task[],
    doing: readonly Doing[],
    work: VisitWork,
  ): Chosen | null {
    let best: Chosen | null = null
    for (const lead of machine.nearest) {
      if (this.leftOf(lead, day, machine) < work.minutes || !this.mayLead(lead, tasks, doing)) continue
      const helpers = machine.nearest
        .filter((member) => member !== lead && this.leftOf(member, day, machine) >= work.helperMinutes)
        .map((member) => ({ member, cost: this.wayCost(member, day, machine) }))
        .sort((a, b) => a.cost - b.cost)
        .slice(0, work.helpers)
      if (helpers.length < work.helpers) continue
      const cost =
        this.wayCost(lead, day, machine) -
        this.keptOf(machine, day, lead) +
        helpers.reduce((sum, each) => sum + each.cost, 0)
      if (!best || cost < best.cost) best = { lead, helpers: helpers.map(({ member }) => member), cost }
    }
    return best
  }

  /** Whether the crew that a visit has can do more on it, so that it takes this much work. */
  canDoMore(visit: Visit, tasks: readonly Task[], work: VisitWork): boolean {
    if (work.helpers > visit.helpers.length || !this.mayLead(visit.lead, tasks, nobody)) return false
    const { day } = visit
    if (!this.hasMore(visit.lead, day, work.minutes - visit.work.minutes)) return false
    const more = work.helperMinutes - visit.work.helperMinutes
    return visit.helpers.every((member) => this.hasMore(member, day, more))
  }

  /** Helpers with whom more is done on a fixed visit: those it has, and others; null where it cannot be. */
  helpersToo(visit: Visit, tasks: readonly Task[], work: VisitWork): number[] | null {
    const { day, machine, lead } = visit
    if (lead < 0 || !this.mayLead(lead, tasks, nobody)) return null
    if (!this.hasMore(lead, day, work.minutes - visit.work.minutes)) return null
    const more = work.helperMinutes - visit.work.helperMinutes
    if (!visit.helpers.every((helper) => helper < 0 || this.hasMore(helper, day, more))) return null
    const helpers = [...visit.helpers]
    const others = machine.nearest
      .filter((member) => member !== lead && !helpers.includes(member))
      .filter((member) => this.leftOf(member, day, machine) >= work.helperMinutes)
      .sort((a, b) => this.wayOf(a, day, machine) - this.wayOf(b, day, machine))
    while (helpers.length < work.helpers) {
      const next = others.shift()
      if (next === undefined) return null
      helpers.push(next)
    }
    return helpers
  }
}
