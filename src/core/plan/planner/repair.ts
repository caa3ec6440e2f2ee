import { Board } from './board'
import type { Machine } from './linked'
import { checkPlan } from './check'
import { taskReader } from './cost'
import { layOut, placeRest, resultOf } from './plan'
import { readProblem } from './readProblem'
import { improve } from './search'
import type { PlannedVisit, PlanOptions, PlanProblem, PlanResult, PlanTask, PlanViolation } from './types'

/** What has become different since a plan was made. */
export type PlanChange =
  /** A member is away on these days. */
  | { kind: 'away'; crew: string; days: number[] }
  /** A machine is called to a job, and cannot be worked on. */
  | { kind: 'called'; machine: string; days: number[] }
  /** A part, or the parts of a task, come so many days later. */
  | { kind: 'partsLate'; part?: string; task?: string; days: number }
  /** A yard has room for more visits a day, or for fewer. */
  | { kind: 'benches'; yard: string; places: number }
  /** Tasks whose windows or costs are others: readings moved them, or frost comes early. */
  | { kind: 'tasks'; tasks: (Partial<PlanTask> & { id: string })[] }
  /** Tasks that came up. */
  | { kind: 'added'; tasks: PlanTask[] }
  /** A visit of these days did not happen: everything on it is still to do. */
  | { kind: 'missed'; machine: string; day: number }

export type RepairOptions = Partial<PlanOptions> & {
  /** Days from today on that nothing is moved from or to, where it need not be: 3, ours. */
  frozenDays?: number
  /** What moving a visit costs where the problem does not tell: as much as its own fixed cost and an hour. */
  moveCost?: number
}

export type RepairResult = PlanResult & {
  /** The problem as it is now. */
  problem: PlanProblem
  /** What the plan as it was breaks. */
  broken: PlanViolation[]
}

/** Steps for a repair: an answer while somebody waits. */
const steps = 450

/**
 * The smallest repair of a plan after one change: visits stay as they are where the rules let them, each that is
 * moved costs what moving it costs, those of the first days are moved only where they cannot stay.
 *
 * @throws RangeError for a problem that cannot be read
 */
export async function repairPlan(
  problem: PlanProblem,
  visits: readonly PlannedVisit[],
  change: PlanChange | readonly PlanChange[],
  { seed = 1, frozenDays = 3, moveCost, ...options }: RepairOptions = {},
): Promise<RepairResult> {
  const changes = Array.isArray(change) ? (change as readonly PlanChange[]) : [change as PlanChange]
  const changed = changes.reduce(changedProblem, problem)
  readProblem(changed)
  const missed = changes.flatMap((each) => (each.kind === 'missed' ? [each] : []))
  const standing = visits.filter(
    ({ machine, day }) => !missed.some((each) => each.machine === machine && each.day === day),
  )
  const broken = checkPlan(changed, standing)
  const isBroken = (visit: PlannedVisit) =>
    broken.some(
      ({ machine, day, crew, task }) =>
        (day === undefined || day === visit.day) &&
        (machine === undefined || machine === visit.machine) &&
        (crew === undefined || crew === visit.crew || visit.helpers.includes(crew)) &&
        (task === undefined || visit.tasks.includes(task)),
    )
  const read = taskReader(changed)
  const isFixed = (visit: PlannedVisit) =>
    (changed.fixed ?? []).some(({ machine, day }) => machine === visit.machine && day === visit.day)
  const costOf = (visit: PlannedVisit) =>
    changed.present?.find((each) => each.machine === visit.machine && each.day === visit.day)?.moveCost ??
    moveCost ??
    (changed.machines.find(({ id }) => id === visit.machine)?.visitFixedCost ?? 0) +
      (changed.downtimeCostPerDay ?? 0) +
      60 * changed.labourRatePerMinute
  const free = standing.filter((visit) => !isFixed(visit))
  const stays = free.filter(
    (visit) => visit.day < frozenDays && !isBroken(visit) && visit.tasks.every((id) => read(id)?.at === 0),
  )
  const now: PlanProblem = {
    ...changed,
    fixed: [
      ...(changed.fixed ?? []),
      ...stays.map(({ machine, day, crew, helpers, tasks }) => ({ machine, day, crew, helpers, tasks })),
    ],
    present: free
      .filter((visit) => !stays.includes(visit))
      .map((visit) => ({ ...visit, moveCost: costOf(visit) })),
  }
  const board = new Board(now)
  layOut(board, now, now.present!)
  const near = new Set<Machine>()
  const shaken = new Set([
    ...free.filter(isBroken).map(({ machine }) => machine),
    ...missed.map(({ machine }) => machine),
    ...changes.flatMap((each) =>
      'tasks' in each ? each.tasks.flatMap(({ id }) => read(id)?.task.machine ?? []) : [],
    ),
  ])
  for (const machine of board.machines)
    if (shaken.has(machine.id) || machine.tasks.some((task) => board.isMissing(task))) near.add(machine)
  placeRest(board)
  // Others of the same days and yards may make room.
  const days = new Set(
    free.filter(({ machine }) => shaken.has(machine)).flatMap(({ day }) => [day - 1, day, day + 1]),
  )
  const yards = new Set([...near].map(({ yardIndex }) => yardIndex))
  for (const machine of board.machines) {
    if (near.size >= 24) break
    if (
      yards.has(machine.yardIndex) &&
      [...board.visitOn[machine.index]!.keys()].some((day) => days.has(day))
    )
      near.add(machine)
  }
  if (near.size > 0) await improve(board, now, { seed, ...options }, { near, steps })
  return { ...resultOf(board, now), problem: changed, broken }
}

/** A problem after one change. */
export function changedProblem(problem: PlanProblem, change: PlanChange): PlanProblem {
  switch (change.kind) {
    case 'away':
      return {
        ...problem,
        crew: problem.crew.map((member) =>
          member.id === change.crew
            ? {
                ...member,
                minutesByDay: member.minutesByDay.map((minutes, day) =>
                  change.days.includes(day) ? 0 : minutes,
                ),
              }
            : member,
        ),
      }
    case 'called':
      return {
        ...problem,
        machines: problem.machines.map((machine) =>
          machine.id === change.machine
            ? { ...machine, blockedDays: [...new Set([...machine.blockedDays, ...change.days])] }
            : machine,
        ),
      }
    case 'partsLate':
      return {
        ...problem,
        stock: problem.stock?.map((each) =>
          each.part === change.part
            ? // What is there today stays there; what was to come, comes later.
              {
                ...each,
                byDay: each.byDay.map((free, day) =>
                  Math.min(free, day < change.days ? each.byDay[0]! : each.byDay[day - change.days]!),
                ),
              }
            : each,
        ),
        tasks: problem.tasks.map((task) =>
          task.id === change.task ? { ...task, partsFromDay: (task.partsFromDay ?? 0) + change.days } : task,
        ),
      }
    case 'benches':
      return {
        ...problem,
        benches: [
          ...(problem.benches ?? []).filter(({ yard }) => yard !== change.yard),
          { yard: change.yard, places: change.places },
        ],
      }
    case 'tasks': {
      const patchOf = new Map(change.tasks.map((task) => [task.id, task]))
      return { ...problem, tasks: problem.tasks.map((task) => ({ ...task, ...patchOf.get(task.id) })) }
    }
    case 'added':
      return { ...problem, tasks: [...problem.tasks, ...change.tasks] }
    case 'missed':
      return problem
  }
}
