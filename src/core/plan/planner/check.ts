import { taskReader, timesOf } from './cost'
import { repeatWindow } from './dayCost'
import { occurrenceId } from './occurrences'
import type { PlannedVisit, PlanProblem, PlanRule, PlanTask, PlanViolation } from './types'
import { toolsOf, travelBoth, visitWork } from './visitWork'

const eps = 1e-6

/**
 * Which rules a plan breaks, each with whom and what it is about: what dragging a visit asks at every step.
 *
 * @param visits the whole plan, the fixed visits among them
 * @returns an empty list for a plan that holds
 */
export function checkPlan(problem: PlanProblem, visits: readonly PlannedVisit[]): PlanViolation[] {
  const found: PlanViolation[] = []
  const tell = (rule: PlanRule, says: string, where: Omit<PlanViolation, 'rule' | 'says'> = {}) =>
    found.push({ rule, says, ...where })
  const { horizonDays } = problem
  const machineOf = new Map(problem.machines.map((machine) => [machine.id, machine]))
  const memberOf = new Map(problem.crew.map((member) => [member.id, member]))
  const read = taskReader(problem)
  const sums = new Map<string, { member: string; day: number; minutes: number }>()
  const ways = new Set<string>()
  const spend = (member: string, day: number, minutes: number) => {
    const key = JSON.stringify([member, day])
    const known = sums.get(key) ?? { member, day, minutes: 0 }
    sums.set(key, { ...known, minutes: known.minutes + minutes })
  }
  const benches = new Map<string, number>()
  const tools = new Map<string, number>()
  const onDay = new Set<string>()
  const used = new Map<string, number[]>()
  const seen = new Set<string>()
  for (const visit of visits) {
    const { machine: machineId, day, crew, helpers, tasks: ids } = visit
    const at = { machine: machineId, day }
    const machine = machineOf.get(machineId)
    if (!machine) {
      tell('unknown', `There is no machine ${machineId}.`, at)
      continue
    }
    if (!Number.isInteger(day) || day < 0 || day >= horizonDays) {
      tell('horizon', `Day ${day} is outside the plan.`, at)
      continue
    }
    const key = JSON.stringify([machineId, day])
    if (onDay.has(key)) tell('once', `${machineId} has two visits on day ${day}.`, at)
    onDay.add(key)
    if (machine.blockedDays.includes(day))
      tell('blocked', `${machineId} cannot be worked on on day ${day}.`, at)
    const tasks: PlanTask[] = []
    for (const id of ids) {
      const doing = read(id)
      if (!doing) {
        tell('unknown', `There is no task ${id}.`, { ...at, task: id })
        continue
      }
      const { task } = doing
      tasks.push(task)
      if (task.machine !== machineId)
        tell('unknown', `Task ${id} is one of ${task.machine}.`, { ...at, task: id })
      const time = occurrenceId(task.id, doing.at)
      if (seen.has(time)) tell('once', `Task ${id} is done twice.`, { ...at, task: id })
      seen.add(time)
      if (task.partsFromDay !== undefined && day < task.partsFromDay)
        tell('parts', `The parts of ${id} are there from day ${task.partsFromDay}.`, { ...at, task: id })
      for (const { part, quantity } of task.parts ?? []) {
        const days = used.get(part) ?? Array.from({ length: horizonDays }, () => 0)
        days[day]! += quantity
        used.set(part, days)
      }
    }
    const work = visitWork(machine, tasks)
    if (Math.abs(work.minutes - visit.minutes) > eps)
      tell('minutes', `The visit takes ${work.minutes} minutes, not ${visit.minutes}.`, at)
    const lead = memberOf.get(crew)
    if (!lead) tell('crew', `There is nobody called ${crew}.`, { ...at, crew })
    for (const { id, skill } of tasks)
      if (skill !== undefined && lead && !lead.skills.includes(skill))
        tell('skill', `${crew} may not do ${id}: it wants ${skill}.`, { ...at, crew, task: id })
    if (helpers.length < work.helpers)
      tell('helpers', `${work.helpers} to help are wanted, ${helpers.length} are there.`, at)
    if (new Set([crew, ...helpers]).size < helpers.length + 1)
      tell('helpers', 'Somebody is named twice on one visit.', at)
    for (const [index, member] of [crew, ...helpers].entries()) {
      if (index > 0 && !memberOf.has(member))
        tell('crew', `There is nobody called ${member}.`, { ...at, crew: member })
      spend(member, day, index === 0 ? work.minutes : work.helperMinutes)
      const way = JSON.stringify([member, day, machine.yard])
      if (!ways.has(way))
        spend(member, day, travelBoth(problem.travelMinutes, memberOf.get(member)?.yard, machine.yard))
      ways.add(way)
    }
    if (machine.yard !== undefined) {
      const bench = JSON.stringify([machine.yard, day])
      benches.set(bench, (benches.get(bench) ?? 0) + 1)
    }
    for (const tool of new Set(tasks.flatMap(toolsOf))) {
      const wanted = JSON.stringify([tool, day])
      tools.set(wanted, (tools.get(wanted) ?? 0) + 1)
    }
  }
  for (const { member, day, minutes } of sums.values()) {
    const free = memberOf.get(member)?.minutesByDay[day] ?? 0
    if (memberOf.has(member) && minutes > free + eps)
      tell('minutes', `${member} has ${free} minutes on day ${day}, ${minutes} are planned.`, {
        day,
        crew: member,
      })
  }
  for (const { yard, places } of problem.benches ?? [])
    for (let day = 0; day < horizonDays; day++) {
      const count = benches.get(JSON.stringify([yard, day])) ?? 0
      if (count > places)
        tell('bench', `${yard} has room for ${places} on day ${day}, ${count} are planned.`, { day, yard })
    }
  for (const { id, count } of problem.tools ?? [])
    for (let day = 0; day < horizonDays; day++) {
      const wanted = tools.get(JSON.stringify([id, day])) ?? 0
      if (wanted > count)
        tell('tool', `${wanted} visits want the ${id} on day ${day}, ${count} are there.`, { day, tool: id })
    }
  for (const { part, byDay } of problem.stock ?? []) {
    let sum = 0
    const days = used.get(part) ?? []
    for (let day = 0; day < days.length; day++) {
      sum += days[day]!
      const free = byDay[day] ?? byDay[byDay.length - 1] ?? 0
      if (days[day]! > 0 && sum > free + eps)
        tell('parts', `${sum} of ${part} are taken by day ${day}, ${free} are there.`, { day })
    }
  }
  checkTimes(problem, visits, tell)
  for (const fixed of problem.fixed ?? []) {
    const same = visits.find(({ machine, day }) => machine === fixed.machine && day === fixed.day)
    const stands =
      same?.crew === fixed.crew &&
      fixed.tasks.every((task) => same.tasks.includes(task)) &&
      (fixed.helpers ?? []).every((helper) => same.helpers.includes(helper))
    if (!stands)
      tell('fixed', `What is booked for ${fixed.machine} on day ${fixed.day} stays as it is.`, {
        machine: fixed.machine,
        day: fixed.day,
      })
  }
  return found
}

