import { dayCost, reachOf, repeatWindow } from './dayCost'
import { linkTasks, weightOfMissing, type Machine, type Task } from './linked'
import { readOccurrence } from './occurrences'
import type { PlanCrew, PlanProblem } from './types'
import { travelBoth, visitWork, type VisitWork } from './visitWork'

// Named once: where code runs apart from its globals, each look at one of them is slow.
const { max, min } = Math
const endless = Infinity

/** One time of a task on a visit: `at` is 0 for the first, -1 where a fixed visit names it a second time. */
type Doing = { task: Task; at: number }

export type Visit = {
  machine: Machine
  day: number
  lead: number
  helpers: number[]
  doing: Doing[]
  work: VisitWork
  isFixed: boolean
  /** Helpers that a fixed visit has whatever is done on it. */
  ownHelpers: readonly number[]
}

/** A machine's part of a plan. Lists of visits are never changed in place, so they are kept as they are. */
type Saved = { visits: Pick<Visit, 'day' | 'lead' | 'helpers' | 'doing' | 'work'>[]; days: number[][] }

const eps = 1e-7
const none: readonly Task[] = []
const nobody: readonly Doing[] = []
const noVisits: readonly Visit[] = []
const nobodyHelps: readonly number[] = []

/**
 * A plan in the making: who does what on which day, with what is left of everybody's minutes, benches, tools
 * and parts. All that is put on it keeps every rule; what it costs is known after each change.
 */
export class Board {
  readonly horizon: number
  readonly tasks: Task[]
  readonly machines: Machine[]
  readonly crew: PlanCrew[]
  /** What one required task that is left out weighs: more than any plan costs. */
  readonly missingWeighs: number
  /** Days on which each task is done, in order. */
  readonly days: number[][]
  readonly visitOn: Map<number, Visit>[]
  readonly unknown: { visit: number; task: string; why: 'unknown' | 'once' }[] = []
  cost = 0
  missing = 0
  /** What the ways of the new visit that was judged last would cost. */
  private ownWays = 0
  /** Whether a task that others wait for is done early enough for their windows. */
  heedsNext = false
  /** Whether opening costs a task its share of it, as the bound has it, while an insertion is judged. */
  shares = false
  /** A day that is made more tempting while an insertion is judged, and by how much. */
  lure: { day: number; worth: number } | null = null
  /** What opening something weighs while an insertion is judged; below 1 it counts on others to share it. */
  openingWeighs = 1

  readonly rate: number
  private readonly capacity: Float64Array
  private readonly load: Float64Array
  private readonly hasSkill: Set<string>[]
  private readonly yardCount: number
  private readonly trips: Int16Array
  private readonly places: number[]
  private readonly benchUsed: Int16Array
  private readonly toolCount: number[]
  private readonly toolUsed: Int16Array
  private readonly partSlack: Float64Array[]
  private readonly partFree: Float64Array[]
  private readonly partUsed: Float64Array[]
  /** The chain of what does not come again. */
  private readonly once: { cost: Float64Array; next: Int16Array }
  private readonly toldMachines = new Set<number>()
  private readonly told: Map<number, { member: number; cost: number }[]>

