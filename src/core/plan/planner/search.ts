import type { Board, SavedPart } from './board'
import type { Visit } from './visit'
import type { Machine, Task } from './linked'
import { randomFrom } from './random'
import type { PlanOptions, PlanProblem } from './types'

// Named once: where code runs apart from its globals, each look at one of them is slow.
const { abs, exp, floor, max, min, pow, round } = Math
const endless = Infinity

/** How many steps are taken before others may run, and Stop is asked for. */
const portion = 200

type Scope = {
  /** Only these machines are touched. */
  near?: ReadonlySet<Machine>
  bounds?: ReadonlyMap<Machine, { least: number }>
  steps?: number
}

/**
 * Ruin and recreate: takes some groups of tasks off the plan, of a machine, of a visit, or of visits that stand
 * in each other's way on the same days, puts each back where it then costs least, and keeps what came of it if
 * it is better, or by a chance that falls with the steps (annealing). Opening costs are counted for a share, drawn
 * anew each time: a task that is put first may count on others to join it.
 *
 * Schrimpf, Schneider, Stamm-Wilbrandt and Dueck, Record breaking optimization results using the ruin and recreate
 * principle, 2000.
 */
export async function improve(
  board: Board,
  problem: PlanProblem,
  { seed, onProgress, shouldStop, effort = 1 }: PlanOptions,
  { near, bounds, steps: given }: Scope = {},
): Promise<void> {
  const random = randomFrom(seed)
  const groups = movableGroups(board).filter(([task]) => !near || near.has(task!.on))
  if (groups.length === 0) return
  const machines = [...new Set(groups.map(([task]) => task!.on))]
  const groupsOf = new Map<Machine, Task[][]>(machines.map((machine) => [machine, []]))
  for (const group of groups) groupsOf.get(group[0]!.on)!.push(group)
  const { steps, runs } = given === undefined ? stepsFor(groups.length, effort) : { steps: given, runs: 1 }
  const opening = meanOpening(problem)
  /** What a machine costs above its bound: where there is most to gain. */
  const gapOf = (machine: Machine) => board.costOf(machine) - (bounds?.get(machine)?.least ?? 0)
  const pickMachine = () => {
    let best = machines[floor(random() * machines.length)]!
    if (machines.length < 8 || random() < 0.3) return best
    let gap = gapOf(best)
    for (let more = 0; more < 2; more++) {
      const other = machines[floor(random() * machines.length)]!
      const own = gapOf(other)
      if (own > gap) [best, gap] = [other, own]
    }
    return best
  }
  const best: Saves = new Map(board.machines.map((machine) => [machine, board.save(machine)]))
  // Machines whose part is another one than the best plan's, as it was kept last.
  const changed = new Set<Machine>()
  let isStale = false
  const keepBest = () => {
    if (!isStale) return
    for (const machine of changed) best.set(machine, board.save(machine))
    changed.clear()
    isStale = false
  }
  let bestScore = board.score
  // Where nothing was left out when the bound was reckoned, a plan that costs no more is the best there is.
  const least =
    bounds && board.missing === 0 && bounds.size === board.machines.length
      ? [...bounds.values()].reduce((sum, bound) => sum + bound.least, 0)
      : -endless
  let stopped = false
  let done = 0
  const tell = () =>
    onProgress?.({
      done,
      of: steps * runs,
      cost: bestScore - round(bestScore / board.missingWeighs) * board.missingWeighs,
      unplaced: round(bestScore / board.missingWeighs),
    })
  for (let run = 0; run < runs && !stopped; run++) {
    for (let step = 0; step < steps; step++) {
      if (done % portion === 0) {
        tell()
        await new Promise((resolve) => setTimeout(resolve))
        if (bestScore <= least + 1e-6 || shouldStop?.()) {
          stopped = true
          break
        }
      }
      done++
      const heat = opening * 0.35 * pow(0.004, step / steps)
      const ruined =
        (board.missing > 0 && random() < 0.15 && ruinForMissing(board, machines, groupsOf, random)) ||
        ruin(board, pickMachine(), machines, groupsOf, random)
      addWaiting(board, ruined)
      // A visit of nothing but booked work has nothing to take off.
      if (ruined.length === 0) continue
      const before = board.score
      // What was there, to be laid out again where nothing better comes.
      const saved: Saves = new Map()
      for (const [task] of ruined) saveOnce(board, saved, task!.on)
      for (const group of ruined) for (const task of withJoined(group)) board.remove(task)
      recreate(board, ruined, saved, random)
      board.judging.openingWeighs = 1
      const after = board.score
      if (after <= before + 1e-9 || random() < exp((before - after) / heat)) {
        if (after < bestScore - 1e-6) {
          bestScore = after
          isStale = true
        } else if (after > bestScore + 1e-6 && isStale) {
          // The best so far is about to be left: it is kept first.
          const left: Saves = new Map([...saved.keys()].map((machine) => [machine, board.save(machine)]))
          layAll(board, saved)
          keepBest()
          layAll(board, left)
        }
        for (const machine of saved.keys()) changed.add(machine)
      } else layAll(board, saved)
    }
    keepBest()
    layAll(board, best)
    changed.clear()
  }
  tell()
}

