'use client'

import { useState } from 'react'
import { showAge } from '@/core/calendar'
import { isAcceptedAtOnce, judgeTyped } from '@/core/hours'
import type { BenchMeter, SheetPage } from '@/core/sheets'
import { showNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { type Present, verdictWords } from '../../fleet'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'
import { ReadingBand } from '../../graphics/ReadingBand'
import type { SheetHandle } from './useSheet'

type Props = { sheet: SheetPage; bench: SheetHandle; present: Present; onDone: () => void }

/** The first thing on every sheet: what each meter of the machine shows now. */
export function ReadMeters({ sheet, bench, present, onDone }: Props) {
  const { state } = bench
  return (
    <div className="bench-step">
      <p className="second">First of all</p>
      <h2 className="step-title">Read the hour {sheet.meters.length === 1 ? 'meter' : 'meters'}</h2>
      <p>Lives end and begin at this reading.</p>
      {sheet.meters.map((meter) => {
        const read = state.readings.find((entry) => entry.payload.meterId === meter.id)
        if (!read) return <ReadMeter key={meter.id} meter={meter} bench={bench} present={present} />
        const { payload } = read
        return (
          <div key={meter.id} className="stack-tight">
            <p className="torque-line">
              <span className="torque">
                {payload.unreadable ? 'not read' : (payload.shown ?? payload.typed)}
              </span>{' '}
              {meter.name}
            </p>
            {payload.unreadable && <p className="second">{payload.unreadable}</p>}
            {payload.status === 'doubted' && (
              <Note tone="brass" title="Kept in doubt.">
                {payload.reason} Until it is settled, lives end and begin at the hours of the last good
                reading.
              </Note>
            )}
            {!state.madeSafe && (
              <div className="actions">
                <Button
                  variant="outlined"
                  onClick={() => void bench.write('takeBack', { of: read.id, reason: 'read again' })}
                >
                  Read it again
                </Button>
              </div>
            )}
          </div>
        )
      })}
      {state.unread.length === 0 && (
        <div className="bench-buttons">
          <Button variant="contained" className="confirm" onClick={onDone}>
            Go on
          </Button>
        </div>
      )}
    </div>
  )
}

function ReadMeter({ meter, bench, present }: { meter: BenchMeter; bench: SheetHandle; present: Present }) {
  const [typed, setTyped] = useState('')
  const [vouched, setVouched] = useState(false)
  const [unreadable, setUnreadable] = useState<string | null>(null)
  const [error, setError] = useState('')
  const { face } = meter
  const show = (amount: number) => `${showNumber(amount, face.decimals)}\u00a0${face.unit}`
  const { value, verdict, refusal, suggestion } = judgeTyped(
    typed,
    { ...meter.history, face },
    present.instant,
  )
  const doubtful = value !== null && !isAcceptedAtOnce(verdict.kind)
  const id = `meter-${meter.id}`

  const save = async () => {
    if (unreadable === null && refusal !== '') {
      setError(refusal)
      return
    }
    if (unreadable === null ? typed.trim() === '' : unreadable.trim() === '') {
      setError(unreadable === null ? 'Enter what the meter shows.' : 'Say why it cannot be read.')
      return
    }
    const payload = {
      meterId: meter.id,
      typed: unreadable === null ? typed : '',
      unreadable: unreadable?.trim() ?? '',
      vouched,
    }
    setError((await bench.write('reading', payload)) ?? '')
  }

  if (unreadable !== null)
    return (
      <div className="stack-tight">
        <FieldFrame id={id} label={`Why ${meter.name.toLowerCase()} cannot be read`} error={error}>
          <TextInput
            id={id}
            value={unreadable}
            onChange={(event) => setUnreadable(event.target.value)}
            autoFocus
          />
        </FieldFrame>
        <div className="bench-buttons">
          <Button variant="outlined" className="back" onClick={() => setUnreadable(null)}>
            Back
          </Button>
          <Button variant="contained" className="confirm" onClick={() => void save()}>
            Go on without a reading
          </Button>
        </div>
      </div>
    )
  return (
    <div className="stack-tight">
      <div className="big-input">
        <FieldFrame
          id={id}
          label={`${meter.name}: the meter shows`}
          error={error}
          hint={
            meter.last
              ? `Last ${show(meter.last.value)}, ${showAge(meter.last.day, present.today)}${verdict.band ? ` · expect ${show(verdict.band.low)} to ${show(verdict.band.high)}` : ''}`
              : 'Never read before'
          }
        >
          <TextInput
            id={id}
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value)
              setVouched(false)
              setError('')
            }}
            onKeyDown={(event) => event.key === 'Enter' && void save()}
            autoFocus
            autoComplete="off"
            inputProps={{ inputMode: 'decimal' }}
            endAdornment={<span className="unit">{face.unit}</span>}
          />
        </FieldFrame>
      </div>
      {verdict.band && verdict.previous && (
        <ReadingBand
          previous={verdict.previous.value}
          low={verdict.band.low}
          high={verdict.band.high}
          value={value}
          suggestion={value === null ? null : verdict.suggestion}
          kind={value === null ? null : verdict.kind}
          says={
            value === null
              ? `Expected ${show(verdict.band.low)} to ${show(verdict.band.high)}.`
              : verdict.reason
          }
        />
      )}
      <div aria-live="polite">
        {value !== null && !doubtful && <p className="moss strong">{verdictWords[verdict.kind]}</p>}
        {value === null && suggestion !== null && (
          <Note tone="oxide" title="Not a reading of this meter.">
            {refusal}
            <div className="actions">
              <Button variant="outlined" onClick={() => setTyped(suggestion.toFixed(face.decimals))}>
                Use {show(suggestion)}
              </Button>
            </div>
          </Note>
        )}
        {doubtful && (
          <Note tone={verdict.possible ? 'brass' : 'oxide'} title={`${verdictWords[verdict.kind]}.`}>
            {verdict.reason}{' '}
            {vouched ? 'You looked again: it will count as it is.' : 'Saved like this it is kept in doubt.'}
            <div className="actions">
              {verdict.suggestion !== null && (
                <Button
                  variant="outlined"
                  onClick={() => setTyped(verdict.suggestion!.toFixed(face.decimals))}
                >
                  Use {show(verdict.suggestion)}
                </Button>
              )}
              {verdict.possible && !vouched && (
                <Button variant="outlined" onClick={() => setVouched(true)}>
                  I looked again: it is right
                </Button>
              )}
            </div>
          </Note>
        )}
      </div>
      <div className="bench-buttons">
        <Button variant="outlined" onClick={() => setUnreadable('')}>
          It cannot be read
        </Button>
        <Button variant="contained" className="confirm" onClick={() => void save()}>
          {value === null ? 'Save reading' : `Save ${show(value)}`}
        </Button>
      </div>
    </div>
  )
}
