'use client'

import { treatmentNames } from '@/core/models'
import {
  fastenerOf,
  clockWords,
  timersOf,
  timerStand,
  treatmentAt,
  type SheetState,
  type StepState,
  type TimerKind,
} from '@/core/sheets'
import { Button } from '../../frame/Button'
import { TimerDial } from './TimerDial'
import { useTick } from './useTick'
import type { SheetHandle } from './useSheet'

/** The timer a step asks for: a soak, the working time of a locker, or the cure that is waited for. */
export function StepTimer({ bench, step: each }: { bench: SheetHandle; step: StepState }) {
  const { state } = bench
  const { step, key } = each.step
  const fastener = fastenerOf(state, each)
  const timers = timersOf(state)
  const own = timers.find((timer) => timer.stepKey === key && timer.kind !== 'watch')
  const waitsForCure = step.timer?.kind === 'cured' && fastener === null
  const cures = waitsForCure ? timers.filter((timer) => timer.kind === 'cured') : []
  useTick(own !== undefined || cures.length > 0)
  const wanted = wantedTimer(state, each)
  const product = productOf(state, each)
  if (waitsForCure)
    return (
      <ul className="step-timers">
        {cures.map((timer) => {
          const { state: is, ms } = timerStand(timer, bench.now())
          return (
            <li key={timer.id} className={`timer-${is}`}>
              <TimerDial timer={timer} now={bench.now()} />
              <span className="grow">{timer.name}</span>
              <span className="timer-clock">{is === 'over' ? 'cured' : clockWords(ms)}</span>
            </li>
          )
        })}
        {cures.length === 0 && <li>Nothing that cures was used on this sheet.</li>}
      </ul>
    )
  if (!wanted) return null
  if (!own)
    return (
      <Button
        variant="outlined"
        onClick={() =>
          void bench.write('timer', { ...wanted, name: timerName(each, wanted.kind, product) }, key)
        }
      >
        {wanted.kind === 'soak'
          ? `It is in: soaks ${clockWords(wanted.minutes * 60_000)}`
          : `${product} is on: sets in ${clockWords(wanted.minutes * 60_000)}`}
      </Button>
    )
  const { state: is, ms } = timerStand(own, bench.now())
  return (
    <div className={`step-timer timer-${is}`} role="timer">
      <TimerDial timer={own} now={bench.now()} />
      <span className="grow">
        {wanted.kind === 'soak'
          ? is === 'over'
            ? 'Soaked'
            : 'Soaks'
          : is === 'over'
            ? 'It has set'
            : 'Sets in'}
      </span>
      <span className="timer-clock">{clockWords(ms)}</span>
      <Button
        variant="text"
        onClick={() => void bench.write('timerEnd', { of: own.id, reason: 'started again' }, key)}
      >
        Again
      </Button>
    </div>
  )
}

function wantedTimer(state: SheetState, each: StepState): { kind: TimerKind; minutes: number } | null {
  const { timer } = each.step.step
  if (timer && timer.kind !== 'cured') return { kind: timer.kind, minutes: timer.minutes }
  const sets = treatmentAt(state, each)?.setsMinutes
  return sets ? { kind: 'sets', minutes: sets } : null
}

/** What sets here, as it begins a sentence. */
function productOf(state: SheetState, each: StepState): string {
  const treatment = treatmentAt(state, each)
  if (!treatment || treatment.kind === 'threadlocker') return 'Locker'
  const name = treatmentNames[treatment.kind]
  return name[0]!.toUpperCase() + name.slice(1)
}

function timerName({ step }: StepState, kind: TimerKind, product: string): string {
  return [kind === 'soak' ? step.heading : product === 'Locker' ? 'Threadlocker' : product, step.where]
    .filter(Boolean)
    .join(', ')
    .slice(0, 120)
}
