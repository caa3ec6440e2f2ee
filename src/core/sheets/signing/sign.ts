import type { ClockState, EndReason } from '../../wear'
import { pulledOff } from '../bench/bolts'
import { partsOpen, stopped, toRenew, unseen, wentBack } from '../bench/counts'
import { locksOn } from '../bench/locks'
import { proofStops, stoppedBy } from './proof'
import { unfinished, type SheetState } from '../state'

/**
 * Why a renewed part's life most likely ended, to begin the question with: it can be recovered only now.
 * On a planned visit it came out in time; on a breakdown sheet what the sheet was opened for had failed.
 * A part renewed besides, with life left in it, was disturbed, and so was one that opening the pump
 * destroys or unseats; otherwise it came out in time.
 *
 * @param sound damage was seen on this sheet, and none on this part: it did not fail
 */
export function presumedEndReason(
  trigger: 'planned' | 'breakdown',
  planned: boolean,
  clock: ClockState,
  disturbed = false,
  sound = false,
): EndReason {
  if (disturbed) return 'disturbed'
  if (planned && sound) return 'preventive'
  if (planned) return trigger === 'breakdown' ? 'failed' : 'preventive'
  return clock === 'healthy' ? 'disturbed' : 'preventive'
}

/** What still keeps a sheet from being signed, one sentence each; empty when it can be. */
export function notReady(state: SheetState): string[] {
  const reasons: string[] = []
  for (const meter of state.unread) reasons.push(`${meter.name} is not read.`)
  if (!state.madeSafe) reasons.push('Making safe was not confirmed.')
  // What waits for an answer may not be needed: it is not counted, but keeps the sheet open.
  const open = state.steps.filter((each) => each.state === 'open').length || unfinished(state).length
  if (open > 0)
    reasons.push(
      open === 1 ? 'One step is neither done nor skipped.' : `${open} steps are neither done nor skipped.`,
    )
  const rivals = state.steps.filter((each) => each.rival).length
  if (rivals > 0)
    reasons.push(
      `${rivals === 1 ? 'One step was' : `${rivals} steps were`} marked differently on two devices: say which is right.`,
    )
  for (const { name, pulled, stated } of pulledOff(state))
    reasons.push(`${name}: pulled to ${pulled}, and ${stated} stands now. Pull it again.`)
  const undecided = state.positions.filter((each) => each.planned && each.state === 'open')
  if (open === 0 && undecided.length > 0) reasons.push('Say of each position whether it was renewed.')
  for (const { payload } of stopped(state))
    reasons.push(`${partName(state, payload)}: stopped to ask. Decide what becomes of it.`)
  for (const { payload } of toRenew(state))
    reasons.push(
      `${partName(state, payload)} is to be renewed and is not on this sheet: add it, or decide otherwise.`,
    )
  for (const { payload } of wentBack(state))
    reasons.push(
      `${partName(state, payload)} was found to be renewed and went back: decide otherwise, or say why it was kept.`,
    )
  for (const stop of proofStops(state))
    reasons.push(`Proving found: ${stoppedBy(stop)}. Add the work that mends it, or say why it goes back so.`)
  const old = unseen(state)
  if (old.length > 0)
    reasons.push(
      `Say what was seen on the old part: ${old[0]!.name}${old.length > 1 ? ` and ${old.length - 1} more` : ''}.`,
    )
  const parts = partsOpen(state)
  if (open === 0 && parts.length > 0)
    reasons.push(
      `${parts.map(({ name }) => name).join(', ')}: note what was used, or say why ${parts.length === 1 ? 'it was' : 'they were'} not.`,
    )
  if (open === 0) for (const { name } of locksOn(state)) reasons.push(`The lock of ${name} is still on.`)
  return reasons
}

/** What a finding is about, in words. */
export function partName(
  state: SheetState,
  { assemblyId, position, what }: { assemblyId: string; position: string | null; what: string },
): string {
  if (position === null) return what
  const assembly = state.content.assemblies.find((each) => each.id === assemblyId)
  return assembly?.positions.find((each) => each.key === position)?.name ?? position
}
