import { Board } from './board'
import type { Machine, Task } from './linked'
import { boundOf, plainBound, type MachineBound } from './bound'
import { checkPlan } from './check'
import { planCost } from './cost'
import { occurrenceId, readOccurrence } from './occurrences'
import { readProblem } from './readProblem'
import { unplacedOf } from './reasons'
import { improve, movableGroups, place } from './search'
import type { PlannedVisit, PlanOptions, PlanProblem, PlanResult } from './types'

/**
 * Plans visits: which tasks of a machine are done together, on which day and by whom, so that as few required tasks as can
 * be are left out and, of those plans, one that costs least. It begins with what is planned now where there is
 * something, and runs a number of steps that follows from the size of the problem alone: the same seed gives the
 * same plan.
 *
 * @throws RangeError for a problem that cannot be read, with what is wrong in words
 */
export async function planVisits(problem: PlanProblem, options: PlanOptions): Promise<PlanResult> {
  readProblem(problem)
  const board = new Board(problem)
  begin(board, problem)
  const bounds = await firstBounds(board, problem, options)
  await improve(board, problem, options, { bounds })
  return resultOf(board, problem, bounds)
}

type Bounds = Map<Machine, MachineBound & { placed: string }>

/** How long the sharing is bettered: a small problem is worth every round, for a plan that is proved the best. */
const roundsFor = (machines: number) => (machines <= 40 ? 260 : 110)

/** Which times of its tasks a plan has, in words: a bound holds for these. */
const placedOn = (board: Board, machine: Machine) =>
  machine.tasks
    .map((task) => {
      const days = board.days[task.index]!
      return days.length === 0 ? '-' : board.isBroken(task) ? days.length : '+'
    })
    .join(' ')

/** Bounds of every machine, and what they tell of the days on which its tasks should meet. */
async function firstBounds(board: Board, problem: PlanProblem, { shouldStop }: PlanOptions): Promise<Bounds> {
  const bounds: Bounds = new Map()
  for (const machine of board.machines) {
    if (bounds.size % 8 === 7) {
      await new Promise((resolve) => setTimeout(resolve))
      if (shouldStop?.()) return bounds
    }
    const bound = boundOf(machine, board, problem, roundsFor(board.machines.length))
    for (const [task, opening] of bound.opening) task.opening = opening
    bounds.set(machine, { ...bound, placed: placedOn(board, machine) })
  }
  return bounds
}

/** No plan of what is placed costs less, whoever does it; machines whose tasks are others now are reckoned anew. */
function lowerBound(board: Board, problem: PlanProblem, bounds: Bounds): number {
  return board.machines.reduce((sum, machine) => {
    const known = bounds.get(machine)
    if (known?.placed === placedOn(board, machine)) return sum + known.least
    return sum + boundOf(machine, board, problem, roundsFor(board.machines.length)).least
  }, 0)
}

/** Lays out what is planned now, and puts the rest where it costs least. */
export function begin(board: Board, problem: PlanProblem): void {
  layOut(board, problem, problem.present ?? [])
  placeRest(board)
}

/** Puts what is on no day yet where it costs least. */
export function placeRest(board: Board): void {
  const groups = movableGroups(board)
    .filter(([task]) => task!.isWanted)
    .sort((a, b) => a[0]!.depth - b[0]!.depth || dueOf(a) - dueOf(b))
  board.judging.openingWeighs = 0.6
  place(
    board,
    groups.filter((group) => group.some((task) => !isDone(board, task))),
  )
  board.judging.openingWeighs = 1
}

const dueOf = (group: Task[]) => Math.min(...group.map(({ due }) => due))

function isDone(board: Board, task: Task): boolean {
  const days = board.days[task.index]!
  return days.length > 0 && !board.isBroken(task)
}

/** Puts visits on a board as they are, as far as the rules allow; in the order of their days. */
export function layOut(
  board: Board,
  problem: PlanProblem,
  visits: readonly Pick<PlannedVisit, 'machine' | 'day' | 'crew' | 'tasks'>[],
): void {
  const taskOf = new Map(board.tasks.map((task) => [task.id, task]))
  const memberAt = (id: string) => problem.crew.findIndex((member) => member.id === id)
  for (const visit of [...visits].sort((a, b) => a.day - b.day)) {
    const lead = memberAt(visit.crew)
    const ids = new Set(visit.tasks)
    const rest: { task: Task; day: number }[] = []
    for (const id of ids) {
      const read = readOccurrence(id, (each) => taskOf.has(each))
      const task = read && taskOf.get(read.id)!
      if (!task || task.on.id !== visit.machine) continue
      if (read.at > 0 || task.fixedDays.length > 0) rest.push({ task, day: visit.day })
      else if (board.days[task.index]!.length === 0 && task.group.every((each) => ids.has(each.id)))
        board.putAt(task.group, visit.day, lead)
    }
    for (const { task, day } of rest)
      if (!board.days[task.index]!.includes(day)) board.putNext(task, day, lead)
  }
}

/** The plan on a board, as data. */
export function visitsOf(board: Board, problem: PlanProblem): PlannedVisit[] {
  const nameOf = (member: number) => board.crew[member]?.id ?? ''
  const fixedAt = new Map(
    (problem.fixed ?? []).map((fixed) => [JSON.stringify([fixed.machine, fixed.day]), fixed]),
  )
  return board.visitOn
    .flatMap((visits) => [...visits.values()])
    .map(({ machine, day, lead, helpers, doing, work, isFixed }) => {
      const fixed = isFixed ? fixedAt.get(JSON.stringify([machine.id, day])) : undefined
      const ids = doing.flatMap(({ task, at }) => (at < 0 ? [] : [occurrenceId(task.id, at)]))
      return {
        machine: machine.id,
        day,
        crew: fixed?.crew ?? nameOf(lead),
        helpers: helpers.map((member, at) => (member < 0 ? (fixed?.helpers?.[at] ?? '') : nameOf(member))),
        // What is booked keeps its order and its names, those that nobody knows among them.
        tasks: [...(fixed?.tasks ?? []), ...ids.filter((id) => !fixed?.tasks.includes(id))],
        minutes: work.minutes,
      }
    })
    .sort((a, b) => a.day - b.day || (a.machine < b.machine ? -1 : a.machine > b.machine ? 1 : 0))
}

/** @param bounds of the machines; without them the bound is only what can be told at a glance */
export function resultOf(board: Board, problem: PlanProblem, bounds?: Bounds): PlanResult {
  const visits = visitsOf(board, problem)
  const cost = planCost(problem, visits)
  const bound = Math.min(bounds ? lowerBound(board, problem, bounds) : plainBound(board, problem), cost.total)
  return {
    visits,
    unplaced: unplacedOf(board, problem),
    cost,
    lowerBound: bound,
    proven: cost.total - bound <= 1e-6 * Math.max(1, Math.abs(cost.total)),
    // What is put on a plan keeps every rule: what it breaks, the booked visits break.
    fixedFaults: checkPlan(problem, visits),
  }
}
