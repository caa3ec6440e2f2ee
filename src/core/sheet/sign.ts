import type { ClockState, EndReason } from '../wear'
import { unfinished, type SheetState } from './fold'

/**
 * Why a renewed part's life most likely ended, to begin the question with: it can be recovered only now.
 * On a planned visit it came out in time; on a breakdown sheet what the sheet was opened for had failed.
 * A part renewed besides, with life left in it, was disturbed, and so was one that opening the pump
 * destroys or unseats; otherwise it came out in time.
 */
export function presumedEndReason(
  trigger: 'planned' | 'breakdown',
  planned: boolean,
  clock: ClockState,
  disturbed = false,
): EndReason {
  if (disturbed) return 'disturbed'
  if (planned) return trigger === 'breakdown' ? 'failed' : 'preventive'
  return clock === 'healthy' ? 'disturbed' : 'preventive'
}

/** What still keeps a sheet from being signed, one sentence each; empty when it can be. */
export function notReady(state: SheetState): string[] {
  const reasons: string[] = []
  for (const meter of state.unread) reasons.push(`${meter.name} is not read.`)
  if (!state.madeSafe) reasons.push('Making safe was not confirmed.')
  const open = unfinished(state).length
  if (open > 0)
    reasons.push(
      open === 1 ? 'One step is neither done nor skipped.' : `${open} steps are neither done nor skipped.`,
    )
  const rivals = state.steps.filter((each) => each.rival).length
  if (rivals > 0)
    reasons.push(
      `${rivals === 1 ? 'One step was' : `${rivals} steps were`} marked differently on two devices: say which is right.`,
    )
  const undecided = state.positions.filter((each) => each.planned && each.state === 'open')
  if (open === 0 && undecided.length > 0) reasons.push('Say of each position whether it was renewed.')
  return reasons
}
