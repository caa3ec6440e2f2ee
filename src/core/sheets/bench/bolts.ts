import { notGivenNote } from '../../composing'
import { foundTorque, type Fastener } from '../../models'
import { judgeTorque, wrenchWords } from '../../torque'
import { quantity, showNumber } from '../../units'
import type { SheetState, StepState } from '../state'

/**
 * One bolt in the order of tightening: its place, the number it is drawn and called with (its first
 * place), the maker's own number, and whether it is the first tightened once more at the end.
 */
export type BoltPlace = { place: number; number: number; bolt: string; again: boolean }

/**
 * The fastener that a step tightens, with the torque that was looked up for this sheet in place of one
 * that is missing or that nobody had verified. Stages below a looked-up value stay; its last is the value.
 */
export function fastenerOf(state: SheetState, each: StepState): Fastener | null {
  const { assemblyId, step } = each.step
  const fastener = state.content.assemblies
    .find(({ id }) => id === assemblyId)
    ?.fasteners.find(({ key }) => key === step.fastener)
  if (!fastener) return null
  const set = lookedUp(state, each)
  if (!set) return fastener
  const { value, unit, page } = set.payload
  return {
    ...fastener,
    torque: foundTorque(fastener.torque, { value, unit, source: `${page}, looked up by ${set.byName}` }),
  }
}

/** The stated torque of a step's stage, or null where the manual gives none or nothing is pulled yet. */
export function statedTorque(state: SheetState, step: StepState): { value: number; unit: string } | null {
  if (step.step.step.snug) return null
  const torque = fastenerOf(state, step)?.torque
  if (torque?.state !== 'stated') return null
  const { stage } = step.step.step
  return {
    value: stage === null ? torque.value : (torque.stages[stage - 1] ?? torque.value),
    unit: torque.unit,
  }
}

/**
 * Which wrench to set to what at a step, in words; blank where nothing is stated. As it was composed; anew
 * for a torque that was looked up since, so that no wrench is ever set to the value it took the place of.
 */
export function wrenchAdvice(state: SheetState, step: StepState): string {
  const fastener = fastenerOf(state, step)
  const stage = step.step.step.stage ?? 1
  if (fastener?.torque.state !== 'stated') return ''
  if (!lookedUp(state, step)) return needAt(state, step)?.wrenches?.[stage - 1] ?? ''
  const { register } = state.content
  if (!register) return 'Choose a wrench of the register that covers the looked-up value.'
  return wrenchWords(fastener, stage, register.wrenches, register.day)
}

/** What has to be said about the fastener of a step; what asks to look up is silent once it was. */
export function fastenerNotes(state: SheetState, step: StepState): string[] {
  const notes = needAt(state, step)?.notes ?? []
  return lookedUp(state, step) ? notes.filter((words) => words !== notGivenNote) : notes
}

/** What was composed about the fastener of a step. */
export function needAt(state: SheetState, { step }: StepState) {
  return state.content.torques?.find(
    (each) => each.assemblyId === step.assemblyId && each.fastener.key === step.step.fastener,
  )
}

/** Whether a torque has to be looked up before it is pulled: none is given, or nobody has verified it. */
export function wantsLookingUp(fastener: Fastener): boolean {
  const { torque } = fastener
  return torque.state === 'notGiven' || (torque.state === 'stated' && !torque.verified)
}

/** Whether a step waits for a torque to be looked up; running bolts in until they touch asks for none. */
export function looksUpFirst(state: SheetState, step: StepState): boolean {
  const fastener = fastenerOf(state, step)
  return fastener !== null && !step.step.step.snug && wantsLookingUp(fastener)
}

/** The value that was looked up on this sheet for what a step tightens, if it was. */
export function lookedUp(
  state: SheetState,
  { step }: StepState,
): SheetState['torqueSets'][number] | undefined {
  return state.torqueSets.find(
    ({ payload }) => payload.assemblyId === step.assemblyId && payload.fastener === step.step.fastener,
  )
}

/**
 * The steps at which something was pulled to a torque that was looked up: what counts no more once it is
 * looked up again.
 */
