import { treatmentNames, type Treatment } from '../../models'
import type { SheetState, StepState } from '../state'
import type { SheetEntry, TimerKind } from '../types'
import { inSentence } from '../../units'

/** A timer of a sheet. What it counts to is derived from entries, so that it survives whatever happens to a tablet. */
export type SheetTimer = {
  id: string
  kind: TimerKind
  name: string
  stepKey: string | null
  startedAt: string
  /** Null: it counts up, a watch. */
  endsAt: string | null
  /** It was started by hand and can be ended by hand. */
  byHand: boolean
}

export type TimerStand = {
  state: 'running' | 'soon' | 'over'
  /** Milliseconds left; negative once it is over. For a watch: gone by. */
  ms: number
}

/**
 * The timers that count: those started by hand and not ended, and the cure of every thread treatment
 * that was used, from its last use. A soak or a working time ends with the step it belongs to.
 */
export function timersOf(state: SheetState): SheetTimer[] {
  const ended = new Set(state.timerEnds.map(({ payload }) => payload.of))
  const byHand = state.timers
    .filter((entry) => !ended.has(entry.id) && !endedByStep(state, entry))
    .map(({ id, stepKey, at, payload }): SheetTimer => ({
      id,
      kind: payload.kind,
      name: payload.name,
      stepKey,
      startedAt: at,
      endsAt: payload.minutes === null ? null : later(at, payload.minutes),
      byHand: true,
    }))
  return [...byHand, ...cures(state)]
}

function endedByStep(state: SheetState, timer: SheetEntry<'timer'>): boolean {
  if (timer.payload.kind !== 'soak' && timer.payload.kind !== 'sets') return false
  const step = state.steps.find((each) => each.step.key === timer.stepKey)
  return step?.state === 'done' || step?.state === 'skipped'
}

/** From its last use: a treatment is cured once every thread it is on is. */
function cures(state: SheetState): SheetTimer[] {
  const found = new Map<string, SheetTimer>()
  for (const each of state.steps) {
    if (each.state !== 'done' || !each.by) continue
    const minutes = curesAfter(state, each)
    if (minutes === null) continue
    const { assemblyId, step, heading } = each.step
    const name = fastenerName(state, each) ?? inSentence(heading)
    const id = `cure ${assemblyId} ${step.fastener ?? heading}`
    const known = found.get(id)
    const endsAt = later(each.by.at, minutes)
    if (known && known.endsAt! >= endsAt) continue
    found.set(id, {
      id,
      kind: 'cured',
      name: `${curingName(state, each)}, ${name}`,
      stepKey: null,
      startedAt: each.by.at,
      endsAt,
      byHand: false,
    })
  }
  return [...found.values()]
}

function fastenerName(state: SheetState, { step }: StepState): string | null {
  const assembly = state.content.assemblies.find((each) => each.id === step.assemblyId)
  const found = assembly?.fasteners.find((each) => each.key === step.step.fastener)
  return found ? inSentence(found.name) : null
}

/** What goes on at a step and sets or cures: by the step itself, or by the fastener it tightens. */
export function treatmentAt(state: SheetState, { step }: StepState): Treatment | null {
  const assembly = state.content.assemblies.find((each) => each.id === step.assemblyId)
  const fastener = assembly?.fasteners.find((each) => each.key === step.step.fastener)
  const own = [step.step.treatment, step.step.snug ? null : fastener?.treatment]
  return own.find((each) => each && (each.setsMinutes || each.curesMinutes)) ?? null
}

/** Minutes until what goes on at this step has cured; null where nothing cures. */
const curesAfter = (state: SheetState, step: StepState): number | null =>
  treatmentAt(state, step)?.curesMinutes || null

function curingName(state: SheetState, step: StepState): string {
  const name = treatmentNames[treatmentAt(state, step)!.kind]
  return name[0]!.toUpperCase() + name.slice(1)
}

/** A timer warns for the last fifth of its time, at least one minute and at most five. */
export function timerStand(timer: Pick<SheetTimer, 'startedAt' | 'endsAt'>, now: string): TimerStand {
  const at = Date.parse(now)
  if (timer.endsAt === null) return { state: 'running', ms: at - Date.parse(timer.startedAt) }
  const ms = Date.parse(timer.endsAt) - at
  const whole = Date.parse(timer.endsAt) - Date.parse(timer.startedAt)
  const warns = Math.min(300_000, Math.max(60_000, whole / 5))
  return { state: ms <= 0 ? 'over' : ms <= warns ? 'soon' : 'running', ms }
}

/** @example clockWords(400_000) // '06:40', and '2 h 05 min' from an hour on, '1 d 3 h' from two days on */
export function clockWords(ms: number): string {
  const seconds = Math.floor(Math.abs(ms) / 1000)
  const two = (value: number) => String(value).padStart(2, '0')
  if (seconds < 3600) return `${two(Math.floor(seconds / 60))}:${two(seconds % 60)}`
  const minutes = Math.floor(seconds / 60)
  if (minutes < 48 * 60) return `${Math.floor(minutes / 60)}\u00a0h\u00a0${two(minutes % 60)}\u00a0min`
  return `${Math.floor(minutes / 1440)}\u00a0d\u00a0${Math.floor((minutes % 1440) / 60)}\u00a0h`
}

/** Two clocks that agree to this are the same clock: a message takes its time. In milliseconds. */
const grace = 3000

/**
 * Why time stands in the way of a step, in one sentence; null when it does not. A soak is waited for, a
 * working time must not have run out, what must cure first has cured. Any of them can be signed against
 * with a reason.
 *
 * @param now the present instant
 */
export function timeRefusal(state: SheetState, step: StepState, now: string): string | null {
  const { timer, fastener } = step.step.step
  const own = state.timers.findLast((entry) => entry.stepKey === step.step.key)
  const ended = own && state.timerEnds.some(({ payload }) => payload.of === own.id)
  const stand =
    own && !ended
      ? timerStand({ startedAt: own.at, endsAt: later(own.at, own.payload.minutes ?? 0) }, now)
      : null
  if (timer?.kind === 'soak') {
    if (!stand) return 'Start its timer when it goes in, or say why it was not timed.'
    return stand.ms > grace
      ? `It needs ${clockWords(stand.ms)} more, or a reason why it comes out now.`
      : null
  }
  if (stand?.state === 'over' && own?.payload.kind === 'sets')
    return 'The working time has run out: undo it, clean both sides, renew it and start again, or say why it still holds.'
  if (timer?.kind === 'cured' && fastener === null) {
    const open = timersOf(state)
      .filter((each) => each.kind === 'cured')
      .map((each) => ({ each, ms: timerStand(each, now).ms }))
      .filter(({ ms }) => ms > grace)
      .sort((a, b) => b.ms - a.ms)[0]
    return open
      ? `${open.each.name}: ${clockWords(open.ms)} until it has cured. Wait, or say why it goes on before.`
      : null
  }
  return null
}

function later(at: string, minutes: number): string {
  return new Date(Date.parse(at) + minutes * 60_000).toISOString()
}
