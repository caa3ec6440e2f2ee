'use client'

import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import type { PositionState, SheetAssembly } from '@/core/sheet'
import { showNumber } from '@/core/units'
import type { ClockView, PositionView, WearView } from '@/core/wear/views'
import { FieldFrame, TextInput } from '../forms/FieldFrame'
import type { SheetHandle } from './useSheet'

type Props = { assembly: SheetAssembly; bench: SheetHandle; wear: WearView | null }

/** Every position of a pump by cylinder: hours since it was new, and what this sheet does to it. */
export function BenchPositions({ assembly, bench, wear }: Props) {
  const [chosen, setChosen] = useState<PositionState | null>(null)
  const states = bench.state.positions.filter((each) => each.assemblyId === assembly.id)
  const stateOf = (position: string) => states.find((each) => each.position === position)
  const rows = wear?.grid.flatMap((zone) => zone.rows) ?? []
  const inGrid = new Set(rows.flatMap((row) => row.cells.map((cell) => cell.position)))
  const single = states.filter((each) => !inGrid.has(each.position))
  const nameOf = (position: string) =>
    assembly.positions.find((each) => each.key === position)?.name ?? position
  return (
    <section>
      <header>
        <h2>{bench.state.content.assemblies.length > 1 ? `Positions, ${assembly.number}` : 'Positions'}</h2>
        <span className="second">{assembly.unit === 'h' ? 'hours' : 'strokes'} since new</span>
      </header>
      {rows.length > 0 && (
        <table className="bench-grid">
          <caption className="visually-hidden">Positions of {assembly.number}</caption>
          <thead>
            <tr>
              <td />
              {wear!.columns.map((column, index) => (
                <th key={column} scope="col">
                  <span className="visually-hidden">{column}</span>
                  <span aria-hidden>{index + 1}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.key}>
                <th scope="row">{row.name}</th>
                {row.cells.map((cell) => {
                  const state = stateOf(cell.position)
                  return (
                    <td key={cell.position}>
                      {state && (
                        <PositionCell
                          cell={cell}
                          state={state}
                          name={nameOf(cell.position)}
                          onOpen={() => setChosen(state)}
                        />
                      )}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <ul className="bench-parts">
        {single.map((state) => (
          <li key={state.position}>
            <button type="button" onClick={() => setChosen(state)}>
              <span className={`position-dot ${state.state}`} aria-hidden />
              <span>{nameOf(state.position)}</span>
              <span className={state.state === 'open' ? 'second' : 'strong'}>
                {wordsOf(
                  state,
                  wear?.clocks.find((clock) => clock.positions.includes(state.position)),
                )}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {chosen && (
        <PositionDialog
          state={stateOf(chosen.position) ?? chosen}
          name={nameOf(chosen.position)}
          bench={bench}
          onClose={() => setChosen(null)}
        />
      )}
    </section>
  )
}

function wordsOf({ state, planned }: PositionState, clock: ClockView | undefined): string {
  if (state === 'renewed') return 'new'
  if (state === 'kept') return 'kept'
  const used = clock ? `${showNumber(Math.round(clock.hoursUsed))}` : ''
  return planned ? `${used} to renew`.trim() : used
}

function PositionCell({
  cell,
  state,
  name,
  onOpen,
}: {
  cell: PositionView
  state: PositionState
  name: string
  onOpen: () => void
}) {
  const renewed = state.state === 'renewed'
  const share = cell.limit === null ? 0 : Math.min(cell.used / cell.limit, 1)
  const used = showNumber(Math.round(cell.used))
  const says = renewed
    ? `${name}: renewed on this sheet`
    : `${name}: ${used} hours${state.state === 'kept' ? ', kept' : state.planned ? ', to renew' : ''}`
  const over = cell.state === 'over' || cell.state === 'overdue'
  return (
    <button
      type="button"
      className={`bench-cell ${state.state} ${state.planned ? 'planned' : ''}`}
      aria-label={says}
      onClick={onOpen}
    >
      <svg width="14" height="32" viewBox="0 0 14 32" aria-hidden>
        <rect x="2.5" y="4.5" width="9" height="26" fill="none" stroke="var(--edge)" />
        {!renewed && (
          <rect
            x="2"
            y={31 - 27 * share}
            width="10"
            height={27 * share}
            fill={over ? 'var(--oxide)' : cell.state === 'dueSoon' ? 'var(--brass)' : 'var(--moss)'}
          />
        )}
        <line x1="0" x2="14" y1="4" y2="4" stroke="var(--ink)" strokeWidth="1.5" />
      </svg>
      <span>{renewed ? 'new' : state.state === 'kept' ? 'kept' : used}</span>
    </button>
  )
}

/** Says of one position what was done there, against or besides what the ticks say. */
function PositionDialog({
  state,
  name,
  bench,
  onClose,
}: {
  state: PositionState
  name: string
  bench: SheetHandle
  onClose: () => void
}) {
  const [reason, setReason] = useState('')
  const [error, setError] = useState('')
  const say = async (kind: 'renewed' | 'kept') => {
    if (reason.trim() === '') {
      setError(kind === 'renewed' ? 'Say why it was renewed.' : 'Say why it was kept.')
      return
    }
    const refused = await bench.write(kind, {
      assemblyId: state.assemblyId,
      position: state.position,
      reason: reason.trim(),
    })
    if (refused) setError(refused)
    else onClose()
  }
  const now =
    state.state === 'renewed'
      ? 'Renewed on this sheet.'
      : state.state === 'kept'
        ? 'Kept: its life runs on.'
        : state.planned
          ? 'To be renewed; its fitting step says when it is.'
          : 'Not part of this sheet: its life runs on.'
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth aria-label={name} className="bench-dialog">
      <DialogTitle>{name}</DialogTitle>
      <DialogContent>
        <div className="stack-tight">
          <p>
            {now} {state.reason && <span className="second">{state.reason}</span>}
          </p>
          <FieldFrame id="position-reason" label="Why it was done otherwise" error={error}>
            <TextInput
              id="position-reason"
              value={reason}
              onChange={(event) => setReason(event.target.value)}
            />
          </FieldFrame>
        </div>
      </DialogContent>
      <DialogActions>
        <Button variant="text" onClick={onClose}>
          Leave it
        </Button>
        {state.state !== 'kept' && (
          <Button variant="outlined" onClick={() => void say('kept')}>
            It was kept
          </Button>
        )}
        {state.state !== 'renewed' && (
          <Button variant="contained" onClick={() => void say('renewed')}>
            It was renewed
          </Button>
        )}
      </DialogActions>
    </Dialog>
  )
}
