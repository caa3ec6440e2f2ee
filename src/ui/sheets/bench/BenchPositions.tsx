'use client'

import { Fragment, useState } from 'react'
import { findingWords } from '@/core/inspection'
import {
  findingOf,
  foldColumns,
  numberSpans,
  placeWords,
  positionPlace,
  type PositionPlace,
  type PositionState,
  type SheetAssembly,
} from '@/core/sheets'
import { showNumber } from '@/core/units'
import type { ClockView, PositionView, WearView } from '@/core/wear'
import { Button } from '../../frame/Button'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'
import { FindingEditor } from './FindingEditor'
import { PhotoButton } from './PhotoStrip'
import { BenchDialog } from './BenchDialog'
import type { SheetHandle } from './useSheet'

type Props = { assembly: SheetAssembly; bench: SheetHandle; wear: WearView | null }

/** Every position of a pump by cylinder: hours since it was new, and what this sheet does to it. */
export function BenchPositions({ assembly, bench, wear }: Props) {
  // A folded column stands for several positions: then one of them is chosen first.
  const [chosen, setChosen] = useState<PositionState[]>([])
  const states = bench.state.positions.filter((each) => each.assemblyId === assembly.id)
  const stateOf = (position: string) => states.find((each) => each.position === position)
  const rows = wear?.grid.flatMap((zone) => zone.rows) ?? []
  const inGrid = new Set(rows.flatMap((row) => row.cells.map((cell) => cell.position)))
  const single = states.filter((each) => !inGrid.has(each.position))
  const nameOf = (position: string) =>
    assembly.positions.find((each) => each.key === position)?.name ?? position
  const columns = wear?.columns ?? []
  const wide = columns.length > 3
  const cellOf = (cell: PositionView | undefined) => {
    const state = cell && stateOf(cell.position)
    if (!cell || !state) return null
    const seen = findingOf(bench.state, assembly.id, cell.position)?.payload.damages.length ?? 0
    return {
      cell,
      state,
      place: positionPlace(bench.state, state),
      seen: seen > 0,
      name: nameOf(cell.position),
    }
  }
  const groups = foldColumns(
    columns.map((_, column) => rows.map((row) => JSON.stringify(lookOf(cellOf(row.cells[column])))).join()),
  )
  return (
    <section>
      <header>
        <h2>{bench.state.content.assemblies.length > 1 ? `Positions, ${assembly.number}` : 'Positions'}</h2>
        <span className="second">{assembly.unit === 'h' ? 'hours' : 'strokes'} since new</span>
      </header>
      {rows.length > 0 && (
        <table className={wide ? 'bench-grid wide' : 'bench-grid'}>
          <caption className="visually-hidden">Positions of {assembly.number}</caption>
          <thead>
            <tr>
              {!wide && <td />}
              {groups.map((group) => (
                <th key={group.join()} scope="col">
                  <span className="visually-hidden">
                    {group.map((column) => wear!.columns[column]).join(', ')}
                  </span>
                  <span aria-hidden>{numberSpans(group.map((column) => column + 1))}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const cells = groups.map((group) => {
                const look = cellOf(row.cells[group[0]!])
                return (
                  <td key={group.join()}>
                    {look && (
                      <PositionCell
                        {...look}
                        others={group.length - 1}
                        onOpen={() =>
                          setChosen(
                            group.flatMap((column) => stateOf(row.cells[column]?.position ?? '') ?? []),
                          )
                        }
                      />
                    )}
                  </td>
                )
              })
              const head = <th scope="row">{row.name}</th>
              return wide ? (
                <Fragment key={row.key}>
                  <tr>
                    <th scope="rowgroup" colSpan={groups.length}>
                      {row.name}
                    </th>
                  </tr>
                  <tr>{cells}</tr>
                </Fragment>
              ) : (
                <tr key={row.key}>
                  {head}
                  {cells}
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      <ul className="bench-parts">
        {single.map((state) => (
          <li key={state.position}>
            <button type="button" onClick={() => setChosen([state])}>
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
      {chosen.length > 1 && (
        <BenchDialog title="Which one?" size="xs" onClose={() => setChosen([])}>
          <div className="bench-buttons">
            {chosen.map((state) => (
              <Button key={state.position} variant="outlined" onClick={() => setChosen([state])}>
                {nameOf(state.position)}
              </Button>
            ))}
          </div>
        </BenchDialog>
      )}
      {chosen.length === 1 && (
        <PositionDialog
          assemblyId={assembly.id}
          position={chosen[0]!.position}
          bench={bench}
          onClose={() => setChosen([])}
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

type CellLook = {
  cell: PositionView
  state: PositionState
  place: PositionPlace
  seen: boolean
  name: string
}

/** What a cell shows, without which one it is: columns that show the same can be folded. */
function lookOf(look: CellLook | null) {
  if (!look) return null
  const { cell, state, place, seen } = look
  return [Math.round(cell.used), cell.limit, cell.state, state.state, state.planned, place, seen]
}

function PositionCell({
  cell,
  state,
  place,
  seen,
  name,
  others,
  onOpen,
}: CellLook & {
  /** How many more its column stands for. */
  others: number
  onOpen: () => void
}) {
  const renewed = state.state === 'renewed'
  const share = cell.limit === null ? 0 : Math.min(cell.used / cell.limit, 1)
  const used = showNumber(Math.round(cell.used))
  const says = renewed
    ? `${name}: new, renewed on this sheet`
    : `${name}: ${used} hours${place === 'kept' ? ', kept' : `${state.planned && place !== 'reused' ? ', to renew' : ''}, ${placeWords[place]}`}${seen ? ', damage seen' : ''}`
  const over = cell.state === 'over' || cell.state === 'overdue'
  return (
    <button
      type="button"
      className={`bench-cell ${state.state} place-${place} ${state.planned ? 'planned' : ''}`}
      aria-label={others > 0 ? `${says}; and ${others} more alike` : says}
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
      <span className="cell-words">
        {renewed ? 'new' : place === 'kept' ? 'kept' : used}
        {place in shortPlaces && <small>{shortPlaces[place as keyof typeof shortPlaces]}</small>}
      </span>
      {seen && <span className="cell-seen" aria-hidden />}
    </button>
  )
}

const shortPlaces = { open: 'open', out: 'out', reused: 'back', locked: 'locked' } as const

type DialogProps = { assemblyId: string; position: string; bench: SheetHandle; onClose: () => void }

/** One position: how it stands, what was seen on it, and what was done there against the ticks. */
export function PositionDialog({ assemblyId, position, bench, onClose }: DialogProps) {
  const [reason, setReason] = useState('')
  const [error, setError] = useState('')
  const state = bench.state.positions.find(
    (each) => each.assemblyId === assemblyId && each.position === position,
  )
  if (!state) return null
  const name =
    bench.state.content.assemblies
      .find((each) => each.id === assemblyId)
      ?.positions.find((each) => each.key === position)?.name ?? position
  const finding = findingOf(bench.state, assemblyId, position)
  const say = async (kind: 'renewed' | 'kept') => {
    if (reason.trim() === '') {
      setError(kind === 'renewed' ? 'Say why it was renewed.' : 'Say why it was kept.')
      return
    }
    const refused = await bench.write(kind, { assemblyId, position, reason: reason.trim() })
    if (refused) setError(refused)
    else onClose()
  }
  const now =
    state.state === 'renewed'
      ? 'Renewed on this sheet.'
      : state.state === 'kept'
        ? positionPlace(bench.state, state) === 'reused'
          ? 'Found good and put back: its life runs on.'
          : 'Kept: its life runs on.'
        : state.planned
          ? `To be renewed; its fitting step says when it is. Now: ${placeWords[positionPlace(bench.state, state)]}.`
          : `Not part of this sheet: its life runs on. Now: ${placeWords[positionPlace(bench.state, state)]}.`
  return (
    <BenchDialog
      title={name}
      size="sm"
      onClose={onClose}
      actions={
        <>
          <PhotoButton bench={bench} about={{ stepKey: null, caption: name, assemblyId, position }} />
          {state.state !== 'kept' && (
            <Button variant="outlined" onClick={() => void say('kept')}>
              It was kept
            </Button>
          )}
          {state.state !== 'renewed' && (
            <Button variant="outlined" onClick={() => void say('renewed')}>
              It was renewed
            </Button>
          )}
          <Button variant="contained" onClick={onClose}>
            Close
          </Button>
        </>
      }
    >
      <p>
        {now} {state.reason && <span className="second">{state.reason}</span>}
        {finding && (
          <span className="second block">
            Seen by {finding.byName}: {findingWords(finding.payload.damages, finding.payload.extent)}
          </span>
        )}
      </p>
      <FindingEditor
        key={finding?.id ?? 'none'}
        bench={bench}
        assemblyId={assemblyId}
        position={position}
        own
      />
      <FieldFrame id="position-reason" label="Why it was done otherwise" error={error}>
        <TextInput id="position-reason" value={reason} onChange={(event) => setReason(event.target.value)} />
      </FieldFrame>
    </BenchDialog>
  )
}