  constructor(private readonly problem: PlanProblem) {
    const { horizonDays, crew } = problem
    this.horizon = horizonDays
    this.rate = problem.labourRatePerMinute
    this.crew = crew
    const yards = [
      ...new Set([...crew.map(({ yard }) => yard), ...problem.machines.map(({ yard }) => yard)]),
    ].filter((yard): yard is string => yard !== undefined)
    this.yardCount = yards.length
    this.capacity = new Float64Array(crew.length * horizonDays)
    crew.forEach((member, index) => {
      for (let day = 0; day < horizonDays; day++)
        this.capacity[index * horizonDays + day] = member.minutesByDay[day] ?? 0
    })
    this.load = new Float64Array(crew.length * horizonDays)
    this.trips = new Int16Array(crew.length * horizonDays * max(1, this.yardCount))
    this.hasSkill = crew.map(({ skills }) => new Set(skills))
    const benches = problem.benches ?? []
    this.places = benches.map(({ places }) => places)
    this.benchUsed = new Int16Array(max(1, benches.length) * horizonDays)
    const tools = problem.tools ?? []
    this.toolCount = tools.map(({ count }) => count)
    this.toolUsed = new Int16Array(max(1, tools.length) * horizonDays)
    const stock = problem.stock ?? []
    this.partFree = stock.map(({ byDay }) =>
      Float64Array.from({ length: horizonDays }, (_, day) => byDay[day] ?? byDay[byDay.length - 1] ?? 0),
    )
    this.partUsed = stock.map(() => new Float64Array(horizonDays))
    this.partSlack = stock.map(() => new Float64Array(horizonDays))
    stock.forEach((_, index) => this.countPart(index))
    this.machines = problem.machines.map((machine, index) => {
      const isBlocked = new Uint8Array(horizonDays)
      const ways = Float64Array.from(crew, ({ yard }) =>
        travelBoth(problem.travelMinutes, yard, machine.yard),
      )
      for (const day of machine.blockedDays) if (day >= 0 && day < horizonDays) isBlocked[day] = 1
      return {
        index,
        isBlocked,
        yardIndex: machine.yard === undefined ? -1 : yards.indexOf(machine.yard),
        benchIndex: benches.findIndex(({ yard }) => yard === machine.yard),
        tasks: [],
        ways,
        hasFixed: (problem.fixed ?? []).some((fixed) => fixed.machine === machine.id),
        nearest: crew.map((_, at) => at).sort((a, b) => ways[a]! - ways[b]!),
        ...machine,
      }
    })
    this.tasks = linkTasks(problem, this.machines)
    this.days = this.tasks.map(() => [])
    this.visitOn = this.machines.map(() => new Map())
    this.told = new Map()
    this.once = { cost: new Float64Array(horizonDays), next: new Int16Array(horizonDays).fill(-1) }
    this.missingWeighs = weightOfMissing(problem)
    this.missing = this.tasks.filter(({ isRequired }) => isRequired).length
    for (const each of problem.present ?? []) {
      const machine = this.machines.find(({ id }) => id === each.machine)
      const member = crew.findIndex(({ id }) => id === each.crew)
      this.cost += each.moveCost
      if (!machine || member < 0 || each.day < 0 || each.day >= horizonDays) continue
      const key = machine.index * horizonDays + each.day
      this.toldMachines.add(machine.index)
      this.told.set(key, [...(this.told.get(key) ?? []), { member, cost: each.moveCost }])
    }
    this.putFixed()
  }

  /** Whether people were told of a visit to a machine. */
  isTold(machine: Machine): boolean {
    return this.toldMachines.has(machine.index)
  }

  get score(): number {
    return this.cost + this.missing * this.missingWeighs
  }

  /** Puts what is booked where it stands; more than fits is taken as it is. */
  private putFixed(): void {
    const taskOf = new Map(this.tasks.map((task) => [task.id, task]))
    const chains = new Map<Task, { at: number; day: number; doing: Doing }[]>()
    for (const [index, fixed] of (this.problem.fixed ?? []).entries()) {
      const machine = this.machines.find(({ id }) => id === fixed.machine)
      if (!machine || fixed.day < 0 || fixed.day >= this.horizon) continue
      const doing: Doing[] = []
      for (const id of fixed.tasks) {
        const read = readOccurrence(id, (each) => taskOf.get(each)?.on === machine)
        if (!read) {
          this.unknown.push({ visit: index, task: id, why: 'unknown' })
          continue
        }
        const task = taskOf.get(read.id)!
        const each = { task, at: -1 }
        doing.push(each)
        chains.set(task, [...(chains.get(task) ?? []), { at: read.at, day: fixed.day, doing: each }])
      }
      const helpers = (fixed.helpers ?? []).map((id) => this.crew.findIndex((each) => each.id === id))
      const known = this.visitOn[machine.index]!.get(fixed.day)
      if (known) {
        // Two bookings of one machine on a day: the work of both is on the first, as it will be done.
        this.unload(known)
        known.doing = [...known.doing, ...doing]
        this.reckon(known)
        this.loadOn(known)
        continue
      }
      const visit: Visit = {
        machine,
        day: fixed.day,
        lead: this.crew.findIndex(({ id }) => id === fixed.crew),
        helpers,
        ownHelpers: helpers,
        doing,
        work: { minutes: 0, helpers: 0, helperMinutes: 0 },
        isFixed: true,
      }
      this.reckon(visit)
      this.visitOn[machine.index]!.set(fixed.day, visit)
      this.loadOn(visit)
    }
    for (const [task, times] of chains) {
      times.sort((a, b) => a.at - b.at)
      const days = this.days[task.index]!
      for (const { at, day, doing } of times) {
        if (at !== days.length || (at > 0 && (task.repeatEveryDays === undefined || day <= days[at - 1]!)))
          continue
        doing.at = at
        days.push(day)
      }
      if (days.length === 0) continue
      task.fixedDays = [...days]
      if (task.isRequired) this.missing--
      this.cost += this.chainCost(task, days)
      if (this.isBroken(task, days)) this.missing++
    }
  }