/** Machines' parts of a plan, to come back to. */
type Saves = Map<Machine, SavedPart>

const saveOnce = (board: Board, saves: Saves, machine: Machine) => {
  if (!saves.has(machine)) saves.set(machine, board.save(machine))
}

function layAll(board: Board, saves: Saves): void {
  for (const machine of saves.keys()) board.clear(machine)
  for (const [machine, part] of saves) board.lay(machine, part)
}

/** How many steps for how many groups; a small problem is begun anew several times. */
function stepsFor(groups: number, effort: number): { steps: number; runs: number } {
  const runs = groups <= 40 ? 3 : 1
  return { runs, steps: max(40, round(effort * min(24_000, 1200 + 60 * groups))) }
}

/** What opening a visit costs in the middle: the measure of how much worse a step may be. */
function meanOpening({ machines, labourRatePerMinute, downtimeCostPerDay = 0 }: PlanProblem): number {
  const sum = machines.reduce(
    (total, { visitFixedCost, accessMinutes }) =>
      total +
      visitFixedCost +
      downtimeCostPerDay +
      0.5 * labourRatePerMinute * Object.values(accessMinutes).reduce((all, minutes) => all + minutes, 0),
    0,
  )
  return max(1e-6, sum / max(1, machines.length))
}

/** The groups of tasks that have something to place. */
export function movableGroups(board: Board): Task[][] {
  const groups = new Set(board.tasks.map(({ group }) => group))
  return [...groups].filter(
    (group) =>
      group.every(({ never }) => never === null) &&
      group.some(({ fixedDays, repeatEveryDays }) => fixedDays.length === 0 || repeatEveryDays !== undefined),
  )
}

/** A group, and what need not be done but is on its visit because it wants one of them there. */
function withJoined(group: Task[]): Task[] {
  const all = new Set(group)
  const add = (task: Task) => {
    for (const other of task.impliedBy)
      if (!all.has(other)) {
        all.add(other)
        add(other)
      }
  }
  group.forEach(add)
  return [...all]
}

/** A group that found no day, and visits on a day of its window that may stand in its way. */
function ruinForMissing(
  board: Board,
  machines: Machine[],
  groupsOf: Map<Machine, Task[][]>,
  random: () => number,
): Task[][] | null {
  const left = machines.flatMap((machine) =>
    groupsOf.get(machine)!.filter((group) => group.some((task) => board.isMissing(task))),
  )
  if (left.length === 0) return null
  const group = left[floor(random() * left.length)]!
  const from = max(0, ...group.map(({ earliest }) => earliest))
  const to = min(
    board.horizon - 1,
    ...group.map((task) => (board.days[task.index]!.length > 0 ? board.horizon - 1 : task.latest)),
  )
  const day = from + floor(random() * max(1, to - from + 1))
  const result = new Set([group])
  const there = machines.filter((machine) => board.visitOn[machine.index]!.has(day))
  const own = there.filter(({ yardIndex }) => yardIndex === group[0]!.on.yardIndex)
  for (const machine of shuffled(random() < 0.7 && own.length > 0 ? own : there, random).slice(
    0,
    1 + floor(random() * 3),
  ))
    onVisits(groupsOf.get(machine)!, [board.visitOn[machine.index]!.get(day)!], board).forEach((each) =>
      result.add(each),
    )
  return [...result]
}

