import type { Machine, Task } from './linked'
import type { VisitWork } from './visitWork'

/** One time of a task on a visit: `at` is 0 for the first, -1 where a fixed visit names it a second time. */
export type Doing = { task: Task; at: number }

/** A visit in the making. People are numbers in the crew, -1 for somebody who is not of it. */
export type Visit = {
  machine: Machine
  day: number
  lead: number
  helpers: number[]
  doing: Doing[]
  work: VisitWork
  isFixed: boolean
  /** Helpers that a fixed visit has whatever is done on it. */
  ownHelpers: readonly number[]
}

/** What is compared with what was added up: sums of fractions are off by so much at most. */
export const eps = 1e-7
