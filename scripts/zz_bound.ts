import { Board } from '@/core/plan/planner/board'
import { boundOf } from '@/core/plan/planner/bound'
import { begin } from '@/core/plan/planner/plan'
import { fleetProblem } from '../tests/bench/planProblem'
const problem = fleetProblem(400, 182)
const board = new Board(problem)
begin(board, problem)
const list = board.machines.filter((_, i) => i % 8 === 0)
for (const rounds of [30, 60, 110, 260]) {
  const t = performance.now()
  let sum = 0
  for (const m of list) sum += boundOf(m, board, problem, rounds).least
  console.log(process.env.PACE, process.env.IDLE, rounds, sum.toFixed(0), (performance.now() - t).toFixed(0))
}
