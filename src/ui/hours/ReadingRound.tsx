'use client'

import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { useEffect, useMemo, useRef, useState } from 'react'
import { inWalkingOrder, type RoundRow } from '@/core/round'
import { Button } from '../frame/Button'
import type { Present } from '../fleet'
import { unpack, type Packed } from '../frame/packed'
import { Page } from '../frame/Page'
import { useHydrated } from '../frame/useHydrated'
import { PasteRound } from './PasteRound'
import { RoundLine } from './RoundLine'
import { RoundSide } from './RoundSide'
import { useRound, type RoundActions } from './useRound'

type Props = {
  start: Packed<RoundRow[]>
  present: Present
  reader: string
  mayEnter: boolean
  actions: RoundActions
}

const firstDrawn = 50

/** The morning round: every machine in walking order, typed through without leaving the keyboard. */
export function ReadingRound({ start, present, reader, mayEnter, actions }: Props) {
  const round = useRound(unpack(start), present, reader, actions)
  const { stateOf } = round
  const [by, setBy] = useState<'yard' | 'crew'>('yard')
  const rows = useMemo(() => inWalkingOrder(round.rows, by), [round.rows, by])
  // Of a long round the server draws the beginning; the browser takes it up and draws the rest.
  const hydrated = useHydrated()
  const drawn = hydrated ? rows : rows.slice(0, firstDrawn)
  const [only, setOnly] = useState(false)
  const [extra, setExtra] = useState<string[]>([])
  const [current, setCurrent] = useState<string | null>(null)
  const [paste, setPaste] = useState<{ text: string; from: string | null } | null>(null)
  const list = useRef<HTMLDivElement>(null)
  const asked = rows.filter((row) => row.owes || extra.includes(row.meterId))
  const entered = asked.filter((row) => stateOf(row.meterId).saved)
  const skipped = asked.filter(
    (row) => !stateOf(row.meterId).saved && (stateOf(row.meterId).skipped || row.skipped),
  )
  const doubtful = entered.filter((row) => stateOf(row.meterId).saved?.status === 'doubted')
  const groupOf = (row: RoundRow) => (by === 'yard' ? row.yardName : row.crew || 'No crew')
  const groups = [...new Set(rows.map(groupOf))]
  const crews = rows.some((row) => row.crew !== '')
  const focusRow = rows.find((row) => row.meterId === current) ?? asked[0]

  /** Goes to the next meter that is still to read, or stays where there is none. */
  const goOn = (from: string) => {
    const open = (row: RoundRow) =>
      (row.owes || extra.includes(row.meterId)) && !stateOf(row.meterId).saved && row.meterId !== from
    const at = rows.findIndex((row) => row.meterId === from)
    const next = rows.slice(at + 1).find(open) ?? rows.slice(0, at).find(open)
    focusOn(next ? `#round-${next.meterId}` : '.round-done')
  }
  // What is to have the focus may not be drawn yet: it is kept until a drawing has it.
  const [wanted, setWanted] = useState<{ selector: string } | null>(null)
  const given = useRef<object | null>(null)
  const focusOn = (selector: string) => setWanted({ selector })
  useEffect(() => {
    if (!wanted || given.current === wanted) return
    const element = list.current?.querySelector<HTMLElement>(wanted.selector)
    if (!element) return
    element.focus()
    given.current = wanted
  })

  useEffect(() => {
    list.current?.querySelector<HTMLInputElement>('.round-line input')?.focus()
  }, [])

  const takeBack = async (meterId?: string) => {
    const which = await round.undo(meterId)
    if (which) focusOn(`#round-${which}`)
  }

  return (
    <Page
      title="Reading round"
      summary={summary(asked.length, entered.length, doubtful.length, skipped.length)}
      actions={
        <>
          <Progress marks={asked.map((row) => markOf(stateOf(row.meterId).saved?.status))} />
          {crews && (
            <ToggleButtonGroup
              exclusive
              size="small"
              value={by}
              aria-label="Grouped by"
              onChange={(_event, choice: 'yard' | 'crew' | null) => choice && setBy(choice)}
            >
              <ToggleButton value="yard">By yard</ToggleButton>
              <ToggleButton value="crew">By crew</ToggleButton>
            </ToggleButtonGroup>
          )}
          <Button variant="outlined" aria-pressed={only} onClick={() => setOnly(!only)}>
            {only ? 'All machines' : `Only the ${asked.length} to read`}
          </Button>
          {mayEnter && (
            <Button variant="outlined" onClick={() => setPaste({ text: '', from: null })}>
              Paste a message
            </Button>
          )}
        </>
      }
    >
      <div className="round">
        <div
          ref={list}
          onKeyDown={(event) => {
            if ((event.ctrlKey || event.metaKey) && event.key === 'z') {
              event.preventDefault()
              void takeBack()
            }
          }}
        >
          <div className="round-heads" aria-hidden>
            <span />
            <span>In walking order</span>
            <span className="num">Last reading</span>
            <span className="num">Taken</span>
            <span>Expected since then</span>
            <span className="num">Meter now</span>
            <span>Verdict</span>
          </div>
          {groups.map((group) => {
            const own = drawn
              .filter((row) => groupOf(row) === group)
              .filter((row) => !only || row.owes || extra.includes(row.meterId))
            if (own.length === 0) return null
            return (
              <section key={group} aria-label={group}>
                <h2 className="round-yard">{group}</h2>
                <ul className="round-list">
                  {own.map((row) => (
                    <RoundLine
                      key={row.meterId}
                      row={row}
                      round={round}
                      today={present.today}
                      asked={mayEnter && (row.owes || extra.includes(row.meterId))}
                      current={current === row.meterId}
                      mayEnter={mayEnter}
                      onFocus={() => setCurrent(row.meterId)}
                      onDone={() => goOn(row.meterId)}
                      onUndo={() => void takeBack(row.meterId)}
                      onRead={() => {
                        setExtra((known) => [...known, row.meterId])
                        focusOn(`#round-${row.meterId}`)
                      }}
                      onPaste={(text) => setPaste({ text, from: row.meterId })}
                    />
                  ))}
                </ul>
              </section>
            )
          })}
          {asked.length > 0 && entered.length + skipped.length >= asked.length && (
            <p className="round-done moss strong" tabIndex={-1}>
              The round is done.
            </p>
          )}
        </div>
        <RoundSide row={focusRow} round={round} today={present.today} />
      </div>
      {paste && (
        <PasteRound
          start={paste.text}
          rows={rows}
          expected={pasteOrder(
            asked.filter((row) => !stateOf(row.meterId).saved),
            paste.from,
          )}
          round={round}
          onClose={() => setPaste(null)}
        />
      )}
    </Page>
  )
}

