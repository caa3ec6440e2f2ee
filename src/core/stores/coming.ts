import type { OrderAdvice } from './projection'

/** A part that wants to be ordered for what is coming. */
export type ComingNeed = OrderAdvice & {
  partId: string
  /** What will be taken in the mean within a quarter. */
  expected: number
  minimum: number
  /** Where it is wanted: visits' and services' machines, soonest first. */
  for: string[]
}
