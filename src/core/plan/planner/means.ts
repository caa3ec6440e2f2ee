import type { Task } from './linked'
import type { PlanProblem } from './types'
import { eps, type Doing, type Visit } from './visit'

const { max, min } = Math

/** What visits share besides people: places at benches, special tools, parts; with what is left of them by day. */
export class Means {
  private readonly days: number
  private readonly places: number[]
  private readonly benchUsed: Int16Array
  private readonly toolCount: number[]
  private readonly toolUsed: Int16Array
  private readonly partSlack: Float64Array[]
  private readonly partFree: Float64Array[]
  private readonly partUsed: Float64Array[]

  constructor({ horizonDays, benches = [], tools = [], stock = [] }: PlanProblem) {
    this.days = horizonDays
    this.places = benches.map(({ places }) => places)
    this.benchUsed = new Int16Array(max(1, benches.length) * horizonDays)
    this.toolCount = tools.map(({ count }) => count)
    this.toolUsed = new Int16Array(max(1, tools.length) * horizonDays)
    this.partFree = stock.map(({ byDay }) =>
      Float64Array.from({ length: horizonDays }, (_, day) => byDay[day] ?? byDay[byDay.length - 1] ?? 0),
    )
    this.partUsed = stock.map(() => new Float64Array(horizonDays))
    this.partSlack = stock.map(() => new Float64Array(horizonDays))
    stock.forEach((_, index) => this.countPart(index))
  }

  /** Takes what a visit needs, or gives it back. */
  take({ machine, day, doing }: Visit, sign: 1 | -1): void {
    if (machine.benchIndex >= 0) this.benchUsed[machine.benchIndex * this.days + day]! += sign
    for (let at = 0; at < doing.length; at++) {
      const { toolIndexes, parts, partIndexes } = doing[at]!.task
      for (const tool of toolIndexes)
        if (!isTakenBefore(doing, at, tool)) this.toolUsed[tool * this.days + day]! += sign
      if (parts)
        for (let which = 0; which < parts.length; which++) {
          const part = partIndexes[which]!
          if (part < 0) continue
          this.partUsed[part]![day]! += sign * parts[which]!.quantity
          this.countPart(part)
        }
    }
  }

  /** What may still be taken out of the stores on each day without anybody later going short. */
  private countPart(part: number): void {
    const free = this.partFree[part]!
    const used = this.partUsed[part]!
    const slack = this.partSlack[part]!
    let sum = 0
    for (let day = 0; day < this.days; day++) {
      sum += used[day]!
      slack[day] = free[day]! - sum
    }
    for (let day = this.days - 2; day >= 0; day--) slack[day] = min(slack[day]!, slack[day + 1]!)
  }

  /** Whether the machine, tools, parts and the bench allow some tasks on a day, beside the visit that is there. */
  hasRoom(tasks: readonly Task[], day: number, visit: Visit | undefined): boolean {
    const machine = tasks[0]!.on
    if (machine.isBlocked[day]) return false
    if (machine.benchIndex >= 0) {
      const used = this.benchUsed[machine.benchIndex * this.days + day]!
      if (used + (visit ? 0 : 1) > this.places[machine.benchIndex]!) return false
    }
    for (let at = 0; at < tasks.length; at++) {
      const { toolIndexes, partsFromDay, parts, partIndexes } = tasks[at]!
      if (partsFromDay !== undefined && day < partsFromDay) return false
      for (const tool of toolIndexes) {
        const shares =
          visit?.doing.some(({ task }) => task.toolIndexes.includes(tool)) ||
          tasks.some((other, where) => where < at && other.toolIndexes.includes(tool))
        const used = this.toolUsed[tool * this.days + day]!
        if (used + (shares ? 0 : 1) > this.toolCount[tool]!) return false
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

  /** Which of them is missing on a day that has no room for some tasks. */
  shortOf(tasks: readonly Task[], day: number, visit: Visit | undefined): 'parts' | 'tool' | 'bench' {
    const { benchIndex } = tasks[0]!.on
    if (
      !visit &&
      benchIndex >= 0 &&
      this.benchUsed[benchIndex * this.days + day]! >= this.places[benchIndex]!
    )
      return 'bench'
    const isShort = tasks.some(({ parts, partIndexes }) =>
      parts?.some(({ quantity }, at) => {
        const part = partIndexes[at]!
        return part >= 0 && this.partSlack[part]![day]! + eps < quantity
      }),
    )
    return isShort ? 'parts' : 'tool'
  }
}

/** Whether a task before has brought the tool to the visit. */
function isTakenBefore(doing: readonly Doing[], at: number, tool: number): boolean {
  for (let before = 0; before < at; before++) if (doing[before]!.task.toolIndexes.includes(tool)) return true
  return false
}