/** A bare column belongs to the meters that are still to read, from the one it was pasted at. */
function pasteOrder(open: RoundRow[], from: string | null): RoundRow[] {
  const at =
    from === null
      ? 0
      : Math.max(
          0,
          open.findIndex((row) => row.meterId === from),
        )
  return open.slice(at)
}

function markOf(status: 'accepted' | 'doubted' | 'superseded' | undefined): 'open' | 'done' | 'doubt' {
  if (status === undefined) return 'open'
  return status === 'accepted' ? 'done' : 'doubt'
}

function Progress({ marks }: { marks: ('open' | 'done' | 'doubt')[] }) {
  const done = marks.filter((mark) => mark !== 'open').length
  return (
    <span className="round-progress">
      <svg width={Math.min(marks.length, 12) * 16} height="14" aria-hidden>
        {marks.slice(0, 12).map((mark, index) => (
          <rect
            key={index}
            x={index * 16 + 0.5}
            y="0.5"
            width="13"
            height="13"
            fill={mark === 'done' ? 'var(--moss)' : mark === 'doubt' ? 'var(--brass)' : 'none'}
            stroke={mark === 'done' ? 'var(--moss)' : mark === 'doubt' ? 'var(--brass)' : 'var(--edge)'}
          />
        ))}
      </svg>
      {done} of {marks.length} entered
    </span>
  )
}

function summary(asked: number, entered: number, doubtful: number, skipped: number): string {
  if (asked === 0) return 'Every meter is freshly read. Any machine can be read again.'
  const left = asked - entered - skipped
  return [
    `${asked} to read:`,
    `${entered - doubtful} ${entered - doubtful === 1 ? 'counts' : 'count'},`,
    doubtful > 0 && `${doubtful} in doubt,`,
    skipped > 0 && `${skipped} skipped,`,
    `${left} still to come.`,
  ]
    .filter(Boolean)
    .join(' ')
}
