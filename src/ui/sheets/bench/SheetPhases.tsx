'use client'

import { useEffect, useRef } from 'react'
import { phasesOf, type SheetState, type StepState, type Place } from '@/core/sheets'
import { flagWords, phaseNames } from '../words'

type Props = { state: SheetState; place: Place; go: (to: Place) => void }

/** The phases in order with their tallies; the one at work is unfolded. */
export function SheetPhases({ state, place, go }: Props) {
  const list = useRef<HTMLElement>(null)
  const at = place.at === 'step' ? place.key : place.at
  // The step at work stays in sight, however long the phase.
  useEffect(() => {
    list.current?.querySelector('[aria-current="step"]')?.scrollIntoView({ block: 'nearest' })
  }, [at])
  const phases = phasesOf(state)
  // Only the newest making safe is confirmed: an earlier one ended when it was energised again.
  const lastSafe = phases.findLast(({ phase }) => phase === 'makeSafe')?.steps[0]
  const here = (steps: StepState[]) =>
    (place.at === 'step' && steps.some((each) => each.step.key === place.key)) ||
    (place.at === 'madeSafe' && steps[0] === lastSafe)
  return (
    <nav ref={list} className="bench-phases" aria-label="Steps of this sheet">
      {state.content.meters.length > 0 && (
        <button
          type="button"
          className="phase-head"
          aria-current={place.at === 'meters' ? 'step' : undefined}
          onClick={() => go({ at: 'meters' })}
        >
          <span>Meter</span>
          <Tally
            marks={state.content.meters.map((meter) => !state.unread.some((each) => each.id === meter.id))}
          />
        </button>
      )}
      {phases.map(({ phase, steps }, index) => {
        const open = here(steps)
        // What hangs on an answer is not counted before it is known to be needed.
        const marks = steps
          .filter((each) => each.state !== 'waiting')
          .map((each) => each.state === 'done' || each.state === 'skipped')
        const gate = steps[0] === lastSafe && lastSafe !== undefined
        if (gate) marks.push(state.madeSafe !== null)
        return (
          <div key={`${phase} ${index}`}>
            <button
              type="button"
              className="phase-head"
              aria-expanded={open}
              onClick={() => {
                const first = steps.find((each) => each.state === 'open') ?? steps[0]
                if (first) go({ at: 'step', key: first.step.key })
              }}
            >
              <span>{phaseNames[phase] ?? phase}</span>
              <Tally marks={marks} />
            </button>
            {open && (
              <ul className="phase-steps">
                {steps.map((each) => (
                  <li key={each.step.key}>
                    <button
                      type="button"
                      aria-current={place.at === 'step' && place.key === each.step.key ? 'step' : undefined}
                      className={each.state === 'waiting' ? 'receding' : undefined}
                      onClick={() => go({ at: 'step', key: each.step.key })}
                    >
                      <StepMark step={each} />
                      <span>
                        <span className="clamped">{each.step.step.text}</span>
                        {each.step.where && <span className="second block">{each.step.where}</span>}
                        {each.state === 'open' && flagWords(each).length > 0 && (
                          <span className="step-flag small">{flagWords(each)[0]!.split(':')[0]}</span>
                        )}
                      </span>
                    </button>
                  </li>
                ))}
                {gate && (
                  <li>
                    <button
                      type="button"
                      aria-current={place.at === 'madeSafe' ? 'step' : undefined}
                      onClick={() => go({ at: 'madeSafe' })}
                    >
                      <Mark state={state.madeSafe ? 'done' : 'open'} />
                      <span>Confirm by name</span>
                    </button>
                  </li>
                )}
              </ul>
            )}
          </div>
        )
      })}
      <button
        type="button"
        className="phase-head"
        aria-current={place.at === 'end' ? 'step' : undefined}
        onClick={() => go({ at: 'end' })}
      >
        <span>Sign</span>
      </button>
    </nav>
  )
}

/** A square for each step, solid once it is settled; a bar where there are too many for squares. */
function Tally({ marks }: { marks: boolean[] }) {
  const done = marks.filter(Boolean).length
  const squares = marks.length <= 8
  return (
    <span className="tally">
      <svg width="84" height="10" viewBox="0 0 84 10" aria-hidden>
        {squares ? (
          marks.map((mark, index) => (
            <rect
              key={index}
              x={84 - (marks.length - index) * 10 + 0.5}
              y="0.5"
              width="8"
              height="9"
              fill={mark ? 'var(--moss)' : 'none'}
              stroke={mark ? 'var(--moss)' : 'var(--edge)'}
            />
          ))
        ) : (
          <>
            <rect x="4.5" y="0.5" width="78" height="9" fill="none" stroke="var(--edge)" />
            <rect x="5" y="0" width={(77 * done) / marks.length} height="10" fill="var(--moss)" />
          </>
        )}
      </svg>
      <span className="second">{marks.length > 0 ? `${done} of ${marks.length}` : 'as found'}</span>
    </span>
  )
}

const words = {
  done: 'done',
  skipped: 'skipped',
  open: 'to do',
  waiting: 'depends on what is found',
  notNeeded: 'not needed',
} as const

function StepMark({ step }: { step: StepState }) {
  return <Mark state={step.state} conflict={step.rival !== null} />
}

function Mark({ state, conflict = false }: { state: StepState['state']; conflict?: boolean }) {
  return (
    <svg
      width="18"
      height="18"
      viewBox="0 0 18 18"
      role="img"
      aria-label={conflict ? 'marked differently on two devices' : words[state]}
    >
      {conflict ? (
        <path d="M9 2 17 16H1Z" fill="none" stroke="var(--oxide)" strokeWidth="2" />
      ) : state === 'done' ? (
        <path d="m3 9.5 4 4 8-9" fill="none" stroke="var(--moss)" strokeWidth="2.2" />
      ) : state === 'skipped' ? (
        <path d="M3 9h12M11 5l4 4-4 4" fill="none" stroke="var(--brass)" strokeWidth="2" />
      ) : (
        <rect
          x="3.5"
          y="5.5"
          width="11"
          height="7"
          fill="none"
          stroke="var(--edge)"
          strokeDasharray={state === 'waiting' ? '2 2' : undefined}
        />
      )}
    </svg>
  )
}