  /** The days' costs of a chain, and what is charged from its last day on. */
  chainCost(task: Task, days: readonly number[]): number {
    let cost = 0
    let due = task.due
    for (const day of days) {
      cost += dayCost(task, day, due)
      due = day + (task.repeatEveryDays ?? 0)
    }
    if (task.repeatEveryDays !== undefined && task.endCostPerDay)
      cost += task.endCostPerDay * (this.horizon - days[days.length - 1]!)
    return cost
  }

  /** Whether the next time of a chain is due inside the horizon and is not done. */
  isBroken(task: Task, days: readonly number[]): boolean {
    return task.repeatEveryDays !== undefined && days[days.length - 1]! + task.repeatEveryDays < this.horizon
  }

  /** Whether a task, or its next time, is wanted and found no day. */
  isMissing(task: Task): boolean {
    const days = this.days[task.index]!
    return days.length === 0 ? task.isRequired : this.isBroken(task, days)
  }

  private reckon(visit: Visit): void {
    visit.work = visitWork(
      visit.machine,
      visit.doing.map(({ task }) => task),
    )
  }

  /** Minutes that a member would still spend on the way to a yard on a day. */
  private wayOf(member: number, day: number, machine: Machine): number {
    if (machine.yardIndex < 0 || member < 0) return 0
    const way = machine.ways[member]!
    return way === 0 || this.trips[this.tripAt(member, day, machine.yardIndex)]! > 0 ? 0 : way
  }
  private tripAt(member: number, day: number, yard: number): number {
    return (member * this.horizon + day) * this.yardCount + yard
  }

  private give(member: number, day: number, machine: Machine, minutes: number, sign: 1 | -1): void {
    if (member < 0) return
    const at = member * this.horizon + day
    if (machine.yardIndex >= 0) {
      const trip = this.tripAt(member, day, machine.yardIndex)
      if (sign < 0) this.trips[trip]!--
      const way = this.wayOf(member, day, machine)
      if (sign > 0) this.trips[trip]!++
      this.load[at]! += sign * way
      this.cost += sign * way * this.rate
    }
    this.load[at]! += sign * minutes
  }

  private loadOn(visit: Visit): void {
    this.change(visit, 1)
  }
  private unload(visit: Visit): void {
    this.change(visit, -1)
  }

  private change(visit: Visit, sign: 1 | -1): void {
    const { machine, day, lead, helpers, work, doing } = visit
    this.give(lead, day, machine, work.minutes, sign)
    for (const helper of helpers) this.give(helper, day, machine, work.helperMinutes, sign)
    this.cost +=
      sign *
      (machine.visitFixedCost +
        (this.problem.downtimeCostPerDay ?? 0) +
        this.rate * (work.minutes + work.helperMinutes * helpers.length))
    this.cost -= sign * this.keptOf(machine, day, lead)
    if (machine.benchIndex >= 0) this.benchUsed[machine.benchIndex * this.horizon + day]! += sign
    let tools = 0
    for (let at = 0; at < doing.length; at++) {
      const { toolIndex, parts, partIndexes } = doing[at]!.task
      if (toolIndex >= 0 && !(tools & (1 << (toolIndex % 30)) && this.isEarlierTool(doing, at))) {
        tools |= 1 << (toolIndex % 30)
        this.toolUsed[toolIndex * this.horizon + day]! += sign
      }
      if (parts)
        for (let which = 0; which < parts.length; which++) {
          const part = partIndexes[which]!
          if (part < 0) continue
          this.partUsed[part]![day]! += sign * parts[which]!.quantity
          this.countPart(part)
        }
    }
  }
  private isEarlierTool(doing: Doing[], at: number): boolean {
    for (let before = 0; before < at; before++)
      if (doing[before]!.task.toolIndex === doing[at]!.task.toolIndex) return true
    return false
  }

