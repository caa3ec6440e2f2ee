import type { PlannedVisit, PlanProblem, PlanTask } from '@/core/plan'

/**
 * A second opinion on a plan, written from the rules alone and without the planner's code: the first rule that is
 * broken, in words, or what the plan costs.
 */
export function judge(problem: PlanProblem, visits: PlannedVisit[]): { broken: string } | { cost: number } {
  const no = (broken: string) => ({ broken })
  const H = problem.horizonDays
  const find = (id: string): [PlanTask, number] | undefined => {
    const whole = problem.tasks.find((each) => each.id === id)
    if (whole) return [whole, 1]
    const match = /^(.+)~(\d+)$/.exec(id)
    const task = match && problem.tasks.find((each) => each.id === match[1])
    return task ? [task, Number(match[2])] : undefined
  }
  let cost = 0
  const minutesOf: Record<string, Record<number, number>> = {}
  const homes: Record<string, Set<string>> = {}
  const dayOf: Record<string, number> = {}
  const bench: Record<string, number> = {}
  const tool: Record<string, number> = {}
  const pieces: [string, number, number][] = []
  for (const visit of visits) {
    const machine = problem.machines.find((each) => each.id === visit.machine)!
    if (visit.day < 0 || visit.day >= H) return no('outside the horizon')
    if (visits.some((other) => other !== visit && other.machine === visit.machine && other.day === visit.day))
      return no('two visits of a machine on a day')
    if (machine.blockedDays.includes(visit.day)) return no('blocked day')
    const found = visit.tasks.map((id) => find(id)!)
    const tasks = found.map(([task]) => task)
    const nodes = new Set<string>()
    for (const task of tasks) for (const node of task.access) nodes.add(node)
    let minutes = 0
    for (const node of nodes) minutes += machine.accessMinutes[node] ?? 0
    for (const task of tasks) minutes += task.minutes
    if (Math.abs(minutes - visit.minutes) > 1e-6) return no('minutes are not the union')
    const people = Math.max(1, ...tasks.map((task) => task.people ?? 1))
    if (visit.helpers.length < people - 1) return no('too few helpers')
    if (new Set([visit.crew, ...visit.helpers]).size !== visit.helpers.length + 1)
      return no('one person twice')
    const whole = tasks.some((task) => (task.people ?? 1) > 1 && task.helperMinutes === undefined)
    const helps = whole ? minutes : tasks.reduce((sum, task) => sum + (task.helperMinutes ?? 0), 0)
    const spend = (id: string, spent: number) => {
      const member = problem.crew.find((each) => each.id === id)!
      const days = (minutesOf[id] ??= {})
      days[visit.day] = (days[visit.day] ?? 0) + spent
      cost += spent * problem.labourRatePerMinute
      const away = member.yard !== undefined && machine.yard !== undefined && member.yard !== machine.yard
      const trips = (homes[`${id} ${visit.day}`] ??= new Set())
      if (away && !trips.has(machine.yard!)) {
        trips.add(machine.yard!)
        const one =
          problem.travelMinutes?.[member.yard!]?.[machine.yard!] ??
          problem.travelMinutes?.[machine.yard!]?.[member.yard!] ??
          0
        days[visit.day] = days[visit.day]! + 2 * one
        cost += 2 * one * problem.labourRatePerMinute
      }
    }
    spend(visit.crew, minutes)
    for (const helper of visit.helpers) spend(helper, helps)
    const lead = problem.crew.find((each) => each.id === visit.crew)!
    for (const task of tasks)
      if (task.skill && !lead.skills.includes(task.skill)) return no('lead lacks a skill')
    if (machine.yard) bench[`${machine.yard} ${visit.day}`] = (bench[`${machine.yard} ${visit.day}`] ?? 0) + 1
    for (const name of new Set(tasks.flatMap((task) => [task.tool ?? [], task.moreTools ?? []].flat())))
      tool[`${name} ${visit.day}`] = (tool[`${name} ${visit.day}`] ?? 0) + 1
    for (const [at, id] of visit.tasks.entries()) {
      const task = tasks[at]!
      if (task.machine !== visit.machine) return no('task of another machine')
      const key = found[at]![1] === 1 ? task.id : id
      if (dayOf[key] !== undefined) return no('done twice')
      dayOf[key] = visit.day
      if (visit.day < (task.partsFromDay ?? 0)) return no('parts not there')
      for (const { part, quantity } of task.parts ?? []) pieces.push([part, visit.day, quantity])
      for (const other of task.implies ?? [])
        if (found[at]![1] === 1 && !visit.tasks.includes(other)) return no('implied task elsewhere')
    }
    cost += machine.visitFixedCost + (problem.downtimeCostPerDay ?? 0)
  }
  for (const { id, minutesByDay } of problem.crew)
    for (const [day, spent] of Object.entries(minutesOf[id] ?? {}))
      if (spent > (minutesByDay[Number(day)] ?? 0) + 1e-6) return no(`${id} is overloaded on ${day}`)
  for (const { yard, places } of problem.benches ?? [])
    for (let day = 0; day < H; day++) if ((bench[`${yard} ${day}`] ?? 0) > places) return no('bench is full')
  for (const { id, count } of problem.tools ?? [])
    for (let day = 0; day < H; day++) if ((tool[`${id} ${day}`] ?? 0) > count) return no('tool is taken')
  for (const { part, byDay } of problem.stock ?? [])
    for (let day = 0; day < H; day++) {
      const taken = pieces
        .filter(([name, when]) => name === part && when <= day)
        .reduce((sum, [, , n]) => sum + n, 0)
      if (
        pieces.some(([name, when]) => name === part && when === day) &&
        taken > (byDay[day] ?? byDay.at(-1) ?? 0) + 1e-6
      )
        return no('stock runs out')
    }
  for (const task of problem.tasks) {
    let due = task.due
    let [from, to] = [task.earliest, task.latest]
    let last = -1
    for (let time = 1; ; time++) {
      const day = dayOf[time === 1 ? task.id : `${task.id}~${time}`]
      if (day === undefined) break
      if (day < from || day > to) return no(`${task.id} outside its window`)
      if (time > 1 && due >= H) return no('a repeat that is not due')
      if (time > 1 && task.repeatEveryDays === undefined) return no('does not repeat')
      const told = task.costByDay?.[day - due + task.due]
      cost += told ?? (day < due ? task.earlyCostPerDay * (due - day) : task.lateCostPerDay * (day - due))
      last = day
      if (task.repeatEveryDays === undefined) break
      due = day + task.repeatEveryDays
      from = Math.max(day + 1, due - (task.earlyDays ?? task.due - task.earliest))
      to = due + (task.lateDays ?? task.latest - task.due)
    }
    if (last >= 0 && task.repeatEveryDays !== undefined) cost += (task.endCostPerDay ?? 0) * (H - last)
    for (const other of task.after ?? []) {
      if (dayOf[task.id] === undefined) continue
      const before = dayOf[other]
      if (before === undefined || before > dayOf[task.id]!) return no('before what it comes after')
      const apart = problem.tasks.find((each) => each.id === other)!.machine !== task.machine
      if (apart && before === dayOf[task.id]) return no('not a later day than on another machine')
    }
  }
  for (const each of problem.fixed ?? [])
    if (
      !visits.some(
        (visit) =>
          visit.machine === each.machine &&
          visit.day === each.day &&
          visit.crew === each.crew &&
          each.tasks.every((task) => visit.tasks.includes(task)),
      )
    )
      return no('a booked visit is gone')
  for (const each of problem.present ?? [])
    if (
      !visits.some(
        (visit) => visit.machine === each.machine && visit.day === each.day && visit.crew === each.crew,
      )
    )
      cost += each.moveCost
  return { cost }
}
