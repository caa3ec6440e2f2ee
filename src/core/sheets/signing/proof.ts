import { newestRound, visitRound } from '../../composing'
import type { SheetState, StepState } from '../state'

/**
 * What stopped the newest proving and was not mended since: a gate that came up because of an answer, such
 * as a leak, was confirmed, and neither was work added after it nor did anybody say why it goes back so.
 */
export function proofStops(state: SheetState): StepState[] {
  const newest = newestRound(
    state.steps.map(({ step }) => step),
    'prove',
  )
  return state.steps.filter(
    ({ step, state: is, by }) =>
      is === 'done' &&
      visitRound(step.key, 'prove') === newest &&
      step.step.gate &&
      step.step.when !== null &&
      by?.kind === 'done' &&
      by.payload.reason === '',
  )
}

/** What was answered that brought such a stop up: "a leak". */
export const stoppedBy = ({ step }: StepState): string => [step.step.when?.is ?? []].flat().join(', ')
