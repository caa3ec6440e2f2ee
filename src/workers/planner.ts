import {
  planVisits,
  problemToPropose,
  proposalsOf,
  whatIf,
  type PlannerAnswers,
  type PlannerAsks,
} from '@/core/plan'

let stopped = false
const answer = (message: PlannerAnswers) => self.postMessage(message)

self.onmessage = async ({ data }: MessageEvent<PlannerAsks>) => {
  if (data.kind === 'stop') {
    stopped = true
    return
  }
  try {
    if (data.kind === 'whatIf') {
      const { change } = data
      answer({ kind: 'tried', change, answer: await whatIf(data.fleet, change, data.currency) })
      return
    }
    const { fleet, currency, seed } = data
    const problem = problemToPropose(fleet)
    const { visits, unplaced, cost, lowerBound, proven } = await planVisits(problem, {
      seed,
      onProgress: (progress) => answer({ kind: 'progress', progress }),
      shouldStop: () => stopped,
    })
    const proposals = proposalsOf(fleet, problem, visits, currency)
    answer({ kind: 'planned', proposals, unplaced, cost, lowerBound, proven })
  } catch (error) {
    answer({ kind: 'failed', says: error instanceof Error ? error.message : String(error) })
  }
}
