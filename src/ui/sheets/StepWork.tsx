'use client'

import Button from '@mui/material/Button'
import { useState } from 'react'
import {
  blockedBy,
  fastenerOf,
  mayBeSkipped,
  phasesOf,
  statedTorque,
  type Payloads,
  type StepState,
} from '@/core/sheet'
import { parseNumber, showNumber } from '@/core/units'
import { Note } from '../feedback/States'
import { FieldFrame, SelectInput, TextInput } from '../forms/FieldFrame'
import { AskDialog } from './AskDialog'
import type { Place } from './place'
import type { SheetHandle } from './useSheet'
import { StepTorque } from './StepTorque'
import { clockTime, doneWords, phaseNames, stepFacts } from './words'

type Props = {
  bench: SheetHandle
  step: StepState
  timeZone: string
  before: Place | null
  go: (to: Place | null) => void
}

/** One step: what to do, with what, which way round, what it asks for, and its one confirmation. */
export function StepWork({ bench, step: each, timeZone, before, go }: Props) {
  const { state } = bench
  const { step, where, heading } = each.step
  const phase = phasesOf(state).find(({ steps }) => steps.some((other) => other.step.key === each.step.key))
  const counted = phase?.steps.filter((other) => other.state !== 'notNeeded') ?? []
  const blocked = blockedBy(state, each)
  const remarks = state.remarks.filter((entry) => entry.stepKey === each.step.key)
  const substitutes = state.substitutes.filter((entry) => entry.stepKey === each.step.key)
  return (
    <div className="bench-step">
      <p className="second">
        {phaseNames[each.step.phase]}, step{' '}
        {counted.findIndex((other) => other.step.key === each.step.key) + 1} of {counted.length} · {heading}
      </p>
      <h2 className="step-title">{step.text}</h2>
      {where && <p className="step-where">{where}</p>}
      <StepTorque bench={bench} step={each} />
      <dl className="step-facts">
        {stepFacts(state, each).map(([name, words]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
      {step.caution && <p className="caution bench-caution">{step.caution}</p>}
      {each.rival && (
        <Note tone="oxide" title="Two devices say different things.">
          {each.by?.byName}: {each.by?.kind === 'done' ? 'done' : 'skipped'}. {each.rival.byName}:{' '}
          {each.rival.kind === 'done' ? 'done' : 'skipped'}. Take back what stands and enter what is right.
        </Note>
      )}
      {[...substitutes, ...remarks].map((entry) => (
        <p key={entry.id} className="bench-remark">
          <span className="second">
            {entry.byName}, {clockTime(entry.at, timeZone)}
          </span>{' '}
          {entry.kind === 'remark'
            ? entry.payload.text
            : `${entry.payload.used} instead of ${entry.payload.tool}: ${entry.payload.reason}`}
        </p>
      ))}
      {each.state === 'done' || each.state === 'skipped' ? (
        <Settled bench={bench} step={each} timeZone={timeZone} before={before} go={go} />
      ) : (
        <StepEntry bench={bench} step={each} blocked={blocked} before={before} go={go} />
      )}
    </div>
  )
}

function Settled({ bench, step, timeZone, before, go }: Props) {
  const { by } = step
  if (!by) return null
  return (
    <>
      <Note tone={by.kind === 'done' ? 'moss' : 'brass'} title={by.kind === 'done' ? 'Done.' : 'Skipped.'}>
        {by.byName}, {clockTime(by.at, timeZone)}
        {by.kind === 'done'
          ? doneWords(by.payload) && ` · ${doneWords(by.payload)}`
          : ` · ${by.payload.reason}`}
      </Note>
      <div className="bench-buttons">
        <Button variant="outlined" className="back" disabled={!before} onClick={() => before && go(before)}>
          Back
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            void bench.write('takeBack', { of: by.id, reason: '' })
            go({ at: 'step', key: step.step.key })
          }}
        >
          Take back
        </Button>
        <Button variant="contained" className="confirm" onClick={() => go(null)}>
          Go on
        </Button>
      </div>
    </>
  )
}

function StepEntry({
  bench,
  step: each,
  blocked,
  before,
  go,
}: Omit<Props, 'timeZone'> & { blocked: string | null }) {
  const { state } = bench
  const { step } = each.step
  const stated = statedTorque(state, each)
  const fastener = fastenerOf(state, each)
  const notGiven = fastener?.torque.state === 'notGiven'
  const [torque, setTorque] = useState(stated ? { value: showNumber(stated.value), unit: stated.unit } : null)
  const [measured, setMeasured] = useState('')
  const [answer, setAnswer] = useState('')
  const [reason, setReason] = useState('')
  const [askReason, setAskReason] = useState(false)
  const [error, setError] = useState('')
  const [dialog, setDialog] = useState<'skip' | 'tool' | 'remark' | null>(null)
  const key = each.step.key

  const done = async () => {
    const payload = read()
    if (typeof payload === 'string') {
      setError(payload)
      return
    }
    const refused = await bench.write('done', payload, key)
    if (refused) {
      setError(refused)
      // Off its limits, misread or not measured: a reason may explain it.
      setAskReason(step.measure !== null || fastener !== null)
      return
    }
    go(null)
  }
  /** What was entered, or the sentence that says what cannot be read. */
  const read = (): Payloads['done'] | string => {
    const given: Payloads['done'] = { measure: null, torque: null, answer, reason: reason.trim() }
    if (torque && torque.value.trim() !== '') {
      const parsed = parseNumber(torque.value)
      if (!parsed.ok) return parsed.reason
      given.torque = { value: parsed.value, unit: torque.unit }
    }
    if (step.measure && measured.trim() !== '') {
      const parsed = parseNumber(measured)
      if (!parsed.ok) return parsed.reason
      given.measure = { value: parsed.value, unit: step.measure.unit }
    }
    return given
  }
  const nudge = (by: number) => {
    if (!torque) return
    const parsed = parseNumber(torque.value)
    setTorque({
      ...torque,
      value: showNumber(Math.max(0, Math.round(((parsed.ok ? parsed.value : 0) + by) * 10) / 10)),
    })
  }

  return (
    <>
      {torque && (
        <div className="torque-entry">
          <span>
            <span className="strong">Pulled</span>
            <span className="second block">
              {fastener && fastener.count > 1 ? `all ${fastener.count}` : ''}
            </span>
          </span>
          <Button variant="outlined" aria-label="Less" onClick={() => nudge(-0.5)}>
            −
          </Button>
          <TextInput
            id="torque"
            value={torque.value}
            onChange={(event) => setTorque({ ...torque, value: event.target.value })}
            autoComplete="off"
            inputProps={{ inputMode: 'decimal', 'aria-label': 'Torque pulled' }}
          />
          <SelectInput
            id="torque-unit"
            options={['N·m', 'in-lb', 'ft-lb', 'kgf·m'].map((unit) => ({ value: unit, label: unit }))}
            value={torque.unit}
            onChange={(event) => setTorque({ ...torque, unit: event.target.value })}
            inputProps={{ 'aria-label': 'Unit of torque' }}
          />
          <Button variant="outlined" aria-label="More" onClick={() => nudge(0.5)}>
            +
          </Button>
        </div>
      )}
      {step.measure && (
        <FieldFrame
          id="measure"
          label={`${step.measure.what.charAt(0).toUpperCase()}${step.measure.what.slice(1)}`}
          hint={limitWords(step.measure)}
        >
          <TextInput
            id="measure"
            value={measured}
            onChange={(event) => setMeasured(event.target.value)}
            autoComplete="off"
            inputProps={{ inputMode: 'decimal' }}
            endAdornment={<span className="unit">{step.measure.unit}</span>}
          />
        </FieldFrame>
      )}
      {step.asks && (
        <fieldset className="answers">
          <legend className="second">What was found?</legend>
          {step.asks.answers.map((words) => (
            <Button
              key={words}
              variant={answer === words ? 'contained' : 'outlined'}
              aria-pressed={answer === words}
              onClick={() => setAnswer(words)}
            >
              {words}
            </Button>
          ))}
        </fieldset>
      )}
      {(askReason || notGiven) && (
        <FieldFrame
          id="step-reason"
          label={notGiven ? 'Value from the maker’s manual, with its page' : 'Why it is right as it is'}
        >
          <TextInput id="step-reason" value={reason} onChange={(event) => setReason(event.target.value)} />
        </FieldFrame>
      )}
      {error && (
        <p role="alert" className="note note-oxide">
          {error}
        </p>
      )}
      {blocked ? (
        <Note tone="brass" title="Not yet.">
          {blocked}{' '}
          <button type="button" className="plain-button" onClick={() => go(null)}>
            Go there
          </button>
        </Note>
      ) : each.state === 'waiting' ? (
        <Note>Whether this is to be done depends on what is found before.</Note>
      ) : null}
      <div className="bench-side-actions">
        {mayBeSkipped(each) && (
          <Button variant="text" disabled={blocked !== null} onClick={() => setDialog('skip')}>
            Skip it
          </Button>
        )}
        {step.tools.length > 0 && (
          <Button variant="text" onClick={() => setDialog('tool')}>
            Other tool
          </Button>
        )}
        <Button variant="text" onClick={() => setDialog('remark')}>
          Remark
        </Button>
      </div>
      <div className="bench-buttons">
        <Button variant="outlined" className="back" disabled={!before} onClick={() => before && go(before)}>
          Back
        </Button>
        <Button
          variant="contained"
          className="confirm"
          disabled={blocked !== null || each.state === 'waiting'}
          onClick={() => void done()}
        >
          {confirmWords(each, torque, measured)}
        </Button>
      </div>
      {dialog === 'skip' && (
        <AskDialog
          title="Skip this step?"
          fields={[{ name: 'reason', label: 'Why is it skipped?' }]}
          submit="Skip it"
          onClose={() => setDialog(null)}
          send={async ({ reason: why }) => {
            const refused = await bench.write('skipped', { reason: why ?? '' }, key)
            if (!refused) go(null)
            return refused
          }}
        />
      )}
      {dialog === 'tool' && (
        <AskDialog
          title="Another tool was used"
          fields={[
            {
              name: 'tool',
              label: 'Instead of',
              options: step.tools.map(
                (tool) => state.content.tools.find((known) => known.key === tool)?.name ?? tool,
              ),
            },
            { name: 'used', label: 'What was used' },
            { name: 'reason', label: 'Why' },
          ]}
          submit="Note it"
          onClose={() => setDialog(null)}
          send={({ tool, used, reason: why }) =>
            bench.write('substitute', { tool: tool ?? '', used: used ?? '', reason: why ?? '' }, key)
          }
        />
      )}
      {dialog === 'remark' && (
        <AskDialog
          title="Remark on this step"
          fields={[{ name: 'text', label: 'Remark', lines: 4 }]}
          submit="Keep it"
          onClose={() => setDialog(null)}
          send={({ text }) => bench.write('remark', { text: text ?? '' }, key)}
        />
      )}
    </>
  )
}

function limitWords({ unit, min, max }: { unit: string; min: number | null; max: number | null }): string {
  if (min !== null && max !== null) return `${showNumber(min)} to ${showNumber(max)}\u00a0${unit}`
  if (min !== null) return `${showNumber(min)}\u00a0${unit} or more`
  return max === null ? '' : `${showNumber(max)}\u00a0${unit} or less`
}

/** The confirmation repeats what it confirms. */
function confirmWords(
  { step }: StepState,
  torque: { value: string; unit: string } | null,
  measured: string,
): string {
  if (torque) return `Done at ${torque.value}\u00a0${torque.unit}`
  if (step.step.measure && measured.trim() !== '')
    return `Done: ${measured.trim()}\u00a0${step.step.measure.unit}`
  return step.step.gate ? 'Confirmed' : 'Done'
}

/** The gate after making safe: somebody says with their name that it is so. */
export function MakeSafeGate({
  bench,
  author,
  timeZone,
  onDone,
}: {
  bench: SheetHandle
  author: string
  timeZone: string
  onDone: () => void
}) {
  const [name, setName] = useState(author)
  const [error, setError] = useState('')
  const { madeSafe } = bench.state
  const confirm = async () => {
    if (name.trim() === '') {
      setError('Confirm it with your name.')
      return
    }
    const refused = await bench.write('madeSafe', { name: name.trim() })
    setError(refused ?? '')
    if (!refused) onDone()
  }
  return (
    <div className="bench-step">
      <p className="second">Make safe, confirmed by name</p>
      <h2 className="step-title">Is everything safe to open?</h2>
      <p>
        Isolated and locked out, pressure relieved and zero verified, cooled. Nothing else opens before this
        is confirmed.
      </p>
      <p className="caution bench-caution">
        For trained and authorised people under local codes; the maker’s manual goes first. Atelier records,
        it does not authorise.
      </p>
      {madeSafe ? (
        <Note tone="moss" title={`Confirmed by ${madeSafe.payload.name},`}>
          {clockTime(madeSafe.at, timeZone)}
        </Note>
      ) : (
        <FieldFrame id="safe-name" label="Name" error={error}>
          <TextInput id="safe-name" value={name} onChange={(event) => setName(event.target.value)} />
        </FieldFrame>
      )}
      <div className="bench-buttons">
        {madeSafe ? (
          <Button variant="contained" className="confirm" onClick={onDone}>
            Go on
          </Button>
        ) : (
          <Button variant="contained" className="confirm" onClick={() => void confirm()}>
            {name.trim() === '' ? 'Made safe' : `Made safe: ${name.trim()}`}
          </Button>
        )}
      </div>
    </div>
  )
}
