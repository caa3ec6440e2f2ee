import type { SheetState } from '../state'
import type { SheetEntry } from '../types'

/** How much of a part counts as used, after corrections; the newest correction holds. */
export function usedAfterCorrections(state: SheetState, use: SheetEntry<'part'>): number {
  const corrected = state.corrections.findLast(
    ({ payload }) => payload.about === 'part' && payload.of === use.id,
  )
  return corrected?.payload.about === 'part' ? corrected.payload.quantity : use.payload.quantity
}

/** Why a life ended on this sheet, after corrections. */
export function endReasonAfterCorrections(
  state: SheetState,
  assemblyId: string,
  position: string,
): { endReason: string; reached: number | null } | null {
  const ended = state.signed?.payload.ended.find(
    (each) => each.assemblyId === assemblyId && each.position === position,
  )
  if (!ended) return null
  const corrected = state.corrections.findLast(
    ({ payload }) =>
      payload.about === 'endReason' && payload.assemblyId === assemblyId && payload.position === position,
  )
  const endReason = corrected?.payload.about === 'endReason' ? corrected.payload.endReason : ended.endReason
  return { endReason, reached: ended.reached ?? null }
}

/** Whether a correction says that this position was not renewed after all. */
export function isTakenBack(state: SheetState, assemblyId: string, position: string): boolean {
  return state.corrections.some(
    ({ payload }) =>
      payload.about === 'notRenewed' && payload.assemblyId === assemblyId && payload.position === position,
  )
}
