import { planVisits } from '@/core/plan'
import { smallProblem } from '../tests/support/planProblems'
import { exactPlan } from '../tests/support/planExact'
import { judge } from '../tests/support/planChecker'
async function main() {
  const [from, to] = process.argv.slice(2).map(Number) as [number, number]
  let same = 0, all = 0, worst = 0, proven = 0, broken = 0, boundBad = 0, skipped = 0
  for (let seed = from; seed < to; seed++) {
    const problem = smallProblem(seed)
    const t = performance.now()
    const plan = await planVisits(problem, { seed: 1 })
    const ms = performance.now() - t
    const said = judge(problem, plan.visits)
    // problems whose booked visit breaks rules by itself are judged apart
    if (plan.fixedFaults.length > 0) { skipped++; continue }
    if ('broken' in said) { broken++; console.log(seed, 'BROKEN', said.broken); continue }
    if (Math.abs(said.cost - plan.cost.total) > 1e-6) console.log(seed, 'COST', said.cost, plan.cost)
    const best = exactPlan(problem)
    all++
    const missing = plan.unplaced.length
    if (missing !== best.missing) { console.log(seed, 'MISSING', missing, best.missing, JSON.stringify(plan.unplaced)); continue }
    const gap = plan.cost.total - best.cost
    if (gap < -1e-6) console.log(seed, 'BETTER THAN EXACT?', plan.cost.total, best.cost)
    if (Math.abs(gap) < 1e-6) same++
    else console.log(seed, 'GAP', plan.cost.total, best.cost, ms.toFixed(0))
    worst = Math.max(worst, gap / Math.max(1, Math.abs(best.cost)))
    if (plan.proven) proven++
    if (plan.lowerBound > best.cost + 1e-6) { boundBad++; console.log(seed, 'BOUND', plan.lowerBound, best.cost) }
  }
  console.log({ all, same, worst, proven, broken, boundBad, skipped })
}
void main()