export function pulledTo(state: SheetState, { payload }: SheetState['torqueSets'][number]): StepState[] {
  return state.steps.filter(
    ({ step, by, bolts }) =>
      step.assemblyId === payload.assemblyId &&
      step.step.fastener === payload.fastener &&
      (by?.kind === 'done' || bolts.length > 0),
  )
}

/** A tightened step that no longer fits its torque, and what was pulled there. */
export type PulledOff = { step: StepState; name: string; pulled: string; stated: string }

/**
 * Steps that are done at another torque than the one that stands now, with no reason given: the value was
 * looked up again after they were pulled, or on another tablet meanwhile.
 */
export function pulledOff(state: SheetState): PulledOff[] {
  return state.steps.flatMap((step): PulledOff[] => {
    if (step.by?.kind !== 'done') return []
    const stated = statedTorque(state, step)
    if (!stated) return []
    const pulls = step.bolts.length > 0 ? step.bolts : [step.by]
    const off = pulls.find(
      ({ payload: { torque, reason } }) =>
        torque !== null && reason === '' && !judgeTorque(stated, torque).fits,
    )
    if (!off) return []
    const show = ({ value, unit }: { value: number; unit: string }) => `${showNumber(value)}\u00a0${unit}`
    return [
      {
        step,
        name: [fastenerOf(state, step)!.name, step.step.where].filter(Boolean).join(', '),
        pulled: show(off.payload.torque!),
        stated: show(stated),
      },
    ]
  })
}

/**
 * The bolts of a step in the order in which they are tightened, each with its place in the whole order;
 * empty where the model draws none and the step is one pull. A step may be about those alone whose places
 * guide pins take, or about the others.
 */
export function boltPlaces(state: SheetState, step: StepState): BoltPlace[] {
  const need = needAt(state, step)
  if (!need || need.order.length === 0) return []
  const { snug, places } = step.step.step
  const pinned = (bolt: string) => need.fastener.pinned.includes(Number(bolt))
  return need.order
    .map((bolt, index) => ({
      place: index + 1,
      number: need.order.indexOf(bolt) + 1,
      bolt,
      again: need.order.indexOf(bolt) < index,
    }))
    .filter(({ again }) => !snug || !again)
    .filter(({ bolt }) => (places ?? 'all') === 'all' || pinned(bolt) === (places === 'pinned'))
}

/** The bolt to pull now; null where all are pulled or the step is one pull. */
export function nextBolt(state: SheetState, step: StepState): BoltPlace | null {
  const pulled = new Set(step.bolts.map(({ payload }) => payload.place))
  return boltPlaces(state, step).find(({ place }) => !pulled.has(place)) ?? null
}

/** Further from the stated torque than this and no reason makes it one: it was typed wrong. Ours. */
const beyondReason = { least: 0.2, most: 4 } as const

/**
 * Why an entered torque cannot stand, in one sentence; null when it can. Nothing and the absurd are never
 * taken; outside tolerance it needs a reason, and a value that fits in another unit is named as that slip.
 *
 * @param reason why it is right all the same; blank for none
 */
export function torqueRefusal(
  stated: { value: number; unit: string },
  pulled: { value: number; unit: string } | null,
  reason: string,
): string | null {
  if (!pulled) return reason === '' ? 'Enter what was pulled, or say why it was not measured.' : null
  const words = `${showNumber(pulled.value)}\u00a0${pulled.unit}`
  if (pulled.value <= 0) return `${words} is no torque: enter what the wrench was set to.`
  const verdict = judgeTorque(stated, pulled)
  if (verdict.fits) return null
  const share =
    quantity('torque', pulled.value, pulled.unit).si / quantity('torque', stated.value, stated.unit).si
  if (share > beyondReason.most || share < beyondReason.least)
    return verdict.slip
      ? `${verdict.words} If it was pulled like that, undo it and ${share > 1 ? 'fit new bolts as the manual says' : 'pull it again'}.`
      : `${words} cannot be right where ${showNumber(stated.value)}\u00a0${stated.unit} is stated: look at what was typed.`
  if (reason !== '') return null
  return `${verdict.words} Undo it and pull it again, or say why it is right.`
}
