'use client'

import { useRef, type PointerEvent } from 'react'
import { addDays, dayNumber, daysBetween, showDay } from '@/core/calendar'
import {
  isPinned,
  visitNumber,
  type Fleet,
  type HorizonRow,
  type HorizonYard,
  type Lens,
  type Proposal,
} from '@/core/plan'
import { Link } from '../../frame/Link'
import { hatch } from '../../graphics/Hatches'

export type Selected =
  | { kind: 'visit'; visitId: string; day: number; leadId: string }
  | { kind: 'lens'; machineId: string; keys: string[] }
  | { kind: 'over'; machineId: string }
  | { kind: 'day'; machineId: string; day: number }

/** Days by which frost has come in a yard, with these chances. */
export type YardFrostDays = { yardId: string; odds: { chance: number; day: string }[] }

type Props = {
  fleet: Fleet
  yards: HorizonYard[]
  frost: YardFrostDays[]
  load: { free: number; booked: number }[]
  perDay: number
  width: number
  proposals: Proposal[]
  selected: Selected | null
  select: (selected: Selected) => void
  movable: boolean
}

const height = 32
const middle = 16

/** The drawn horizon: a band for each yard, a row for each machine, and the crew's weeks beneath. */
export function HorizonChart(props: Props) {
  const { fleet, yards, frost, load, perDay, width } = props
  const weekWidth = perDay * 7
  const monday = (8 - (((dayNumber(fleet.today) + 3) % 7) + 1)) % 7
  const marks = Array.from({ length: fleet.weeks }, (_, week) => monday + week * 7)
  const every = Math.max(1, Math.ceil(52 / weekWidth))
  const heaviest = Math.max(1, ...load.map(({ free, booked }) => Math.max(free, booked)))
  return (
    <div
      className="horizon-chart"
      style={{ ['--weeks-at' as string]: `${monday * perDay}px`, ['--week' as string]: `${weekWidth}px` }}
    >
      <div className="horizon-head">
        <span />
        <div className="horizon-axis" style={{ width }}>
          {marks
            .filter((day, at) => at % every === 0 && day < fleet.weeks * 7 - 3)
            .map((day) => (
              <span key={day} style={{ left: day * perDay }}>
                {showDay(addDays(fleet.today, day), fleet.today).replace(/ \d{4}$/, '')}
              </span>
            ))}
        </div>
      </div>
      {yards.map((yard) => {
        const odds = (frost.find(({ yardId }) => yardId === yard.id)?.odds ?? [])
          .map(({ chance, day }) => ({ chance, at: daysBetween(fleet.today, day) }))
          .filter(({ at }) => at < fleet.weeks * 7)
        return (
          <section key={yard.id} className="horizon-yard" aria-label={yard.name}>
            <div className="horizon-band">
              <strong>{yard.name}</strong>
              <div style={{ width }}>
                {odds
                  .filter(
                    ({ chance, at }, index) =>
                      chance >= 0.5 &&
                      at >= 0 &&
                      !odds.some((later, place) => place > index && (later.at - at) * perDay < 96),
                  )
                  .map(({ chance, at }) => (
                    <span key={chance} style={{ left: at * perDay }}>
                      {chance >= 0.9 ? 'frost 90 % likely' : 'even odds'}{' '}
                      {showDay(addDays(fleet.today, at), fleet.today)}
                    </span>
                  ))}
              </div>
            </div>
            <div className="horizon-rows">
              {odds.map(({ chance, at }) => (
                <span
                  key={chance}
                  className={`horizon-frost frost-${Math.round(chance * 10)}`}
                  style={{ left: 160 + Math.max(0, at) * perDay, width: width - Math.max(0, at) * perDay }}
                />
              ))}
              {yard.rows.map((row) => (
                <Row key={row.machineId} row={row} {...props} />
              ))}
            </div>
          </section>
        )
      })}
      <div className="horizon-load">
        <div>
          <strong>Crew load</strong>
          <span className="second">booked of free hours, {fleet.crew.length} technicians</span>
        </div>
        <div className="horizon-weeks" style={{ width }}>
          {load.map(({ free, booked }, week) => {
            const tall = (minutes: number) => (44 * minutes) / heaviest
            const isOver = booked > free
            return (
              <div
                key={week}
                style={{ width: weekWidth }}
                role="img"
                aria-label={`Week of ${showDay(addDays(fleet.today, week * 7), fleet.today)}: ${Math.round(booked / 60)} of ${Math.round(free / 60)} hours`}
              >
                <svg width={Math.max(3, weekWidth - 6)} height="48" aria-hidden="true">
                  <rect
                    x="0.5"
                    y={47 - tall(free)}
                    width={Math.max(2, weekWidth - 7)}
                    height={tall(free)}
                    fill="var(--panel)"
                    stroke="var(--edge)"
                  />
                  <rect
                    x="0.5"
                    y={47 - tall(booked)}
                    width={Math.max(2, weekWidth - 7)}
                    height={tall(booked)}
                    fill={isOver ? 'var(--oxide)' : 'var(--petrol)'}
                  />
                  <line
                    x1="0"
                    x2={Math.max(3, weekWidth - 6)}
                    y1={47 - tall(free)}
                    y2={47 - tall(free)}
                    stroke="var(--ink)"
                    strokeWidth="2"
                  />
                </svg>
                {weekWidth >= 40 && (
                  <span className={isOver ? 'oxide strong' : 'second'}>
                    {Math.round(booked / 60)}/{Math.round(free / 60)}
                  </span>
                )}
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}

function Row({
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
          {row.away.map(({ from, to }) => (
            <g key={from}>
              <rect
                x={from * perDay}
                y="5"
                width={Math.max(4, (to - from + 1) * perDay)}
                height="22"
                fill={hatch('edge')}
                stroke="var(--edge)"
              />
              {(to - from + 1) * perDay > 44 && (
                <>
                  <rect x={from * perDay + 6} y="9" width="34" height="14" fill="var(--panel)" />
                  <text x={from * perDay + 9} y="20" className="axis">
                    away
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
            aria-label={`Proposed for ${row.number} on ${showDay(proposal.day, fleet.today)}: ${proposal.services.length} services`}
            onClick={() =>
              select({ kind: 'day', machineId: row.machineId, day: daysBetween(fleet.today, proposal.day) })
            }
          >
            {proposal.services.length}
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
  const isWinter = spot.visits.some(({ winter }) => winter !== '')
  return (
    <button
      type="button"
      className={`horizon-block ${mine ? 'chosen' : ''} ${canMove ? 'movable' : ''}`}
      style={{ left: blockAt(day, perDay) }}
      aria-label={`Visit ${spot.visits.map(({ number }) => visitNumber(number)).join(' and ')} to ${row.number} on ${showDay(addDays(fleet.today, day), fleet.today)}: ${spot.services} services`}
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
      {isWinter && (
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
      )}
    </button>
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
    ...row.lenses.map(({ from, due }) => Math.min(from, due)),
    ...row.visits.map(({ day }) => day),
    ...row.away.map(({ from }) => from),
    ...proposed,
  ].filter((day) => day > lens.due)
  return Math.min(width, ...marks.map((day) => day * perDay - 8))
}

/** "Renew high-pressure seals" as a label: "high-pressure seals". */
const shortName = (name: string) => {
  const short = name.replace(/^(Renew|Change|Clean|Look at the|Look at|Set|Check|Inspect) (the )?/, '')
  return short.length > 26 ? `${short.slice(0, 25)}…` : short
}
