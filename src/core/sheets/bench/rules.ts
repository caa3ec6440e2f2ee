import { dispositionRefusal } from '../../inspection'
import {
  boltPlaces,
  fastenerOf,
  looksUpFirst,
  nextBolt,
  statedTorque,
  torqueRefusal,
  wantsLookingUp,
} from './bolts'
import { keptSettings, notCounted, valvesBack } from './counts'
import type { SheetStep } from '../../composing'
import { lockless, locksOn, unlockRefusal } from './locks'
import { offLimits } from './measures'
import { openStretch, stretchName } from '../places'
import type { SheetState, StepState } from '../state'
import { timeRefusal } from './timers'
import { proofAnswers } from '../../winter'
import type { DeviceEntryKind, Done, Payloads } from '../types'
import { inSentence } from '../../units'

/**
 * What stands in the way of a step, in one sentence; null when it can be done now. First the meters are
 * read, then the machine is made safe and that is confirmed by name, then every gate in its turn.
 */
export function blockedBy(state: SheetState, { step }: StepState): string | null {
  const [unread] = state.unread
  if (unread) return `Read the meter first: ${inSentence(unread.name)}.`
  if (wantsSafety(state, step)) return 'Make safe first, and confirm it by name.'
  if (opens(step.phase) && state.energised)
    return 'It was energised again: confirm anew, by name, that it is made safe before anything is opened.'
  if (opens(step.phase) && lockless(state))
    return 'No lock is on any more: make safe again and put your lock on before anything is opened.'
  const busy = step.stretch ? openStretch(state, step.assemblyId) : null
  if (busy !== null && busy !== step.stretch)
    return `One at a time: ${stretchName(state, busy)} stands open. Close it first.`
  const gate = openGateBefore(state, step.key) ?? winterBefore(state, step)
  return gate ? `First: ${gate.step.step.text}` : null
}

/** Whether a step of a phase opens the pump or works inside it. */
export const opens = (phase: SheetStep['phase']) => !shut.includes(phase)
/** What is done from outside; the last lock comes off while a winter sheet is closed. */
const shut: readonly SheetStep['phase'][] = ['makeSafe', 'prove', 'run', 'secure', 'finish']

/** Whether making safe has to be confirmed before a step; a winter run comes before any of it. */
export function wantsSafety({ content, madeSafe }: SheetState, step: SheetStep): boolean {
  if (step.phase === 'makeSafe' || madeSafe) return false
  if (step.phase !== 'run') return true
  const at = content.steps.findIndex(({ key }) => key === step.key)
  return content.steps.slice(0, at).some(({ phase }) => phase === 'makeSafe')
}

/** What has to be finished before a phase of winter work: nothing runs once it is drained or filled. */
const finishedBefore: Partial<Record<SheetStep['phase'], SheetStep['phase'][]>> = {
  makeSafe: ['run'],
  secure: ['run'],
  drain: ['run'],
  protect: ['run', 'drain'],
  finish: ['run', 'drain', 'protect'],
}

/** An open step of an earlier phase of the winter work. */
function winterBefore(state: SheetState, step: SheetStep): StepState | undefined {
  const phases = state.content.winter ? finishedBefore[step.phase] : undefined
  if (!phases) return undefined
  const until = state.steps.findIndex((each) => each.step.key === step.key)
  return state.steps.slice(0, until).find((each) => each.state === 'open' && phases.includes(each.step.phase))
}

function openGateBefore(state: SheetState, key: string): StepState | undefined {
  const until = state.steps.findIndex((each) => each.step.key === key)
  return state.steps.slice(0, until).find((each) => each.step.step.gate && each.state === 'open')
}

/** Making safe and energising again are never skipped. */
export function mayBeSkipped({ step }: StepState): boolean {
  return !(step.step.gate && (step.phase === 'makeSafe' || step.phase === 'prove'))
}

/** Who writes an entry, and when it happens: some rules hang on them. */
export type Writing = { byName: string; now: string }

/**
 * Why an entry cannot be taken in, in one sentence; null when it can. The interface asks this before it
 * sends, the server before it keeps.
 *
 * @param state the sheet before the entry, as its device had seen it
 * @param entry its step, kind and checked payload
 * @param writing by whom and when
 */
