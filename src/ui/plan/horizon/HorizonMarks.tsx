'use client'

import { useRef, type PointerEvent } from 'react'
import { addDays, daysBetween, showDay } from '@/core/calendar'
import {
  isPinned,
  runningOf,
  visitNumber,
  type Fleet,
  type HorizonRow,
  type Lens,
  type Proposal,
} from '@/core/plan'
import { Link } from '../../frame/Link'
import { hatch } from '../../graphics/Hatches'
import type { Selected } from './selected'

type Props = {
  fleet: Fleet
  perDay: number
  width: number
  proposals: Proposal[]
  selected: Selected | null
  select: (selected: Selected) => void
  movable: boolean
}

const height = 32
const middle = 16

/** One machine against the weeks: what is due, booked and proposed. */
export function Row({
  row,
  fleet,
  perDay,
  width,
  proposals,
  selected,
  select,
  movable,
}: Props & { row: HorizonRow }) {
  const own = proposals.filter(({ machineId }) => machineId === row.machineId)
  const proposed = own.map(({ day }) => daysBetween(fleet.today, day))
  const isChosen =
    selected !== null &&
    (selected.kind === 'visit'
      ? row.visits.some(({ visits }) => visits.some(({ id }) => id === selected.visitId))
      : selected.machineId === row.machineId)
  return (
    <div className={`horizon-row ${isChosen ? 'chosen' : ''}`}>
      <Link href={`/fleet/${encodeURIComponent(row.number)}`} className="horizon-label">
        <strong>{row.number}</strong> {row.name}
      </Link>
      <div className="horizon-line" style={{ width }}>
        <svg width={width} height={height} aria-hidden="true">
          {row.away.map(({ from, to, kind }) => (
            <g key={from}>
              <rect
                x={from * perDay}
                y="5"
                width={Math.max(4, (to - from + 1) * perDay)}
                height="22"
                fill={kind === 'job' ? 'var(--petrol-tint)' : hatch('edge')}
                stroke="var(--edge)"
              />
              {(to - from + 1) * perDay > 54 && (
                <>
                  <rect
                    x={from * perDay + 6}
                    y="9"
                    width={kind === 'job' ? 22 : 44}
                    height="14"
                    fill="var(--panel)"
                  />
                  <text x={from * perDay + 9} y="20" className="axis">
                    {kind === 'job' ? 'job' : 'laid up'}
                  </text>
                </>
              )}
            </g>
          ))}
          {row.lenses.map((lens) => (
            <LensShape key={lens.due} lens={lens} perDay={perDay} width={width} />
          ))}
          {row.over.length > 0 && (
            <>
              <rect x="0" y="10" width="9" height="12" fill="var(--oxide)" />
              <line x1="1" x2="1" y1="5" y2="27" stroke="var(--ink)" strokeWidth="2" />
            </>
          )}
        </svg>
        {row.over.length > 0 && <OverWords {...{ row, own, fleet, perDay, width, select }} />}
        {row.lenses.map((lens) => {
          const right = Math.min(lens.to, fleet.weeks * 7) * perDay + 4
          const text = `${shortName(lens.services[0]!.name)}${lens.services.length > 1 ? ` +${lens.services.length - 1}` : ''}`
          // Where the next mark leaves no room for the words, the lens alone is what is pressed.
          const room = nextMark(row, proposed, lens, perDay, width) - right
          const fits = room > text.length * 6
          return (
            <button
              key={lens.due}
              type="button"
              className={`horizon-lens ${lens.isSoon ? 'brass' : 'petrol'}`}
              style={{
                left: Math.max(0, lens.from) * perDay,
                width: Math.max(16, right - Math.max(0, lens.from) * perDay),
              }}
              aria-label={`${text}, ${row.number}: ${lens.services.map(({ name }) => name).join(', ')}, due about ${showDay(addDays(fleet.today, lens.due), fleet.today)}`}
              onClick={() =>
                select({
                  kind: 'lens',
                  machineId: row.machineId,
                  keys: lens.services.map(
                    (each) => `${each.assemblyId} ${each.task} ${each.positions.join(' ')}`,
                  ),
                })
              }
            >
              {fits && <span>{text}</span>}
            </button>
          )
        })}
        {row.visits.map((spot) => (
          <VisitBlock key={spot.visits[0]!.id} {...{ row, spot, fleet, perDay, selected, select, movable }} />
        ))}
        {own.map((proposal) => (
          <button
            key={proposal.key}
            type="button"
            className={`horizon-block proposed ${selected?.kind === 'day' && selected.machineId === row.machineId && selected.day === daysBetween(fleet.today, proposal.day) ? 'chosen' : ''}`}
            style={{ left: blockAt(daysBetween(fleet.today, proposal.day), perDay) }}
            aria-label={`Proposed for ${row.number} on ${showDay(proposal.day, fleet.today)}: ${proposal.services.length} services${proposal.winter === '' ? '' : ', made safe for winter'}`}
            onClick={() =>
              select({ kind: 'day', machineId: row.machineId, day: daysBetween(fleet.today, proposal.day) })
            }
          >
            {Math.max(1, proposal.services.length)}
            {proposal.winter !== '' && <Crystal />}
          </button>
        ))}
      </div>
    </div>
  )
}

