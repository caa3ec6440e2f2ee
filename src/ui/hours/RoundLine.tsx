'use client'

import { useMemo } from 'react'
import { showAge } from '@/core/calendar'
import { isAcceptedAtOnce, judgeTyped, type TypedReading, type Verdict } from '@/core/hours'
import { historyOf, type RoundRow } from '@/core/round'
import { inSentence, showNumber } from '@/core/units'
import { verdictWords } from '../fleet'
import { PostMark, type PostMarkState } from '../graphics/PostMark'
import { ReadingBand } from '../graphics/ReadingBand'
import type { Round, RowState } from './useRound'

type Props = {
  row: RoundRow
  round: Round
  today: string
  /** Whether it is to be read; the others recede. */
  asked: boolean
  current: boolean
  mayEnter: boolean
  onFocus: () => void
  onDone: () => void
  onUndo: () => void
  onRead: () => void
  onPaste: (text: string) => void
}

/** One meter of the round: what it showed, what it should show, what is typed, and the verdict on it. */
export function RoundLine(props: Props) {
  const { row, round, today, asked, current, onUndo } = props
  const state = round.stateOf(row.meterId)
  const { face } = row
  const show = (amount: number) => showNumber(amount, face.decimals)
  const judged = useMemo(
    () => (asked ? judgeTyped(state.typed, historyOf(row), round.instant()) : null),
    // The minutes that pass while somebody types make no difference to a reading.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [row, asked, state.typed],
  )
  const value = judged?.value ?? null
  const verdict = judged?.verdict ?? null
  const skipped = state.skipped || row.skipped
  const label = `${row.number} ${row.name}${row.several ? `, ${inSentence(row.meterName)}` : ''}`
  return (
    <li
      className={['round-line', asked ? '' : 'receding', current ? 'current' : '', state.saved ? 'saved' : '']
        .filter(Boolean)
        .join(' ')}
    >
      <PostMark state={markOf(state, asked, value === null ? null : verdict, skipped)} size={16} silent />
      <span>
        <span className="strong">{row.number}</span> {row.name}
        {row.several && <span className="second block">{row.meterName}</span>}
        {row.hold && <span className="second block oxide">{row.hold}</span>}
      </span>
      <span className="num">{row.last ? show(row.last.value) : '–'}</span>
      <span className={row.owes ? 'num strong' : 'num'}>
        {row.last ? showAge(row.last.day, today) : 'never'}
      </span>
      <span>
        {verdict?.band && verdict.previous && (
          <ReadingBand
            width={132}
            previous={verdict.previous.value}
            low={verdict.band.low}
            high={verdict.band.high}
            value={value}
            suggestion={value === null ? null : verdict.suggestion}
            kind={value === null ? null : verdict.kind}
            says={
              value === null
                ? `expected ${show(verdict.band.low)} to ${show(verdict.band.high)}`
                : verdict.reason
            }
          />
        )}
      </span>
      <span>
        {state.saved ? (
          <span className="num strong block">{state.saved.shown}</span>
        ) : judged ? (
          <Entry {...props} state={state} judged={judged} label={label} />
        ) : props.mayEnter ? (
          <button type="button" className="plain-button" onClick={props.onRead} aria-label={`Read ${label}`}>
            read
          </button>
        ) : null}
      </span>
      <span aria-live="polite">
        {state.asking && !state.saved ? (
          <>
            <Word {...props} state={state} value={value} />
            {state.error && (
              <span className="oxide" role="alert">
                {state.error}
              </span>
            )}
          </>
        ) : state.error ? (
          <span className="oxide strong" role="alert">
            {state.error}
          </span>
        ) : state.saved ? (
          <span>
            <span className={state.saved.status === 'accepted' ? 'moss strong' : 'brass strong'}>
              {state.saved.status === 'accepted' ? 'counts' : 'kept in doubt'}
            </span>{' '}
            <button type="button" className="plain-button" onClick={onUndo}>
              Undo
            </button>
          </span>
        ) : skipped ? (
          <span className="second">skipped: {skipped}</span>
        ) : !judged ? (
          <span className="second">
            {row.laidUp || (row.doubts > 0 ? 'a reading in doubt' : 'read, fits')}
          </span>
        ) : (
          <VerdictWords judged={judged} typed={state.typed} show={show} />
        )}
      </span>
    </li>
  )
}

function markOf(state: RowState, asked: boolean, verdict: Verdict | null, skipped: string): PostMarkState {
  if (state.saved) return state.saved.status === 'accepted' ? 'done' : 'doubted'
  if (!asked) return 'open'
  if (verdict) return isAcceptedAtOnce(verdict.kind) ? 'done' : verdict.possible ? 'waiting' : 'doubted'
  return skipped ? 'waiting' : 'notRead'
}