function ruin(
  board: Board,
  machine: Machine,
  machines: Machine[],
  groupsOf: Map<Machine, Task[][]>,
  random: () => number,
): Task[][] {
  const pick = <T>(list: readonly T[]): T => list[floor(random() * list.length)]!
  const own = groupsOf.get(machine)!
  const draw = random()
  if (draw < 0.25) return [...own]
  if (draw < 0.45) {
    const count = 1 + floor(random() * min(3, own.length))
    return shuffled(own, random).slice(0, count)
  }
  const visits = [...board.visitOn[machine.index]!.values()].filter(({ doing }) => doing.length > 0)
  if (visits.length === 0) return [...own]
  const visit = pick(visits)
  if (draw < 0.65 || machines.length === 1) {
    const one = onVisits(own, [visit], board)
    // The visit and its neighbour in time, so that two may become one.
    if (random() < 0.5 && visits.length > 1) {
      const others = visits.filter((each) => each !== visit)
      others.sort((a, b) => abs(a.day - visit.day) - abs(b.day - visit.day))
      return [...new Set([...one, ...onVisits(own, [others[0]!], board)])]
    }
    return one.length > 0 ? one : [...own]
  }
  // Visits of other machines on the same days, which take each other's room.
  const reach = 1 + floor(random() * 4)
  const count = 1 + floor(random() * 3)
  const result = new Set(onVisits(own, [visit], board))
  let others = 0
  for (let tries = 0; tries < 40 && tries < machines.length * 2 && others < count; tries++) {
    const other = pick(machines)
    const near: Visit[] = []
    for (const each of board.visitOn[other.index]!.values())
      if (abs(each.day - visit.day) <= reach) near.push(each)
    if (near.length > 0) {
      others++
      onVisits(groupsOf.get(other)!, [pick(near)], board).forEach((group) => result.add(group))
    } else if (random() < 0.1) {
      const left = groupsOf
        .get(other)!
        .find(([task]) => task!.isWanted && board.days[task!.index]!.length === 0)
      if (left) result.add(left)
    }
  }
  return result.size > 0 ? [...result] : [...own]
}

const onVisits = (groups: Task[][], visits: Visit[], board: Board): Task[][] =>
  groups.filter((group) =>
    group.some((task) => {
      const days = board.days[task.index]!
      return days.length === 0 ? task.isWanted : visits.some(({ day }) => days.includes(day))
    }),
  )

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const result = [...list]
  for (let at = result.length - 1; at > 0; at--) {
    const other = floor(random() * (at + 1))
    ;[result[at], result[other]] = [result[other]!, result[at]!]
  }
  return result
}

const latestOf = (group: Task[]) => min(...group.map(({ latest }) => latest))
const dueOf = (group: Task[]) => min(...group.map(({ due }) => due))
const workOf = (group: Task[]) => group.reduce((sum, { minutes }) => sum + minutes, 0)

/** Puts groups back, what comes before others first; then what need not be done, where it pays. */
function recreate(board: Board, ruined: Task[][], saves: Saves, random: () => number): void {
  const draw = random()
  const key: (group: Task[]) => number =
    draw < 0.4 ? () => random() : draw < 0.6 ? latestOf : draw < 0.8 ? dueOf : (group) => -workOf(group)
  const order = ruined
    .filter(([task]) => task!.isWanted)
    .map((group) => ({ group, key: key(group) }))
    .sort((a, b) => a.key - b.key)
    .map(({ group }) => group)
  const share = random()
  if (share < 0.7) {
    board.judging.shares = true
    board.judging.openingWeighs = 0.6 + 0.8 * random()
  } else board.judging.openingWeighs = share < 0.85 ? 1 : random()
  board.heedsNext = random() < 0.5
  if (random() < 0.35) {
    const [task] = ruined[floor(random() * ruined.length)]!
    const from = max(0, task!.earliest)
    const to = min(board.horizon - 1, task!.latest)
    const { visitFixedCost, accessMinutes } = task!.on
    const worth =
      visitFixedCost + board.rate * task!.access.reduce((sum, node) => sum + (accessMinutes[node] ?? 0), 0)
    board.judging.lure = { day: from + floor(random() * (to - from + 1)), worth: worth * random() }
  }
  place(board, inTurn(order), saves)
  board.judging.openingWeighs = 1
  board.judging.shares = false
  board.heedsNext = false
  board.judging.lure = null
  for (const machine of [...saves.keys()]) prune(board, machine)
  for (const machine of [...saves.keys()])
    for (const task of machine.tasks) if (mayPay(board, task)) board.insert(task.group, { keep: false })
}