export function refusal(
  state: SheetState,
  entry: { stepKey: string | null; kind: DeviceEntryKind; payload: unknown },
  writing: Writing,
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
      return tickRefusal(state, entry.stepKey, entry.kind, entry.payload, writing)
    case 'bolt':
      return boltRefusal(state, entry.stepKey, entry.payload as Payloads['bolt'], writing)
    case 'torqueSet':
      return torqueSetRefusal(state, entry.payload as Payloads['torqueSet'])
    case 'finding':
      return findingRefusal(state, entry.payload as Payloads['finding'])
    case 'lock': {
      const lock = entry.payload as Payloads['lock']
      return lock.goes === 'off' ? unlockRefusal(state, lock, writing.byName) : null
    }
    case 'timerEnd': {
      const { of } = entry.payload as Payloads['timerEnd']
      return state.timers.some((timer) => timer.id === of) ? null : 'This timer is not running.'
    }
    case 'notUsed': {
      const { assemblyId, part } = entry.payload as Payloads['notUsed']
      const known = [...state.content.parts, ...(state.content.spares ?? [])].some(
        (need) => need.assemblyId === assemblyId && need.part === part,
      )
      return known ? null : 'This part is not expected on this sheet.'
    }
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
  if (unread) return `Read the meter first: ${inSentence(unread.name)}.`
  const open = state.steps.find(({ step, state: is }) => step.phase === 'makeSafe' && is === 'open')
  return open ? `Not yet: ${open.step.step.text}` : null
}

function tickRefusal(
  state: SheetState,
  key: string | null,
  kind: 'done' | 'skipped',
  payload: unknown,
  writing: Writing,
): string | null {
  const step = state.steps.find((each) => each.step.key === key)
  if (!step) return 'This sheet has no such step.'
  if (step.state === 'waiting') return 'Answer the question it depends on first.'
  const blocked = blockedBy(state, step)
  if (blocked) return blocked
  if (kind === 'skipped') return mayBeSkipped(step) ? null : 'This step is never skipped.'
  return doneRefusal(state, step, payload as Done, writing)
}

/** A step is done with what it asks for: its measure, its torque, its answer, its count, or the reason why not. */
function doneRefusal(state: SheetState, step: StepState, done: Done, { now }: Writing): string | null {
  const { measure, asks, setting, locks } = step.step.step
  if (asks && !asks.answers.includes(done.answer)) return 'Say what was found.'
  const failed = proofRefusal(state, step.step.key, done)
  if (failed) return failed
  const explained = done.reason !== ''
  if (!explained) {
    const time = timeRefusal(state, step, now)
    if (time) return time
  }
  if (measure && !explained) {
    if (!done.measure) return `Enter the ${measure.what} in ${measure.unit}, or say why it was not measured.`
    const off = offLimits(measure, done.measure.value, done.measure.unit)
    if (off) return `${off} Measure again, or say why it is right.`
  }
  // Where it is measured, the measure says what it stands at.
  if (setting && !explained && !done.setting?.trim() && !done.measure)
    return setting.goes === 'noted'
      ? `Enter what it stands at: ${setting.what}.`
      : `Enter what it is put back to: ${setting.what}${notedWords(state, setting.what)}.`
  if (step.step.step.key === 'toolsBack' && !explained) {
    const [open] = notCounted(state)
    if (open) return `${open} See to it, or say what became of it.`
    const elsewhere = valvesBack(state).find(({ key }) => !done.ownBores?.includes(key))
    if (elsewhere) return `${elsewhere.name}: say that it is back in its own bore.`
  }
  const lost = done.pieces?.find((piece) => piece.fate === 'writtenOff' && piece.reason.trim() === '')
  if (lost) return 'Say why it is written off, and what takes its place.'
  if (locks === 'on' && !explained && locksOn(state).length === 0)
    return 'Say whose lock is on: everybody who works here puts on a lock of their own.'
  if (locks === 'off') {
    const [lock] = locksOn(state)
    if (lock) return `The lock of ${lock.name} is still on.`
  }
  return tighteningRefusal(state, step, done)
}

/**
 * A winter proof that fails is no proof, whatever the reason: more is put in, and it is measured again. Where
 * it cannot be proved the step is skipped with a reason, and the zone stands as not proved.
 */
export function proofRefusal(state: SheetState, key: string, done: Done): string | null {
  const proof = state.content.winter?.proofs[key]
  if (!proof) return null
  if (proof.kind !== 'refractometer') {
    const [passes] = proofAnswers[proof.kind]
    return done.answer === passes
      ? null
      : proof.kind === 'colour'
        ? 'Not clean yet: draw more through, and look again.'
        : 'Not dry yet: blow again, and look again.'
  }
  if (!done.measure) return 'Enter what the refractometer shows in °C.'
  const off = offLimits({ unit: '°C', min: null, max: proof.needC }, done.measure.value, done.measure.unit)
  return off && `${off} Put more in until clean colour comes, and measure again.`
}

