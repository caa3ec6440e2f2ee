'use client'

import { useEffect, useRef, useState } from 'react'
import { clockWords, timersOf, timerStand, type SheetTimer } from '@/core/sheets'
import { parseNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { AskDialog } from './AskDialog'
import { BenchDialog } from './BenchDialog'
import { TimerDial } from './TimerDial'
import { useTick } from './useTick'
import type { SheetHandle } from './useSheet'

const verb: Record<SheetTimer['kind'], string> = {
  soak: 'soaks',
  sets: 'sets in',
  cured: 'cured in',
  own: '',
  watch: 'watch',
}

/** Every timer that counts, always in sight: the one that runs out first, and the rest behind it. */
export function TopTimers({ bench }: { bench: SheetHandle }) {
  const [open, setOpen] = useState(false)
  const [adding, setAdding] = useState(false)
  const warned = useRef(new Set<string>())
  const timers = timersOf(bench.state)
  useTick(timers.length > 0)
  const now = bench.now()
  const counted = timers
    .map((timer) => ({ timer, ...timerStand(timer, now) }))
    // A cure that is over needs nobody any more.
    .filter(({ timer, state }) => timer.kind !== 'cured' || state !== 'over')
    .sort((a, b) => (a.timer.endsAt ?? '9').localeCompare(b.timer.endsAt ?? '9'))
  const urgent = counted.filter(({ state }) => state !== 'running')
  const call = urgent.map(({ timer, state }) => `${timer.id} ${state}`).join()
  useEffect(() => {
    for (const each of call.split(',').filter(Boolean)) {
      if (warned.current.has(each)) continue
      warned.current.add(each)
      navigator.vibrate?.([200, 100, 200])
    }
  }, [call])
  const [first] = counted
  return (
    <div className="top-timers">
      {first ? (
        <button
          type="button"
          className={`timer-chip timer-${first.state}`}
          onClick={() => setOpen(true)}
          aria-label={`Timers: ${first.timer.name}`}
        >
          <TimerDial timer={first.timer} now={now} />
          <span className="timer-name">
            {first.timer.name} {first.state === 'over' ? 'is over' : verb[first.timer.kind]}
          </span>
          <span className="timer-clock">{clockWords(first.ms)}</span>
          {counted.length > 1 && <span className="timer-more">+{counted.length - 1}</span>}
        </button>
      ) : (
        <Button variant="text" onClick={() => setAdding(true)}>
          Timer
        </Button>
      )}
      <span className="visually-hidden" role="alert">
        {urgent.map(({ timer, state }) => `${timer.name}: ${state === 'soon' ? 'nearly over' : 'over'}. `)}
      </span>
      {open && (
        <BenchDialog
          title="Timers"
          onClose={() => setOpen(false)}
          actions={
            <>
              <Button
                variant="outlined"
                onClick={() => {
                  setOpen(false)
                  setAdding(true)
                }}
              >
                Another timer
              </Button>
              <Button variant="contained" onClick={() => setOpen(false)}>
                Close
              </Button>
            </>
          }
        >
          <ul className="step-timers">
            {counted.map(({ timer, state, ms }) => (
              <li key={timer.id} className={`timer-${state}`}>
                <TimerDial timer={timer} now={now} />
                <span className="grow">
                  {timer.name}{' '}
                  <span className="second">{state === 'over' ? 'over since' : verb[timer.kind]}</span>
                </span>
                <span className="timer-clock">{clockWords(ms)}</span>
                {timer.byHand && (
                  <Button
                    variant="text"
                    onClick={() => void bench.write('timerEnd', { of: timer.id, reason: 'ended by hand' })}
                  >
                    End
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </BenchDialog>
      )}
      {adding && (
        <AskDialog
          title="Start a timer"
          fields={[
            { name: 'name', label: 'What for' },
            { name: 'minutes', label: 'Minutes', start: '10' },
          ]}
          submit="Start"
          onClose={() => setAdding(false)}
          send={async ({ name, minutes }) => {
            const parsed = parseNumber(minutes ?? '')
            if (!parsed.ok) return parsed.reason
            if (parsed.value <= 0) return 'Enter more than 0 minutes.'
            if (parsed.value > 20_160) return 'Two weeks at most.'
            return bench.write('timer', { kind: 'own', name: name ?? '', minutes: parsed.value })
          }}
        />
      )}
    </div>
  )
}