/** What is past its limit, in words where the row leaves room for them; its mark is pressed where not. */
function OverWords({
  row,
  own,
  fleet,
  perDay,
  width,
  select,
}: Pick<Props, 'fleet' | 'perDay' | 'width' | 'select'> & { row: HorizonRow; own: Proposal[] }) {
  const marks = [
    ...row.lenses.map(({ from, due }) => Math.min(from, due) * perDay),
    ...row.visits.map(({ day }) => day * perDay - 8),
    ...row.away.map(({ from }) => from * perDay),
    ...own.map(({ day }) => daysBetween(fleet.today, day) * perDay - 8),
  ]
  const text = `${shortName(row.over[0]!.name)}${row.over.length > 1 ? ` +${row.over.length - 1}` : ''}`
  const fits = Math.min(width, ...marks) > 20 + text.length * 6
  return (
    <button
      type="button"
      className="horizon-words oxide strong"
      aria-label={`${text}, ${row.number}: ${row.over.map(({ name }) => name).join(', ')}, past the limit`}
      onClick={() => select({ kind: 'over', machineId: row.machineId })}
    >
      {fits && text}
    </button>
  )
}

type BlockProps = Pick<Props, 'fleet' | 'perDay' | 'selected' | 'select' | 'movable'> & {
  row: HorizonRow
  spot: HorizonRow['visits'][number]
}

function VisitBlock({ row, spot, fleet, perDay, selected, select, movable }: BlockProps) {
  const drag = useRef<{ x: number; day: number } | null>(null)
  const [visit] = spot.visits as [Fleet['visits'][number]]
  const mine =
    selected?.kind === 'visit' && spot.visits.some(({ id }) => id === selected.visitId) ? selected : null
  const day = mine ? mine.day : spot.day
  const canMove = movable && spot.visits.length === 1 && !isPinned(visit, fleet)
  const end = fleet.weeks * 7 - 1
  const to = (wanted: number) =>
    select({
      kind: 'visit',
      visitId: visit.id,
      day: Math.min(end, Math.max(0, wanted)),
      leadId: mine?.leadId ?? visit.leadId,
    })
  const take = (event: PointerEvent<HTMLButtonElement>) => {
    to(day)
    if (!canMove) return
    drag.current = { x: event.clientX, day }
    event.currentTarget.setPointerCapture(event.pointerId)
  }
  const approved = spot.visits.every(({ state }) => state === 'approved')
  const held = visit.pinned || approved
  // What runs over several days, or cures, keeps its machine until it is back.
  const kept = daysBetween(visit.day, runningOf(fleet, visit).backOn)
  const isWinter = spot.visits.some(({ winter }) => winter !== '')
  return (
    <button
      type="button"
      className={`horizon-block ${held ? 'held' : ''} ${mine ? 'chosen' : ''} ${canMove ? 'movable' : ''}`}
      style={{ left: blockAt(day, perDay) }}
      aria-label={`Visit ${spot.visits.map(({ number }) => visitNumber(number)).join(' and ')} to ${row.number} on ${showDay(addDays(fleet.today, day), fleet.today)}: ${spot.services} services${approved ? ', approved' : visit.pinned ? ', held in place' : ''}`}
      onPointerDown={take}
      onPointerMove={(event) => {
        if (drag.current) to(drag.current.day + Math.round((event.clientX - drag.current.x) / perDay))
      }}
      onPointerUp={() => (drag.current = null)}
      onPointerCancel={() => (drag.current = null)}
      onClick={() => !mine && to(day)}
      onKeyDown={(event) => {
        const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key]
        if (step === undefined || !canMove) return
        event.preventDefault()
        to(day + step)
      }}
    >
      {Math.max(1, spot.services)}
      {kept > 0 && spot.visits.length === 1 && (
        <span className="horizon-kept" style={{ width: kept * perDay }} aria-hidden="true" />
      )}
      {isWinter && <Crystal />}
    </button>
  )
}

