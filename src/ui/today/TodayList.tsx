'use client'

import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Link from 'next/link'
import { useEffect, useRef, useState } from 'react'
import type { MachineLine } from '@/core/fleet/views'
import { showAge, showDay } from '@/core/calendar'
import { showAmount } from '@/core/parts'
import type { StockLine } from '@/core/parts/views'
import type { VisitLine } from '@/core/planning/views'
import type { ClockView, WearView } from '@/core/wear/views'
import { ButtonLink } from '../frame/ButtonLink'
import { LifeStrip } from '../graphics/LifeStrip'
import { PostMark } from '../graphics/PostMark'
import { VisitList } from '../plan/VisitList'
import { StockMark } from '../stores/StockMark'
import { inkOf, markOf, stateWords } from '../wear/ClockList'
import { actInk, actWords, bandWords, leftWords, usedWords } from '../wear/words'

type Due = { view: WearView; clock: ClockView; visit: VisitLine | null }
type Props = {
  due: Due[]
  visits: VisitLine[]
  owing: MachineLine[]
  doubtful: MachineLine[]
  /** Parts that want counting or ordering. */
  parts: StockLine[]
  yards: { id: string; name: string }[]
  today: string
}

const kinds = {
  all: 'Everything',
  services: 'Services',
  visits: 'Visits',
  readings: 'Readings',
  parts: 'Parts',
} as const
type Kind = keyof typeof kinds

