import type { Board } from './board'
import type { Task } from './linked'
import { repeatWindow } from './dayCost'
import { occurrenceId } from './occurrences'
import type { PlanProblem, PlanRule, Unplaced } from './types'
import { toolsOf, visitWork } from './visitWork'

/** What a plan leaves out, each with the rule that stops it. */
export function unplacedOf(board: Board, problem: PlanProblem): Unplaced[] {
  const result: Unplaced[] = []
  for (const task of board.tasks) {
    const days = board.days[task.index]!
    if (days.length === 0) {
      if (task.isRequired) result.push({ task: task.id, ...whyNot(task, board, problem) })
      continue
    }
    if (!board.isBroken(task)) continue
    const window = repeatWindow(task, days[days.length - 1]!)
    result.push({
      task: occurrenceId(task.id, days.length),
      ...whyNoDay(task, window.from, window.to, board, problem),
    })
  }
  return result
}

type Why = { rule: PlanRule; reason: string }

function whyNot(task: Task, board: Board, problem: PlanProblem): Why {
  const { horizonDays } = problem
  if (task.never === 'after')
    return {
      rule: 'after',
      reason: `It comes after ${missingOf(task.after, problem)}, which is not among the tasks.`,
    }
  if (task.never === 'implies')
    return {
      rule: 'implies',
      reason: `It wants ${missingOf(task.implies, problem, task.machine)} on its visit, which cannot be there.`,
    }
  const waits = task.before.find((other) => board.days[other.index]!.length === 0)
  if (waits && !task.group.includes(waits))
    return { rule: 'after', reason: `It comes after ${waits.id}, which is left out.` }
  const never = task.group.find((other) => other !== task && other.never !== null)
  if (never) return { rule: 'implies', reason: `${never.id} belongs on its visit, and cannot be done.` }
  const from = Math.max(0, ...task.group.map(({ earliest }) => earliest))
  const to = Math.min(horizonDays - 1, ...task.group.map(({ latest }) => latest))
  if (task.latest < 0)
    return { rule: 'window', reason: `Its window closed on day ${task.latest}, before today.` }
  if (task.earliest > task.latest || task.earliest >= horizonDays)
    return { rule: 'window', reason: 'Its window holds no day of the plan.' }
  if (from > to) return { rule: 'implies', reason: `What belongs on its visit has no day in common with it.` }
  const window = board.firstWindow(task)
  if (!window) {
    const parts =
      task.partsFromDay !== undefined && task.partsFromDay > Math.min(task.latest, horizonDays - 1)
    if (parts)
      return { rule: 'parts', reason: `Its parts are there from day ${task.partsFromDay}, after its window.` }
    return { rule: 'after', reason: 'What it has to come after, or before, leaves it no day.' }
  }
  return whyNoDay(task, Math.max(window.from, from), Math.min(window.to, to), board, problem)
}

const missingOf = (ids: string[] | undefined, { tasks }: PlanProblem, machine?: string) =>
  ids?.find(
    (id) => !tasks.some((task) => task.id === id && (machine === undefined || task.machine === machine)),
  ) ?? ''

/** Which rule stands in the way on the days of a window: what can never be first, then what is used up. */
function whyNoDay(task: Task, from: number, to: number, board: Board, problem: PlanProblem): Why {
  const days: number[] = []
  for (let day = Math.max(0, from); day <= Math.min(to, problem.horizonDays - 1); day++) days.push(day)
  if (days.length === 0) return { rule: 'window', reason: 'Its window holds no day of the plan.' }
  const span = days.length === 1 ? `on day ${days[0]}` : `from day ${days[0]} to ${days[days.length - 1]}`
  const group = task.group
  const skills = new Set(group.flatMap(({ skill }) => skill ?? []))
  const able = problem.crew.filter((member) => [...skills].every((skill) => member.skills.includes(skill)))
  if (able.length === 0) return { rule: 'skill', reason: `Nobody has ${[...skills].join(' and ')}.` }
  const open = days.filter((day) => !task.on.isBlocked[day])
  if (open.length === 0) return { rule: 'blocked', reason: `${task.on.id} cannot be worked on ${span}.` }
  const stocked = open.filter((day) => group.every(({ partsFromDay }) => day >= (partsFromDay ?? 0)))
  if (stocked.length === 0) return { rule: 'parts', reason: `Its parts are not there ${span}.` }
  for (const { part, quantity } of group.flatMap(({ parts }) => parts ?? [])) {
    const stock = problem.stock?.find((each) => each.part === part)
    if (!stock) continue
    const most = Math.max(
      ...stocked.map((day) => stock.byDay[day] ?? stock.byDay[stock.byDay.length - 1] ?? 0),
    )
    if (most < quantity)
      return { rule: 'parts', reason: `${quantity} of ${part} are wanted, ${most} are there ${span}.` }
  }
  for (const tool of group.flatMap(toolsOf)) {
    const known = problem.tools?.find(({ id }) => id === tool)
    if (known && known.count < 1) return { rule: 'tool', reason: `There is no ${tool}.` }
  }
  const bench = problem.benches?.find(({ yard }) => yard === task.on.yard)
  if (bench && bench.places < 1) return { rule: 'bench', reason: `${bench.yard} has no bench.` }
  const { minutes, helpers } = visitWork(task.on, group)
  const longest = Math.max(
    0,
    ...able.flatMap(({ minutesByDay }) => stocked.map((day) => minutesByDay[day] ?? 0)),
  )
  if (longest < minutes)
    return {
      rule: 'minutes',
      reason: `It takes ${minutes} minutes; nobody who may has more than ${longest} on a day ${span}.`,
    }
  if (helpers >= problem.crew.length)
    return { rule: 'helpers', reason: `It wants ${helpers + 1} people; there are ${problem.crew.length}.` }
  const stops = stocked.map((day) => board.stopOn(group, day))
  const common = (['parts', 'tool', 'bench', 'helpers', 'minutes'] as const).find((rule) =>
    stops.every((stop) => stop === rule),
  )
  const words: Record<string, string> = {
    parts: 'The parts are taken by other visits',
    tool: 'The tool is on other visits',
    bench: 'All bench places are taken',
    helpers: 'Nobody is free to help',
    minutes: 'Everybody who may do it is taken',
  }
  const rule = common ?? (stops.includes('minutes') ? 'minutes' : (stops[0] ?? 'minutes'))
  return { rule, reason: `${words[rule] ?? words.minutes} ${span}.` }
}