/** The field: digits go in, letters are keys. */
function Entry({
  row,
  round,
  state,
  judged: { verdict, value, suggestion },
  label,
  onFocus,
  onDone,
  onPaste,
}: Props & { state: RowState; judged: TypedReading; label: string }) {
  const { change } = round
  const doubtful = value !== null && !isAcceptedAtOnce(verdict.kind)
  const ask = (asking: RowState['asking']) => change(row.meterId, { asking, word: '' })
  const keys: Record<string, (() => void) | undefined> = {
    d:
      suggestion !== null
        ? () => change(row.meterId, { typed: suggestion.toFixed(row.face.decimals), error: '' })
        : undefined,
    k: doubtful && verdict.possible ? () => ask('keep') : undefined,
    m: value !== null && doubtful ? () => ask('replaced') : undefined,
    s: () => ask('skip'),
  }
  return (
    <input
      id={`round-${row.meterId}`}
      className="round-input"
      aria-label={label}
      inputMode="decimal"
      autoComplete="off"
      value={state.typed}
      readOnly={state.saving}
      onFocus={onFocus}
      onChange={(event) => change(row.meterId, { typed: event.target.value, error: '', asking: null })}
      onPaste={(event) => {
        const text = event.clipboardData.getData('text')
        if (!/\n\s*\S/.test(text.trim())) return
        event.preventDefault()
        onPaste(text)
      }}
      onKeyDown={(event) => {
        if (event.ctrlKey || event.metaKey || event.altKey) return
        const key = event.key.toLowerCase()
        if (key === 'enter') {
          event.preventDefault()
          if (state.typed.trim() === '') onDone()
          else {
            void round.save(row, state.typed)
            onDone()
          }
        } else if (key === 'escape') change(row.meterId, { typed: '', error: '', asking: null })
        else if (/^[a-z]$/.test(key) && key !== 'h') {
          event.preventDefault()
          keys[key]?.()
        }
      }}
    />
  )
}

const asks = {
  keep: 'Why it is right',
  replaced: 'Old meter’s last, if known',
  skip: 'Why it is not read',
} as const

/** The one word a key asks for; Enter saves it and goes on, Escape leaves it. */
function Word({ row, round, state, onDone }: Props & { state: RowState; value: number | null }) {
  const { change } = round
  const finish = () => {
    const { asking, word, typed } = state
    if (asking !== 'replaced' && word.trim() === '') {
      change(row.meterId, { error: 'Say why, in a word.' })
      return
    }
    if (asking === 'keep') void round.save(row, typed, { vouched: true, note: word.trim() })
    else if (asking === 'replaced') void round.replace(row, typed, word.trim())
    else void round.skip(row, word.trim())
    onDone()
  }
  return (
    <input
      className="round-input wide"
      aria-label={asks[state.asking!]}
      placeholder={asks[state.asking!]}
      autoFocus
      value={state.word}
      onChange={(event) => change(row.meterId, { word: event.target.value, error: '' })}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault()
          finish()
        } else if (event.key === 'Escape') change(row.meterId, { asking: null, word: '', error: '' })
      }}
    />
  )
}

function VerdictWords({
  judged: { verdict, value, refusal, suggestion },
  typed,
  show,
}: {
  judged: TypedReading
  typed: string
  show: (amount: number) => string
}) {
  if (value === null && suggestion !== null)
    return (
      <span>
        <span className="oxide strong">{refusal}</span>
        <span className="second block">
          <kbd>D</kbd> take {show(suggestion)}
        </span>
      </span>
    )
  if (value === null)
    return (
      <span className="second">
        {typed.trim() !== ''
          ? refusal || 'not a number yet'
          : verdict.band
            ? `expect ${show(verdict.band.low)} to ${show(verdict.band.high)}`
            : 'never read before'}
      </span>
    )
  const used = verdict.used !== null && verdict.used >= 0 ? `, +${show(verdict.used)}` : ''
  if (isAcceptedAtOnce(verdict.kind))
    return (
      <span className="moss strong">
        {verdictWords[verdict.kind].toLowerCase()}
        {used}
      </span>
    )
  return (
    <span>
      <span className={verdict.possible ? 'brass strong' : 'oxide strong'}>
        {verdictWords[verdict.kind]}
        {verdict.possible ? used : ''}
      </span>
      <span className="second block">
        {verdict.suggestion !== null && (
          <>
            <kbd>D</kbd> take {show(verdict.suggestion)}{' '}
          </>
        )}
        {verdict.possible && (
          <>
            <kbd>K</kbd> keep it{' '}
          </>
        )}
        {(verdict.kind === 'newMeter' || !verdict.possible) && (
          <>
            <kbd>M</kbd> new meter
          </>
        )}
      </span>
    </span>
  )
}