/** The morning's work in order: decide on services, settle doubts, read meters. */
export function TodayList(props: Props) {
  const { parts, yards, today } = props
  const [yard, setYard] = useState('')
  const [kind, setKind] = useState<Kind>('all')
  const [lead, setLead] = useState('')
  const panel = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const hear = (event: KeyboardEvent) => stepThrough(event, panel.current)
    document.addEventListener('keydown', hear)
    return () => document.removeEventListener('keydown', hear)
  }, [])
  const here = (yardId: string | null) => yard === '' || yardId === yard
  const leads = [...new Set(props.visits.map((visit) => visit.lead))].sort()
  const due = props.due.filter(
    ({ view, visit }) => here(view.yardId) && (lead === '' || visit?.lead === lead),
  )
  const yardName = yards.find((each) => each.id === yard)?.name
  const visits = props.visits.filter(
    (visit) =>
      (yardName === undefined || visit.place.startsWith(yardName)) && (lead === '' || visit.lead === lead),
  )
  const owing = lead === '' ? props.owing.filter((machine) => here(machine.yardId)) : []
  const doubtful = lead === '' ? props.doubtful.filter((machine) => here(machine.yardId)) : []
  const shows = (which: Kind) => kind === 'all' || kind === which
  const actBy = ({ clock }: Due) => clock.lastResponsibleDay ?? '9999'
  const inOrder = [...due].sort(
    (a, b) => (actBy(a) < actBy(b) ? -1 : actBy(a) > actBy(b) ? 1 : 0) || b.clock.share - a.clock.share,
  )
  return (
    <>
      <div className="today-filters">
        {yards.length > 1 && (
          <ToggleButtonGroup
            exclusive
            size="small"
            value={yard}
            aria-label="Yard"
            onChange={(_event, choice: string | null) => choice !== null && setYard(choice)}
          >
            <ToggleButton value="">All yards</ToggleButton>
            {yards.map((each) => (
              <ToggleButton key={each.id} value={each.id}>
                {each.name}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        )}
        <ToggleButtonGroup
          exclusive
          size="small"
          value={kind}
          aria-label="Kind"
          onChange={(_event, choice: Kind | null) => choice !== null && setKind(choice)}
        >
          {(Object.keys(kinds) as Kind[]).map((each) => (
            <ToggleButton key={each} value={each}>
              {kinds[each]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {leads.length > 0 && (
          <select
            className="plain-select"
            aria-label="Technician"
            value={lead}
            onChange={(event) => setLead(event.target.value)}
          >
            <option value="">Any technician</option>
            {leads.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        )}
        <span className="second">
          <kbd>↓</kbd> <kbd>↑</kbd> from row to row, <kbd>Enter</kbd> does it
        </span>
      </div>
      <div className="panel today" ref={panel}>
        {shows('services') && (
          <section>
            <header>
              <span className="step-number">1</span>
              <h2>Decide</h2>
              <span className="second">
                {due.length} services, by the last day on which acting is in time
              </span>
            </header>
            {inOrder.length === 0 && <p className="second pad">Every part is inside its limit.</p>}
            <ul>
              {inOrder.map((item) => (
                <DueRow
                  key={`${item.view.assemblyId} ${item.clock.task} ${item.clock.where}`}
                  {...item}
                  today={today}
                />
              ))}
            </ul>
          </section>
        )}
        {shows('visits') && (
          <section>
            <header>
              <span className="step-number">2</span>
              <h2>Visits today</h2>
              <span className="second">and those whose day has passed</span>
            </header>
            <div className="pad">
              {visits.length === 0 ? (
                <p className="second">Nothing is booked for today.</p>
              ) : (
                <VisitList visits={visits} today={today} />
              )}
            </div>
          </section>
        )}
        {shows('readings') && (
          <section>
            <header>
              <span className="step-number">3</span>
              <h2>Settle readings in doubt</h2>
              <span className="second">hours stand on the last good one until then</span>
            </header>
            {doubtful.length === 0 && <p className="second pad">No reading is in doubt.</p>}
            <ul>
              {doubtful.map((machine) => (
                <MachineRow key={machine.id} machine={machine} mark="doubted" action="Settle">
                  {machine.doubts === 1 ? 'One reading in doubt' : `${machine.doubts} readings in doubt`}
                </MachineRow>
              ))}
            </ul>
          </section>
        )}
        {shows('readings') && (
          <section>
            <header>
              <span className="step-number">4</span>
              <h2>Read the hour meters</h2>
              <span className="second">days above are guesses until these are in</span>
            </header>
            {owing.length === 0 && <p className="second pad">All are freshly read.</p>}
            <ul>
              {owing.map((machine) => (
                <MachineRow key={machine.id} machine={machine} mark="notRead" action="Read">
                  {machine.lastReading
                    ? `last read ${showAge(machine.lastReading.day, today)}`
                    : 'never read'}
                  {machine.weekly !== null &&
                    machine.lastReading &&
                    `, about +${Math.round((machine.weekly / 7) * machine.lastReading.ageDays)}\u00a0h since`}
                </MachineRow>
              ))}
            </ul>
          </section>
        )}
        {shows('parts') && (
          <section>
            <header>
              <span className="step-number">5</span>
              <h2>Order and count</h2>
              <span className="second">what the booked visits need, and bins the book is wrong about</span>
            </header>
            {parts.length === 0 && <p className="second pad">The stores have what is needed.</p>}
            <ul>
              {parts.map((part) => (
                <li key={part.id} className="part-row">
                  <div>
                    <span className="strong">{part.number}</span> {part.name}{' '}
                    <span className="second">{showAmount(part.onHand, part.unit)} on hand</span>
                  </div>
                  <StockMark part={part} />
                  <ButtonLink href={`/stores/${encodeURIComponent(part.number)}`}>
                    {part.short > 0 ? 'Count' : 'Look'}
                  </ButtonLink>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </>
  )
}

/** Arrow keys go from one row's action to the next; from nowhere in particular to the first. */
function stepThrough(event: KeyboardEvent, panel: HTMLElement | null) {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  const inside = panel?.contains(document.activeElement) || document.activeElement === document.body
  if (!panel || !inside) return
  const actions = [...panel.querySelectorAll<HTMLElement>('li > a:last-child, .line-list a.strong')]
  const at = actions.indexOf(document.activeElement as HTMLElement)
  const next = actions[event.key === 'ArrowDown' ? at + 1 : Math.max(0, at - 1)]
  if (!next) return
  event.preventDefault()
  next.focus()
}

function DueRow({ view, clock, visit, today }: Due & { today: string }) {
  return (
    <li className="due-row">
      <PostMark state={markOf[clock.state]} silent />
      <div>
        {view.machineNumber ? (
          <>
            <Link href={`/fleet/${encodeURIComponent(view.machineNumber)}`} className="row-link strong">
              {view.machineNumber}
            </Link>{' '}
            {view.machineName}
          </>
        ) : (
          'On the shelf'
        )}
        <div className="second">
          {view.title}, {view.number}
        </div>
      </div>
      <div>
        {clock.name}
        <div className="second">{clock.where}</div>
      </div>
      <div>
        <LifeStrip
          share={clock.share}
          early={clock.early}
          state={clock.state}
          says={`${usedWords(clock, view.unit)}, ${stateWords[clock.state]}`}
        />
        <div className="second">
          {clock.assumed ? '~' : ''}
          {usedWords(clock, view.unit)}
        </div>
      </div>
      <div>
        <span className={`strong ${inkOf[clock.state]}`}>{leftWords(clock, view.unit, today)}</span>
        <div className="second">
          {stateWords[clock.state]}
          {bandWords(clock, today) && `, limit ${bandWords(clock, today)}`}
        </div>
      </div>
      <div>
        {clock.lead.parts.length === 0 ? (
          <span className="second">parts ready</span>
        ) : (
          <span className="brass strong">
            {clock.lead.parts.length === 1 ? clock.lead.parts[0] : `${clock.lead.parts.length} parts missing`}
          </span>
        )}
        <div className={`second ${actInk(clock, today)}`}>{actWords(clock, today)}</div>
      </div>
      {visit?.sheet ? (
        <ButtonLink href={`/sheets/${visit.sheet.id}`}>On the bench</ButtonLink>
      ) : visit ? (
        <ButtonLink href={`/plan/${visit.id}`}>On {showDay(visit.day, today)}</ButtonLink>
      ) : (
        <ButtonLink
          href={`/fleet/pumps/${encodeURIComponent(view.number)}?book=${encodeURIComponent(clock.task)}`}
        >
          Book
        </ButtonLink>
      )}
    </li>
  )
}

type MachineRowProps = {
  machine: MachineLine
  mark: 'doubted' | 'notRead'
  action: string
  children: React.ReactNode
}

function MachineRow({ machine, mark, action, children }: MachineRowProps) {
  const href = `/fleet/${encodeURIComponent(machine.number)}`
  return (
    <li className="machine-row">
      <PostMark state={mark} silent />
      <div>
        <span className="strong">{machine.number}</span> {machine.name}{' '}
        <span className="second">{machine.yardName}</span>
      </div>
      <div className="second">{children}</div>
      <ButtonLink href={href}>{action}</ButtonLink>
    </li>
  )
}
