import { planVisits } from '@/core/plan'
import { fleetProblem } from '../tests/bench/planProblem'
import { judge } from '../tests/support/planChecker'
async function main() {
  const [count, days, effort] = process.argv.slice(2).map(Number) as [number, number, number]
  { const c = performance.now(); let x = 0; for (let i = 0; i < 3e8; i++) x = (x + i * 7) % 1000003; console.log('calib', (performance.now() - c).toFixed(0), x) }
  const problem = fleetProblem(count, days)
  console.log(problem.tasks.length, 'tasks', problem.crew.length, 'crew')
  const t = performance.now()
  const marks: string[] = []
  const plan = await planVisits(problem, { seed: 1, effort, onProgress: ({ done, of, cost, unplaced }) => { if (done % Math.max(200, Math.round(of / 12 / 200) * 200) === 0) marks.push(`${done}:${cost.toFixed(0)}/${unplaced}@${((performance.now()-t)/1000).toFixed(1)}`) } })
  console.log(marks.join('  '))
  console.log(((performance.now() - t) / 1000).toFixed(1), 's', plan.visits.length, 'visits', plan.unplaced.length, 'unplaced', plan.unplaced[0], plan.cost, plan.lowerBound, ((plan.cost.total / plan.lowerBound - 1) * 100).toFixed(2) + '%')
  const said = judge(problem, plan.visits)
  console.log(said)
  const cap = problem.crew.reduce((s, c) => s + c.minutesByDay.reduce((a, b) => a + b, 0), 0)
  console.log('load', (plan.visits.reduce((s, v) => s + v.minutes, 0) / cap).toFixed(2), JSON.stringify(plan.fixedFaults.slice(0, 2)))
}
void main()