  /** What is saved where the people who were told of a visit find it as they were told. */
  private keptOf(machine: Machine, day: number, lead: number): number {
    const told = this.told.get(machine.index * this.horizon + day)
    if (!told) return 0
    return told.reduce((sum, { member, cost }) => sum + (member === lead ? cost : 0), 0)
  }

  /** What may still be taken out of the stores on each day without anybody later going short. */
  private countPart(part: number): void {
    const free = this.partFree[part]!
    const used = this.partUsed[part]!
    const slack = this.partSlack[part]!
    let sum = 0
    for (let day = 0; day < this.horizon; day++) {
      sum += used[day]!
      slack[day] = free[day]! - sum
    }
    for (let day = this.horizon - 2; day >= 0; day--) slack[day] = min(slack[day]!, slack[day + 1]!)
  }

  private mayLead(member: number, tasks: readonly Task[], doing: readonly Doing[]): boolean {
    const skills = this.hasSkill[member]!
    for (const { skill } of tasks) if (skill !== undefined && !skills.has(skill)) return false
    for (const { task } of doing) if (task.skill !== undefined && !skills.has(task.skill)) return false
    return true
  }

  /** Minutes that a member has left on a day for a machine, the way there and back taken off. */
  private leftOf(member: number, day: number, machine: Machine): number {
    const at = member * this.horizon + day
    return this.capacity[at]! - this.load[at]! - this.wayOf(member, day, machine) + eps
  }

  /** What the ways of the cheapest crew cost; most days somebody of the yard can take a new visit. */
  private crewCost(machine: Machine, day: number, tasks: readonly Task[], work: VisitWork): number {
    if (work.helpers === 0 && !this.told.has(machine.index * this.horizon + day)) {
      let least = endless
      for (let at = 0; at < machine.nearest.length; at++) {
        const member = machine.nearest[at]!
        const way = this.wayOf(member, day, machine)
        if (way * this.rate >= least) continue
        const where = member * this.horizon + day
        if (this.capacity[where]! - this.load[where]! - way + eps < work.minutes) continue
        if (!this.mayLead(member, tasks, nobody)) continue
        least = way * this.rate
        if (least === 0) break
      }
      return least
    }
    return this.chooseCrew(machine, day, tasks, nobody, work, false)?.cost ?? endless
  }

