import { currentStep, type SheetState } from '../state'
import { opens, wantsSafety } from './rules'

/** Where a sheet is being worked: its meters, a step, the confirmation by name, or its end. */
export type Place = { at: 'meters' } | { at: 'step'; key: string } | { at: 'madeSafe' } | { at: 'end' }

/** Whether making safe has to be confirmed anew: energised in between, and something is still to be opened. */
export function safeAnew({ energised, steps }: SheetState): boolean {
  return energised && steps.some((each) => each.state === 'open' && opens(each.step.phase))
}

/** Where the work on a sheet stands: the first meter, step or gate that is still open. */
export function whereWorkStands(state: SheetState): Place {
  if (state.unread.length > 0) return { at: 'meters' }
  const next = currentStep(state)
  if (next ? wantsSafety(state, next.step) : !state.madeSafe) return { at: 'madeSafe' }
  if (next && opens(next.step.phase) && state.energised) return { at: 'madeSafe' }
  return next ? { at: 'step', key: next.step.key } : { at: 'end' }
}