function notedWords(state: SheetState, what: string): string {
  const noted = keptSettings(state).find((each) => each.what === what)?.noted
  return noted ? `; it stood at ${noted}` : ''
}

function tighteningRefusal(state: SheetState, step: StepState, done: Done): string | null {
  const fastener = fastenerOf(state, step)
  if (!fastener) return null
  if (step.step.step.snug) return snugRefusal(state, step, done)
  if (wantsLookingUp(fastener)) return lookUpWords(fastener.torque.state === 'notGiven')
  const stated = statedTorque(state, step)
  if (!stated) return null
  if (step.bolts.length > 0) {
    const next = nextBolt(state, step)
    const left = boltPlaces(state, step).length - step.bolts.length
    if (!next) return null
    return done.reason === ''
      ? `${left === 1 ? 'One bolt is' : `${left} bolts are`} not pulled yet: bolt ${next.number} is next.`
      : null
  }
  return torqueRefusal(stated, done.torque, done.reason)
}

/** Bolts that are only run in: one by one once somebody began so, and always where pins kept them out. */
function snugRefusal(state: SheetState, step: StepState, done: Done): string | null {
  const next = nextBolt(state, step)
  if (!next || done.reason !== '') return null
  const left = boltPlaces(state, step).length - step.bolts.length
  if (step.bolts.length === 0 && step.step.step.places !== 'pinned') return null
  return `${left === 1 ? 'One bolt is' : `${left} bolts are`} not in yet: bolt ${next.number} is next.`
}

const lookUpWords = (missing: boolean) =>
  missing
    ? 'No value is given here: look it up in the maker’s manual, and enter it with its page first.'
    : 'Nobody has verified this value: look at the maker’s manual, and enter it with its page first.'

function boltRefusal(
  state: SheetState,
  key: string | null,
  { place, torque, reason }: Payloads['bolt'],
  { now }: Writing,
): string | null {
  const step = state.steps.find((each) => each.step.key === key)
  const fastener = step ? fastenerOf(state, step) : null
  if (!step || !fastener) return 'This sheet has no such bolt.'
  const places = boltPlaces(state, step)
  const own = places.find((each) => each.place === place)
  if (!own) return 'This sheet has no such bolt.'
  if (step.state === 'waiting') return 'Answer the question it depends on first.'
  const blocked = blockedBy(state, step)
  if (blocked) return blocked
  if (looksUpFirst(state, step)) return lookUpWords(fastener.torque.state === 'notGiven')
  if (reason === '') {
    const time = timeRefusal(state, step, now)
    if (time) return time
    const next = nextBolt(state, step)
    if (next && next.place < place) return `In order: bolt ${next.number} comes first.`
  }
  const stated = statedTorque(state, step)
  return stated ? torqueRefusal(stated, torque, reason) : null
}

function torqueSetRefusal(
  state: SheetState,
  { assemblyId, fastener, value, unit }: Payloads['torqueSet'],
): string | null {
  const known = state.content.assemblies
    .find((each) => each.id === assemblyId)
    ?.fasteners.find((each) => each.key === fastener)
  if (!known) return 'This pump has no such fastener.'
  if (known.torque.state !== 'stated') return null
  const far = torqueRefusal(
    { value: known.torque.value, unit: known.torque.unit },
    { value, unit },
    'as looked up',
  )
  return far ? `The model says ${known.torque.value}\u00a0${known.torque.unit}. ${far}` : null
}

function findingRefusal(state: SheetState, finding: Payloads['finding']): string | null {
  const { assemblyId, position, sort, damages, disposition, words } = finding
  const known = state.positions.find((each) => each.assemblyId === assemblyId && each.position === position)
  if (position !== null && !known) return `This pump has no position “${position}”.`
  if (position === null && finding.what.trim() === '') return 'Say what was looked at.'
  if (!state.madeSafe) return 'Make safe first, and confirm it by name.'
  return dispositionRefusal(sort, damages, disposition, alwaysRenewed(state, finding), words)
}

/** Whether the sheet renews this part whatever is seen: it is planned, and not on condition. */
export function alwaysRenewed(
  state: SheetState,
  { assemblyId, position }: { assemblyId: string; position: string | null },
): boolean {
  const planned = state.positions.some(
    (each) => each.assemblyId === assemblyId && each.position === position && each.planned,
  )
  // Where a question decides whether the new one goes in, it is renewed on condition.
  const onCondition = state.steps.some(
    ({ step }) =>
      step.assemblyId === assemblyId &&
      step.position === position &&
      step.step.phase === 'renew' &&
      step.step.when !== null,
  )
  return planned && !onCondition
}
