import type { PlanProblem } from '@/core/plan'

/**
 * The least cost of one machine's tasks where the crew is no limit and nothing repeats: the best split of the tasks
 * into visits, each on its cheapest day, over all subsets. Two visits never share a day in the best split, because
 * together they cost less.
 */
export function leastOfMachine(problem: PlanProblem): number {
  const { tasks, horizonDays: H, labourRatePerMinute: rate, downtimeCostPerDay = 0 } = problem
  const [machine] = problem.machines as [PlanProblem['machines'][number]]
  const all = (1 << tasks.length) - 1
  const alone = new Float64Array(all + 1).fill(Infinity)
  for (let set = 1; set <= all; set++) {
    const own = tasks.filter((_, at) => set & (1 << at))
    const nodes = new Set(own.flatMap(({ access }) => access))
    let minutes = own.reduce((sum, task) => sum + task.minutes, 0)
    for (const node of nodes) minutes += machine.accessMinutes[node] ?? 0
    const fixed = machine.visitFixedCost + downtimeCostPerDay + rate * minutes
    for (let day = 0; day < H; day++) {
      if (machine.blockedDays.includes(day)) continue
      let cost = fixed
      for (const task of own)
        cost +=
          day < task.earliest || day > task.latest
            ? Infinity
            : day < task.due
              ? (task.due - day) * task.earlyCostPerDay
              : (day - task.due) * task.lateCostPerDay
      alone[set] = Math.min(alone[set]!, cost)
    }
  }
  const best = new Float64Array(all + 1).fill(Infinity)
  best[0] = 0
  for (let set = 1; set <= all; set++) {
    const lowest = set & -set
    for (let part = set; part > 0; part = (part - 1) & set)
      if (part & lowest) best[set] = Math.min(best[set]!, alone[part]! + best[set ^ part]!)
  }
  return best[all]!
}
