import { judgeTorque } from '../torque'
import { showNumber } from '../units'
import type { Fastener } from '../pump'
import type { SheetState, StepState } from './fold'
import type { DeviceEntryKind, Payloads } from './types'

/**
 * What stands in the way of a step, in one sentence; null when it can be done now. First the meters are
 * read, then the machine is made safe and that is confirmed by name, then every gate in its turn.
 */
export function blockedBy(state: SheetState, { step }: StepState): string | null {
  const [unread] = state.unread
  if (unread) return `Read the meter first: ${unread.name.toLowerCase()}.`
  if (step.phase !== 'makeSafe' && !state.madeSafe) return 'Make safe first, and confirm it by name.'
  const gate = openGateBefore(state, step.key)
  return gate ? `First: ${gate.step.step.text}` : null
}

function openGateBefore(state: SheetState, key: string): StepState | undefined {
  const until = state.steps.findIndex((each) => each.step.key === key)
  return state.steps.slice(0, until).find((each) => each.step.step.gate && each.state === 'open')
}

/** Making safe and energising again are never skipped. */
export function mayBeSkipped({ step }: StepState): boolean {
  return !(step.step.gate && (step.phase === 'makeSafe' || step.phase === 'prove'))
}

export function fastenerOf(state: SheetState, { step }: StepState): Fastener | null {
  const assembly = state.content.assemblies.find((each) => each.id === step.assemblyId)
  return assembly?.fasteners.find((each) => each.key === step.step.fastener) ?? null
}

/** The stated torque of a step's stage, or null where the manual gives none or it tightens nothing. */
export function statedTorque(state: SheetState, step: StepState): { value: number; unit: string } | null {
  const torque = fastenerOf(state, step)?.torque
  if (torque?.state !== 'stated') return null
  const { stage } = step.step.step
  return {
    value: stage === null ? torque.value : (torque.stages[stage - 1] ?? torque.value),
    unit: torque.unit,
  }
}

/**
 * Why an entry cannot be taken in, in one sentence; null when it can. The interface asks this before it
 * sends, the server before it keeps.
 *
 * @param state the sheet before the entry
 * @param entry its step, kind and checked payload
 */
export function refusal(
  state: SheetState,
  entry: { stepKey: string | null; kind: DeviceEntryKind; payload: unknown },
): string | null {
  switch (entry.kind) {
    case 'reading': {
      const { meterId } = entry.payload as Payloads['reading']
      return state.content.meters.some((meter) => meter.id === meterId)
        ? null
        : 'This meter is not on this machine.'
    }
    case 'madeSafe':
      return madeSafeRefusal(state)
    case 'done':
    case 'skipped':
      return tickRefusal(state, entry.stepKey, entry.kind, entry.payload)
    case 'renewed':
    case 'kept': {
      const { assemblyId, position } = entry.payload as Payloads['renewed']
      const known = state.positions.find(
        (each) => each.assemblyId === assemblyId && each.position === position,
      )
      if (!known) return `This pump has no position “${position}”.`
      return state.madeSafe ? null : 'Make safe first, and confirm it by name.'
    }
    default:
      return null
  }
}

function madeSafeRefusal(state: SheetState): string | null {
  const [unread] = state.unread
  if (unread) return `Read the meter first: ${unread.name.toLowerCase()}.`
  const open = state.steps.find(({ step, state: is }) => step.phase === 'makeSafe' && is === 'open')
  return open ? `Not yet: ${open.step.step.text}` : null
}

function tickRefusal(
  state: SheetState,
  key: string | null,
  kind: 'done' | 'skipped',
  payload: unknown,
): string | null {
  const step = state.steps.find((each) => each.step.key === key)
  if (!step) return 'This sheet has no such step.'
  if (step.state === 'waiting') return 'Answer the question it depends on first.'
  const blocked = blockedBy(state, step)
  if (blocked) return blocked
  if (kind === 'skipped') return mayBeSkipped(step) ? null : 'This step is never skipped.'
  return doneRefusal(state, step, payload as Payloads['done'])
}

/** A step is done with what it asks for: its measure, its torque, its answer, or the reason why not. */
function doneRefusal(state: SheetState, step: StepState, done: Payloads['done']): string | null {
  const { measure, asks } = step.step.step
  if (asks && !asks.answers.includes(done.answer)) return 'Say what was found.'
  const explained = done.reason !== ''
  if (measure && !explained) {
    if (!done.measure) return `Enter the ${measure.what} in ${measure.unit}, or say why it was not measured.`
    const off = offLimits(measure, done.measure.value)
    if (off) return `${off} Measure again, or say why it is right.`
  }
  const fastener = fastenerOf(state, step)
  if (!fastener || explained) return null
  const stated = statedTorque(state, step)
  if (stated) {
    if (!done.torque) return 'Enter what was pulled, or say why it was not measured.'
    const verdict = judgeTorque(stated, done.torque)
    return verdict.fits ? null : `${verdict.words} Undo it and pull it again, or say why it is right.`
  }
  if (fastener.torque.state === 'notGiven')
    return 'No value is given here: look it up in the maker’s manual, and enter value and page as the reason.'
  return null
}

/** @example offLimits({ what: 'pressure', unit: 'bar', min: 190, max: 210 }, 150) // '150 bar is below 190 bar.' */
export function offLimits(
  { unit, min, max }: { unit: string; min: number | null; max: number | null },
  value: number,
): string | null {
  const show = (amount: number) => `${showNumber(amount)}\u00a0${unit}`
  if (min !== null && value < min) return `${show(value)} is below ${show(min)}.`
  if (max !== null && value > max) return `${show(value)} is above ${show(max)}.`
  return null
}
