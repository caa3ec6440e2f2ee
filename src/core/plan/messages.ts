import type { FleetChange, WhatIfAnswer } from './whatIf'
import type { Fleet } from './fleet'
import type { PlanCost, PlanProgress, Unplaced } from './planner'
import type { Proposal } from './proposals'

/** What the page asks of the planner's worker, and what it answers. */
export type PlannerAsks =
  | { kind: 'plan'; fleet: Fleet; currency: string; seed: number }
  | { kind: 'whatIf'; fleet: Fleet; currency: string; change: FleetChange }
  | { kind: 'stop' }
export type PlannerAnswers =
  | { kind: 'progress'; progress: PlanProgress }
  | {
      kind: 'planned'
      proposals: Proposal[]
      unplaced: Unplaced[]
      cost: PlanCost
      lowerBound: number
      proven: boolean
    }
  | { kind: 'tried'; change: FleetChange; answer: WhatIfAnswer }
  | { kind: 'failed'; says: string }
