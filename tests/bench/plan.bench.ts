import { planVisits, repairPlan, type PlanProblem, type PlanTask } from '@/core/plan'
import { judge } from '../support/planChecker'
import { fleetProblem } from './planProblem'

/**
 * The planner on a fleet's half year: how long it takes, how far it is from its bound, and against what a person
 * would do by hand. Both ways by hand are reckoned without the crew's limits, which favours them.
 */
async function main() {
  for (const [machines, perMember] of [
    [24, 8],
    [400, 22],
    [400, 60],
  ] as const) {
    const problem = fleetProblem(machines, 182, 7, perMember)
    const begun = performance.now()
    const plan = await planVisits(problem, { seed: 1 })
    const seconds = (performance.now() - begun) / 1000
    const said = judge(problem, plan.visits)
    if ('broken' in said) throw new Error(said.broken)
    const { total } = plan.cost
    const percent = (part: number) => `${(100 * part).toFixed(1)} %`
    console.log(
      `${machines} machines, ${problem.tasks.length} tasks, crew of ${problem.crew.length}: ${seconds.toFixed(1)} s, ${plan.visits.length} visits, ${plan.unplaced.length} left out, cost ${total.toFixed(0)}`,
    )
    console.log(
      `  above the bound ${percent(total / plan.lowerBound - 1)}; below each task by itself ${percent(1 - total / oneByOne(problem))}; below all that is open on the leading due day ${percent(1 - total / leading(problem))}`,
    )
    const [visit] = plan.visits.filter(({ day }) => day > 20)
    const repairing = performance.now()
    const repaired = await repairPlan(problem, plan.visits, {
      kind: 'called',
      machine: visit!.machine,
      days: Array.from({ length: 10 }, (_, at) => visit!.day - 3 + at),
    })
    const moved = repaired.visits.filter(
      (each) => !plan.visits.some(({ machine, day }) => machine === each.machine && day === each.day),
    )
    console.log(
      `  a machine called away: ${(performance.now() - repairing).toFixed(0)} ms, ${repaired.broken.length} broken, ${moved.length} moved`,
    )
  }
}

/** A visit for every time of every task, on its due day or the nearest that is allowed. */
function oneByOne(problem: PlanProblem): number {
  return problem.tasks.reduce((sum, task) => sum + visitsOf(problem, [task]), 0)
}

/** Machine by machine: on the day on which something is due, everything whose window is open. */
function leading(problem: PlanProblem): number {
  return problem.machines.reduce(
    (sum, machine) =>
      sum +
      visitsOf(
        problem,
        problem.tasks.filter((task) => task.machine === machine.id),
      ),
    0,
  )
}

type Due = { task: PlanTask; due: number; from: number }

function visitsOf(problem: PlanProblem, tasks: PlanTask[]): number {
  const { horizonDays: H, labourRatePerMinute: rate, downtimeCostPerDay = 0 } = problem
  const machine = problem.machines.find(({ id }) => id === tasks[0]?.machine)
  if (!machine) return 0
  let cost = 0
  const open: Due[] = tasks
    .filter(({ due }) => due < H)
    .map((task) => ({ task, due: task.due, from: task.earliest }))
  while (open.length > 0) {
    open.sort((a, b) => a.due - b.due)
    let day = Math.max(0, open[0]!.due)
    while (machine.blockedDays.includes(day) && day < H - 1) day++
    const now = open.filter((each) => each === open[0] || each.from <= day)
    const nodes = new Set(now.flatMap(({ task }) => task.access))
    let minutes = 0
    for (const node of nodes) minutes += machine.accessMinutes[node] ?? 0
    cost += machine.visitFixedCost + downtimeCostPerDay
    for (const each of now) {
      const { task, due } = each
      minutes += task.minutes
      if ((task.people ?? 1) > 1) cost += rate * (task.helperMinutes ?? 0)
      cost += day < due ? (due - day) * task.earlyCostPerDay : (day - due) * task.lateCostPerDay
      open.splice(open.indexOf(each), 1)
      if (task.repeatEveryDays === undefined) continue
      const next = day + task.repeatEveryDays
      if (next < H) open.push({ task, due: next, from: next - (task.due - task.earliest) })
      else cost += (H - day) * (task.endCostPerDay ?? 0)
    }
    cost += rate * minutes
  }
  return cost
}

main().catch((error: unknown) => {
  console.error(error)
  process.exit(1)
})
