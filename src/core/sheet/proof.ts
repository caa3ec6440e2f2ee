import type { SheetState, StepState } from './state'

/** Which proving of the sheet a step belongs to, from 1; null for any other step. */
const provingRound = (key: string): number | null => {
  const found = /^visit\/prove(?:~(\d+))?\//.exec(key)
  return found ? Number(found[1] ?? 1) : null
}

/**
 * What stopped the newest proving and was not mended since: a gate that came up because of an answer, such
 * as a leak, was confirmed, and neither was work added after it nor did anybody say why it goes back so.
 */
export function proofStops(state: SheetState): StepState[] {
  const newest = Math.max(1, ...state.steps.map(({ step }) => provingRound(step.key) ?? 1))
  return state.steps.filter(
    ({ step, state: is, by }) =>
      is === 'done' &&
      provingRound(step.key) === newest &&
      step.step.gate &&
      step.step.when !== null &&
      by?.kind === 'done' &&
      by.payload.reason === '',
  )
}

/** What was answered that brought such a stop up: "a leak". */
export const stoppedBy = ({ step }: StepState): string => [step.step.when?.is ?? []].flat().join(', ')
