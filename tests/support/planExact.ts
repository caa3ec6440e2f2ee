import type { PlannedVisit, PlanProblem, PlanTask } from '@/core/plan'
import { judge } from './planChecker'

/**
 * Every plan of a small problem, one after the other: each time of each task on each day or left out, each visit
 * by each lead with each helpers. Only for problems of a few tasks on a few days.
 *
 * @returns the fewest required tasks left out, and the least cost of such a plan; among as many, a first time is done
 *   rather than left out for the sake of a repeat that finds no day
 */
export function exactPlan(problem: PlanProblem): { missing: number; cost: number; visits: PlannedVisit[] } {
  let best = { missing: Infinity, begun: 0, cost: Infinity, visits: [] as PlannedVisit[] }
  const H = problem.horizonDays
  const fixedDay = new Map<string, number>()
  for (const { day, tasks } of problem.fixed ?? []) for (const id of tasks) fixedDay.set(id, day)
  const done: { id: string; task: PlanTask; day: number }[] = []

  function placeFrom(at: number, missing: number): void {
    if (missing > best.missing) return
    if (at === problem.tasks.length) return crews(missing)
    const task = problem.tasks[at]!
    const chain = (time: number, due: number, from: number, to: number) => {
      const id = time === 1 ? task.id : `${task.id}~${time}`
      const isWanted = due < H
      if (time > 1 && !isWanted) return placeFrom(at + 1, missing)
      const fixed = fixedDay.get(id)
      const days = fixed !== undefined ? [fixed] : []
      if (fixed === undefined)
        for (let day = Math.max(0, from); day <= Math.min(H - 1, to); day++) days.push(day)
      for (const day of days) {
        done.push({ id, task, day })
        if (task.repeatEveryDays === undefined) placeFrom(at + 1, missing)
        else {
          const next = day + task.repeatEveryDays
          const early = task.earlyDays ?? task.due - task.earliest
          const late = task.lateDays ?? task.latest - task.due
          chain(time + 1, next, Math.max(day + 1, next - early), next + late)
        }
        done.pop()
      }
      if (fixed === undefined) {
        if (isWanted) placeFrom(at + 1, missing + 1)
        else placeFrom(at + 1, missing)
      }
    }
    chain(1, task.due, task.earliest, task.latest)
  }

  function crews(missing: number): void {
    const groups = new Map<string, { machine: string; day: number; ids: string[]; tasks: PlanTask[] }>()
    for (const { id, task, day } of done) {
      const key = `${task.machine} ${day}`
      const own = groups.get(key) ?? { machine: task.machine, day, ids: [], tasks: [] }
      own.ids.push(id)
      own.tasks.push(task)
      groups.set(key, own)
    }
    const visits: PlannedVisit[] = []
    const list = [...groups.values()]
    const choose = (at: number): void => {
      if (at === list.length) {
        const said = judge(problem, visits)
        if ('broken' in said) return
        const begun = done.filter(({ id, task }) => id === task.id && task.due < H).length
        const isBetter =
          missing < best.missing ||
          (missing === best.missing &&
            (begun > best.begun || (begun === best.begun && said.cost < best.cost - 1e-9)))
        if (isBetter)
          best = { missing, begun, cost: said.cost, visits: visits.map((visit) => ({ ...visit })) }
        return
      }
      const { machine, day, ids, tasks } = list[at]!
      const own = problem.machines.find((each) => each.id === machine)!
      const nodes = new Set(tasks.flatMap(({ access }) => access))
      const minutes =
        [...nodes].reduce((sum, node) => sum + (own.accessMinutes[node] ?? 0), 0) +
        tasks.reduce((sum, task) => sum + task.minutes, 0)
      const people = Math.max(1, ...tasks.map((task) => task.people ?? 1))
      const fixed = (problem.fixed ?? []).find((each) => each.machine === machine && each.day === day)
      for (const lead of problem.crew) {
        if (fixed && lead.id !== fixed.crew) continue
        if ((lead.minutesByDay[day] ?? 0) < minutes) continue
        for (const helpers of choices(
          problem.crew.map(({ id }) => id).filter((id) => id !== lead.id),
          Math.max(people - 1, fixed?.helpers?.length ?? 0),
        )) {
          if (fixed?.helpers?.some((helper) => !helpers.includes(helper))) continue
          visits.push({ machine, day, crew: lead.id, helpers, tasks: ids, minutes })
          choose(at + 1)
          visits.pop()
        }
      }
    }
    choose(0)
  }
  placeFrom(0, 0)
  return best
}

function choices(from: string[], count: number): string[][] {
  if (count === 0) return [[]]
  return from.flatMap((each, at) => choices(from.slice(at + 1), count - 1).map((rest) => [each, ...rest]))
}