/** Windows, repeats, and what has to come before or stand on the same visit. */
function checkTimes(
  problem: PlanProblem,
  visits: readonly PlannedVisit[],
  tell: (rule: PlanRule, says: string, where: Omit<PlanViolation, 'rule' | 'says'>) => void,
): void {
  const times = timesOf(problem, visits)
  const taskOf = new Map(problem.tasks.map((task) => [task.id, task]))
  const read = taskReader(problem)
  for (const [task, own] of times) {
    const count = Math.max(...own.keys()) + 1
    let window = { due: task.due, from: task.earliest, to: task.latest }
    for (let at = 0; at < count; at++) {
      const day = own.get(at)
      const id = occurrenceId(task.id, at)
      if (day === undefined) {
        tell('after', `${id} is left out, and a later one planned.`, { task: id })
        break
      }
      if (day < window.from || day > window.to)
        tell('window', `${id} may be done from day ${window.from} to ${window.to}.`, {
          machine: task.machine,
          day,
          task: id,
        })
      if (at > 0 && window.due >= problem.horizonDays)
        tell('window', `${id} is not due inside the plan.`, { machine: task.machine, day, task: id })
      if (task.repeatEveryDays === undefined) {
        if (count > 1) tell('once', `${task.id} does not come again.`, { task: task.id })
        break
      }
      window = repeatWindow(task, day)
    }
    const first = own.get(0)
    for (const id of task.after ?? []) {
      const other = taskOf.get(id)
      const before = other && times.get(other)?.get(0)
      const holds =
        before !== undefined &&
        first !== undefined &&
        (other!.machine === task.machine ? first >= before : first > before)
      if (first !== undefined && !holds && id !== task.id)
        tell('after', `${task.id} comes after ${id}.`, { machine: task.machine, day: first, task: task.id })
    }
  }
  for (const visit of visits) {
    const here = new Map(visit.tasks.flatMap((id) => (read(id) ? [[read(id)!.task.id, read(id)!.at]] : [])))
    for (const id of visit.tasks) {
      const doing = read(id)
      for (const other of doing?.task.implies ?? []) {
        if (other === doing!.task.id) continue
        const comesAgain = taskOf.get(other)?.repeatEveryDays !== undefined
        const holds = doing!.at === 0 ? here.get(other) === 0 : !comesAgain || here.has(other)
        if (!holds)
          tell('implies', `${id} wants ${other} on the same visit.`, {
            machine: visit.machine,
            day: visit.day,
            task: id,
          })
      }
    }
  }
}