/** What found no day, and comes before or after something that is put back anew, has another chance with it. */
function addWaiting(board: Board, ruined: Task[][]): void {
  for (let at = 0; at < ruined.length; at++)
    for (const task of ruined[at]!)
      for (const list of [task.before, task.next])
        for (const { group } of list)
          if (
            !ruined.includes(group) &&
            group.every(
              ({ isWanted, never, index }) => isWanted && never === null && board.days[index]!.length === 0,
            )
          )
            ruined.push(group)
}

/** Groups in their order, but each after those that it has to come after. */
function inTurn(groups: Task[][]): Task[][] {
  if (groups.every(([task]) => task!.depth === 0)) return groups
  const pending = new Set(groups)
  const result: Task[][] = []
  const take = (group: Task[]) => {
    if (!pending.delete(group)) return
    for (const task of group) for (const other of task.before) take(other.group)
    result.push(group)
  }
  groups.forEach(take)
  return result
}

/** Takes off what was only put there for something that found no day. */
function prune(board: Board, machine: Machine): void {
  for (const task of machine.tasks) {
    if (
      task.isRequired ||
      !task.isWanted ||
      task.fixedDays.length > 0 ||
      board.days[task.index]!.length === 0
    )
      continue
    const isDone = ({ index }: Task) => board.days[index]!.length > 0
    if (task.next.some(isDone) || task.impliedBy.some(isDone)) continue
    const before = board.score
    const saved = board.save(machine)
    board.remove(task)
    if (board.score > before) layAll(board, new Map([[machine, saved]]))
  }
}

/** Inserts groups; what waits for one that found no day leaves the plan too. */
export function place(board: Board, groups: Task[][], saves: Saves = new Map(), lean = false): void {
  for (const group of groups) {
    insertMost(board, group, lean)
    for (const task of group) if (board.days[task.index]!.length === 0) dropAfter(board, task, saves)
  }
}

/** Where a group finds no day as a whole, those that want others along stay out, and the rest is put by itself. */
function insertMost(board: Board, group: readonly Task[], lean = false): void {
  // What is only there for another may turn out to be there for nothing: now and then it stays out at once.
  const isIdle = lean && group.some(({ isRequired }) => !isRequired)
  if ((!isIdle && board.insert(group)) || group.length === 1) return
  const wants = group.find(
    (task) =>
      task.implied.some((other) => group.includes(other)) &&
      !task.impliedBy.some((other) => group.includes(other)),
  )
  // Tasks that all want each other are on one visit or on none.
  if (!wants) return
  for (const part of parted(group.filter((task) => task !== wants))) insertMost(board, part, lean)
}

/** Tasks by what still ties them together. */
function parted(tasks: readonly Task[]): Task[][] {
  const parts: Task[][] = []
  const seen = new Set<Task>()
  for (const task of tasks) {
    if (seen.has(task)) continue
    const part: Task[] = []
    const take = (each: Task) => {
      if (seen.has(each) || !tasks.includes(each)) return
      seen.add(each)
      part.push(each)
      each.implied.forEach(take)
      each.impliedBy.forEach(take)
    }
    take(task)
    parts.push(part)
  }
  return parts
}

function dropAfter(board: Board, task: Task, saves: Saves): void {
  for (const other of task.next) {
    if (board.days[other.index]!.length === 0 || other.fixedDays.length > 0) continue
    saveOnce(board, saves, other.on)
    for (const each of withJoined(other.group)) {
      if (each.fixedDays.length > 0) continue
      board.remove(each)
      dropAfter(board, each, saves)
    }
  }
}

/** Whether doing what need not be done can lower the cost: it brings something in, or keeps a visit as told. */
const mayPay = (board: Board, task: Task) =>
  !task.isWanted &&
  task.never === null &&
  board.days[task.index]!.length === 0 &&
  (board.isTold(task.on) ||
    task.earlyCostPerDay < 0 ||
    task.lateCostPerDay < 0 ||
    (task.costByDay?.some((cost) => cost < 0) ?? false))
