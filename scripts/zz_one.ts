import { planVisits } from '@/core/plan'
import { smallProblem } from '../tests/support/planProblems'
import { exactPlan } from '../tests/support/planExact'
async function main() {
  for (const seed of process.argv.slice(2).map(Number)) {
    const problem = smallProblem(seed)
    const plan = await planVisits(problem, { seed: 1 })
    const best = exactPlan(problem)
    console.log('== ', seed)
    for (const t of problem.tasks) console.log(JSON.stringify(t))
    console.log('ours', JSON.stringify(plan.visits), JSON.stringify(plan.unplaced), plan.cost.total)
    console.log('best', JSON.stringify(best.visits), best.cost, best.missing)
  }
}
void main()