  /**
   * Who would do it for least, of those who may and have the time: the lead, then helpers.
   *
   * @param fit takes the one with least time left over, where several cost the same
   * @returns null where nobody can
   */
  private chooseCrew(
    machine: Machine,
    day: number,
    tasks: readonly Task[],
    doing: readonly Doing[],
    work: VisitWork,
    fit: boolean,
    only = -1,
  ): { lead: number; helpers: number[]; cost: number } | null {
    const told = this.told.has(machine.index * this.horizon + day)
    let lead = -1
    let least = endless
    let spare = endless
    for (const member of machine.nearest) {
      if (only >= 0 && member !== only) continue
      const left = this.leftOf(member, day, machine)
      if (left < work.minutes || !this.mayLead(member, tasks, doing)) continue
      const cost =
        this.wayOf(member, day, machine) * this.rate - (told ? this.keptOf(machine, day, member) : 0)
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
        const cost = this.wayOf(member, day, machine) * this.rate
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
  ): { lead: number; helpers: number[]; cost: number } | null {
    let best: { lead: number; helpers: number[]; cost: number } | null = null
    for (const lead of machine.nearest) {
      if (this.leftOf(lead, day, machine) < work.minutes || !this.mayLead(lead, tasks, doing)) continue
      const helpers = machine.nearest
        .filter((member) => member !== lead && this.leftOf(member, day, machine) >= work.helperMinutes)
        .map((member) => ({ member, cost: this.wayOf(member, day, machine) * this.rate }))
        .sort((a, b) => a.cost - b.cost)
        .slice(0, work.helpers)
      if (helpers.length < work.helpers) continue
      const cost =
        this.wayOf(lead, day, machine) * this.rate -
        this.keptOf(machine, day, lead) +
        helpers.reduce((sum, each) => sum + each.cost, 0)
      if (!best || cost < best.cost) best = { lead, helpers: helpers.map(({ member }) => member), cost }
    }
    return best
  }

  /** Whether tools, parts and the bench allow some tasks on a day. */
  private hasRoom(tasks: readonly Task[], day: number, visit: Visit | undefined): boolean {
    const machine = tasks[0]!.on
    if (machine.isBlocked[day]) return false
    if (machine.benchIndex >= 0) {
      const used = this.benchUsed[machine.benchIndex * this.horizon + day]!
      if (used + (visit ? 0 : 1) > this.places[machine.benchIndex]!) return false
    }
    for (let at = 0; at < tasks.length; at++) {
      const { toolIndex, partsFromDay, parts, partIndexes } = tasks[at]!
      if (partsFromDay !== undefined && day < partsFromDay) return false
      if (toolIndex >= 0) {
        const shares =
          visit?.doing.some(({ task }) => task.toolIndex === toolIndex) ||
          tasks.some((other, where) => where < at && other.toolIndex === toolIndex)
        const used = this.toolUsed[toolIndex * this.horizon + day]!
        if (used + (shares ? 0 : 1) > this.toolCount[toolIndex]!) return false
      }
      if (parts)
        for (let which = 0; which < parts.length; which++) {
          const part = partIndexes[which]!
          if (part < 0) continue
          let wanted = 0
          for (const other of tasks)
            other.parts?.forEach((each, place) => {
              if (other.partIndexes[place] === part) wanted += each.quantity
            })
          if (this.partSlack[part]![day]! + eps < wanted) return false
        }
    }
    return true
  }

  /** Which rule keeps some tasks of a machine from a day, as the plan stands. */
  stopOn(tasks: readonly Task[], day: number): 'parts' | 'tool' | 'bench' | 'helpers' | 'minutes' {
    const machine = tasks[0]!.on
    const visit = this.visitOn[machine.index]!.get(day)
    if (!this.hasRoom(tasks, day, visit)) {
      if (!visit && machine.benchIndex >= 0) {
        const used = this.benchUsed[machine.benchIndex * this.horizon + day]!
        if (used >= this.places[machine.benchIndex]!) return 'bench'
      }
      const isShort = tasks.some(({ parts, partIndexes }) =>
        parts?.some(({ quantity }, at) => {
          const part = partIndexes[at]!
          return part >= 0 && this.partSlack[part]![day]! + eps < quantity
        }),
      )
      return isShort ? 'parts' : 'tool'
    }
    const work = visitWork(machine, tasks)
    const canLead = machine.nearest.some(
      (member) => this.leftOf(member, day, machine) >= work.minutes && this.mayLead(member, tasks, []),
    )
    return canLead && work.helpers > 0 ? 'helpers' : 'minutes'
  }

  /**
   * What it adds to the cost to do some tasks of one machine on a day, the days' own costs not counted.
   *
   * @returns Infinity where a rule forbids it
   */
  addCost(tasks: readonly Task[], day: number): number {
    const cost = this.costOn(tasks, day)
    return this.lure?.day === day ? cost - this.lure.worth : cost
  }

  private costOn(tasks: readonly Task[], day: number): number {
    const machine = tasks[0]!.on
    const visit = this.visitOn[machine.index]!.get(day)
    if (!this.hasRoom(tasks, day, visit)) return endless
    if (!visit) {
      const work = tasks.length === 1 ? tasks[0]!.aloneWork : visitWork(machine, tasks)
      const ways = this.crewCost(machine, day, tasks, work)
      if (ways === endless) return endless
      this.ownWays = ways
      const own =
        tasks.length === 1 ? tasks[0]!.minutes : tasks.reduce((sum, { minutes }) => sum + minutes, 0)
      const opening =
        machine.visitFixedCost + (this.problem.downtimeCostPerDay ?? 0) + this.rate * (work.minutes - own)
      return (
        this.openingOf(tasks, day, opening) + this.rate * (own + work.helpers * work.helperMinutes) + ways
      )
    }
    const before = visit.work
    const work = visitWork(machine, [...visit.doing.map(({ task }) => task), ...tasks])
    if (visit.isFixed) {
      const joined = this.joinFixed(visit, tasks, work)
      if (!joined) return endless
      return (
        this.rate *
          (work.minutes -
            before.minutes +
            joined.length * work.helperMinutes -
            visit.helpers.length * before.helperMinutes) +
        joined
          .slice(visit.helpers.length)
          .reduce((sum, member) => sum + this.wayOf(member, day, machine) * this.rate, 0)
      )
    }
    const labour =
      this.rate *
      (work.minutes -
        before.minutes +
        work.helpers * work.helperMinutes -
        before.helpers * before.helperMinutes)
    if (this.fits(visit, tasks, work)) return labour
    this.unload(visit)
    const was = this.cost
    const crew = this.chooseCrew(machine, day, tasks, visit.doing, work, false)
    this.loadOn(visit)
    if (!crew) return endless
    // What the present crew costs by its ways and whom was told, against the new one.
    const present = this.cost - was - this.bare(visit)
    return labour + crew.cost - present
  }

  /** What opening counts for while an insertion is judged. */
  private openingOf(tasks: readonly Task[], day: number, whole: number): number {
    if (!this.shares) return whole * this.openingWeighs
    let share = 0
    for (const { opening } of tasks) share += opening ? opening[day]! : whole
    return min(whole, share * this.openingWeighs)
  }

  /** What is paid on a machine, without ways and moves. */
  costOf(machine: Machine): number {
    let cost = 0
    for (const visit of this.visitOn[machine.index]!.values()) cost += this.bare(visit)
    for (const task of machine.tasks) {
      const days = this.days[task.index]!
      if (days.length > 0) cost += this.chainCost(task, days)
    }
    return cost
  }

  private bare({ machine, work, helpers }: Visit): number {
    return (
      machine.visitFixedCost +
      (this.problem.downtimeCostPerDay ?? 0) +
      this.rate * (work.minutes + work.helperMinutes * helpers.length)
    )
  }

  /** Whether the crew that a visit has can do more on it. */
  private fits(visit: Visit, tasks: readonly Task[], work: VisitWork): boolean {
    if (work.helpers > visit.helpers.length || !this.mayLead(visit.lead, tasks, [])) return false
    const { day } = visit
    const more = (member: number, minutes: number) => {
      const at = member * this.horizon + day
      return this.load[at]! + minutes <= this.capacity[at]! + eps
    }
    if (!more(visit.lead, work.minutes - visit.work.minutes)) return false
    return visit.helpers.every((member) => more(member, work.helperMinutes - visit.work.helperMinutes))
  }

  /** Helpers with whom more is done on a fixed visit: those it has, and others; null where it cannot be. */
  private joinFixed(visit: Visit, tasks: readonly Task[], work: VisitWork): number[] | null {
    const { day, machine } = visit
    if (visit.lead < 0 || !this.mayLead(visit.lead, tasks, [])) return null
    const at = visit.lead * this.horizon + day
    if (this.load[at]! + work.minutes - visit.work.minutes > this.capacity[at]! + eps) return null
    for (const helper of visit.helpers) {
      if (helper < 0) continue
      const where = helper * this.horizon + day
      if (this.load[where]! + work.helperMinutes - visit.work.helperMinutes > this.capacity[where]! + eps)
        return null
    }
    const helpers = [...visit.helpers]
    const others = machine.nearest
      .filter((member) => member !== visit.lead && !helpers.includes(member))
      .filter((member) => this.leftOf(member, day, machine) >= work.helperMinutes)
      .sort((a, b) => this.wayOf(a, day, machine) - this.wayOf(b, day, machine))
    while (helpers.length < work.helpers) {
      const next = others.shift()
      if (next === undefined) return null
      helpers.push(next)
    }
    return helpers
  }

  /** Puts some tasks of one machine on a day. @returns whether a rule allowed it; nothing changes where not */
  private add(doing: Doing[], day: number, lead = -1): boolean {
    const tasks = doing.map(({ task }) => task)
    const machine = tasks[0]!.on
    let visit = this.visitOn[machine.index]!.get(day)
    if (!this.hasRoom(tasks, day, visit)) return false
    const work = visitWork(machine, [...(visit?.doing.map(({ task }) => task) ?? none), ...tasks])
    if (!visit) {
      const crew =
        (lead >= 0 ? this.chooseCrew(machine, day, tasks, nobody, work, true, lead) : null) ??
        this.chooseCrew(machine, day, tasks, nobody, work, true)
      if (!crew) return false
      visit = {
        machine,
        day,
        lead: crew.lead,
        helpers: crew.helpers,
        doing: [...doing],
        work,
        isFixed: false,
        ownHelpers: [],
      }
      this.visitOn[machine.index]!.set(day, visit)
      this.loadOn(visit)
      return true
    }
    if (visit.isFixed) {
      const helpers = this.joinFixed(visit, tasks, work)
      if (!helpers) return false
      this.unload(visit)
      visit.helpers = helpers
    } else if (this.fits(visit, tasks, work)) this.unload(visit)
    else {
      this.unload(visit)
      const crew = this.chooseCrew(machine, day, tasks, visit.doing, work, true)
      if (!crew) {
        this.loadOn(visit)
        return false
      }
      visit.lead = crew.lead
      visit.helpers = crew.helpers
    }
    visit.doing = [...visit.doing, ...doing]
    visit.work = work

    this.loadOn(visit)
    return true
  }

  private takeOff(task: Task, day: number): void {
    const visits = this.visitOn[task.on.index]!
    const visit = visits.get(day)!
    this.unload(visit)
    visit.doing = visit.doing.filter((each) => each.task !== task || each.at < 0)
    if (visit.doing.length === 0 && !visit.isFixed) {
      visits.delete(day)
      return
    }
    this.reckon(visit)
    visit.helpers = visit.helpers.slice(0, max(visit.work.helpers, visit.ownHelpers.length))
    this.loadOn(visit)
  }

  /** Takes a task off every day but the fixed ones. */
  remove(task: Task): void {
    const days = this.days[task.index]!
    const { fixedDays } = task
    if (days.length === fixedDays.length) return
    this.uncount(task)
    for (let at = days.length - 1; at >= fixedDays.length; at--) this.takeOff(task, days[at]!)
    days.length = fixedDays.length
    this.count(task)
  }

  private count(task: Task): void {
    const days = this.days[task.index]!
    if (days.length === 0) {
      if (task.isRequired) this.missing++
      return
    }
    this.cost += this.chainCost(task, days)
    if (this.isBroken(task, days)) this.missing++
  }
  private uncount(task: Task): void {
    const days = this.days[task.index]!
    if (days.length === 0) {
      if (task.isRequired) this.missing--
      return
    }
    this.cost -= this.chainCost(task, days)
    if (this.isBroken(task, days)) this.missing--
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
   * For each day, the least that a chain costs from there on when a time of the task is done on it, that day
   * itself not counted; and the next day it goes to, -1 for none.
   */
  private tails(
    task: Task,
    from: number,
    allowed: ReadonlySet<number> | null,
  ): { cost: Float64Array; next: Int16Array } {
    const { horizon } = this
    const every = task.repeatEveryDays
    if (every === undefined) return this.once
    const cost = new Float64Array(horizon)
    const next = new Int16Array(horizon).fill(-1)
    const end = task.endCostPerDay ?? 0
    const { earlyDays, lateDays } = reachOf(task)
    const { alone, laterCosts } = task
    const visit = new Float64Array(horizon).fill(-1)
    for (let day = horizon - 1; day >= from; day--) {
      const stop = end * (horizon - day)
      if (day + every >= horizon) {
        cost[day] = stop
        continue
      }
      let best = stop + this.missingWeighs
      let to = -1
      const due = day + every
      const last = min(due + lateDays, horizon - 1)
      const shift = earlyDays - due
      for (let later = max(day + 1, due - earlyDays, 0); later <= last; later++) {
        if (allowed && !allowed.has(later)) continue
        if (visit[later] === -1) visit[later] = this.addCost(alone, later)
        const add = visit[later]!
        if (add === endless) continue
        const sum = add + laterCosts[later + shift]! + cost[later]!
        if (sum < best) {
          best = sum
          to = later
        }
      }
      cost[day] = best
      next[day] = to
    }
    return { cost, next }
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
    const tails = wanted.map((task) => this.tails(task, from, null))
    let best = endless
    let first = -1
    const look = (day: number) => {
      let sum = this.addCost(wanted, day)
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
      !this.lure &&
      !this.shares &&
      !this.isTold(one.on)
    ) {
      // A visit of its own costs the same on every day but for ways: the first day that takes one is the cheapest.
      const least = one.on.nearest.length > 0 ? one.on.ways[one.on.nearest[0]!]! : 0
      for (let at = 0; at < one.cheapestDays.length; at++) {
        const day = one.cheapestDays[at]!
        if (day < from || day > to || this.visitOn[one.on.index]!.has(day)) continue
        if (look(day) && least === 0 && this.ownWays === 0) break
      }
      for (const day of this.visitOn[one.on.index]!.keys()) if (day >= from && day <= to) look(day)
    } else for (let day = from; day <= to; day++) look(day)
    if (first < 0 || (!keep && best >= -eps)) return false
    const doing = wanted.map((task) => ({ task, at: 0 }))
    if (!this.add(doing, first)) return false
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
    const next = known ?? this.tails(task, start, this.laterDays(task)).next
    this.uncount(task)
    for (let day = next[start]!; day >= 0; day = next[day]!) {
      if (!this.add([{ task, at: days.length }], day)) break
      days.push(day)
    }
    this.count(task)
    return !this.isBroken(task, days)
  }

  /** Puts a task where a plan has it, as far as the rules allow. @returns whether all of it stands there */
  putAt(group: readonly Task[], day: number, lead: number): boolean {
    if (group.some((task) => this.days[task.index]!.length > 0)) return false
    for (const task of group) {
      const window = this.firstWindow(task, group)
      if (!window || day < window.from || day > window.to) return false
    }
    const doing = group.map((task) => ({ task, at: 0 }))
    if (!this.add(doing, day, lead)) return false
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
    if (!this.add([{ task, at: days.length }], day, lead)) return false
    this.uncount(task)
    days.push(day)
    this.count(task)
    return true
  }

  /** A machine's part of the plan, to come back to. */
  save(machine: Machine): Saved {
    const visits: Saved['visits'] = []
    for (const { day, lead, helpers, doing, work } of this.visitOn[machine.index]!.values())
      visits.push({ day, lead, helpers, doing, work })
    const days: number[][] = []
    for (const { index } of machine.tasks) days.push(this.days[index]!.slice())
    return { visits, days }
  }

  /** Takes a machine's part of the plan away, to be laid out again from what was saved. */
  clear(machine: Machine): void {
    for (const task of machine.tasks) this.uncount(task)
    for (const visit of this.visitOn[machine.index]!.values()) this.unload(visit)
  }

  /** Lays out what was saved of a machine that was cleared. */
  lay(machine: Machine, { visits, days }: Saved): void {
    const own = this.visitOn[machine.index]!
    const fixed = machine.hasFixed ? [...own.values()].filter(({ isFixed }) => isFixed) : noVisits
    own.clear()
    for (const { day, lead, helpers, doing, work } of visits) {
      const ownHelpers = fixed.find((each) => each.day === day)?.ownHelpers
      const visit: Visit = {
        machine,
        day,
        lead,
        helpers,
        doing,
        work,
        isFixed: ownHelpers !== undefined,
        ownHelpers: ownHelpers ?? nobodyHelps,
      }
      own.set(day, visit)
      this.loadOn(visit)
    }
    machine.tasks.forEach((task, at) => {
      const now = this.days[task.index]!
      now.length = 0
      now.push(...days[at]!)
      this.count(task)
    })
  }
}

export type SavedPart = Saved

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