/** A visit that makes its machine safe for winter, or brings it back. */
function Crystal() {
  return (
    <svg width="10" height="10" viewBox="-5 -5 10 10" className="horizon-crystal" aria-hidden="true">
      {[0, 60, 120].map((turn) => (
        <line
          key={turn}
          x1="-4.5"
          x2="4.5"
          transform={`rotate(${turn})`}
          stroke="var(--frost)"
          strokeWidth="1.5"
        />
      ))}
    </svg>
  )
}

function LensShape({ lens, perDay, width }: { lens: Lens; perDay: number; width: number }) {
  const from = lens.from * perDay
  const due = lens.due * perDay
  const to = Math.max(lens.to * perDay, due + 4)
  const left = Math.min(from, due - 4)
  const colour = lens.isSoon ? 'var(--brass)' : 'var(--petrol)'
  const half = 8
  // From where it may be due to where it surely is; fullest on the day it is due as likely as not.
  const path = `M${left} ${middle} Q${(left + due) / 2} ${middle - half} ${due} ${middle - half} Q${(due + to) / 2} ${middle - half} ${to} ${middle} Q${(due + to) / 2} ${middle + half} ${due} ${middle + half} Q${(left + due) / 2} ${middle + half} ${left} ${middle}Z`
  return (
    <g>
      <path d={path} fill="var(--panel)" fillOpacity="0.7" stroke={colour} strokeWidth="1.3" />
      {due <= width && (
        <line x1={due} x2={due} y1={middle - half} y2={middle + half} stroke={colour} strokeWidth="2" />
      )}
    </g>
  )
}

/** Where a block of a day stands: in its middle, and wholly on the chart. */
const blockAt = (day: number, perDay: number) => Math.max(1, day * perDay + perDay / 2 - 9)

/** Where the next lens, visit or the end of the chart begins, right of a lens. */
function nextMark(row: HorizonRow, proposed: number[], lens: Lens, perDay: number, width: number): number {
  const marks = [
    // One that begins under this lens leaves it no room at all.
    ...row.lenses.filter(({ due }) => due > lens.due).map(({ from, due }) => Math.min(from, due)),
    ...[...row.visits.map(({ day }) => day), ...row.away.map(({ from }) => from), ...proposed].filter(
      (day) => day > lens.due,
    ),
  ]
  return Math.min(width, ...marks.map((day) => day * perDay - 8))
}

/** "Renew high-pressure seals" as a label: "high-pressure seals". */
const shortName = (name: string) => {
  const short = name.replace(/^(Renew|Change|Clean|Look at the|Look at|Set|Check|Inspect) (the )?/, '')
  return short.length > 26 ? `${short.slice(0, 25)}…` : short
}
