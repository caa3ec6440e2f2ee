'use client'

import Button from '@mui/material/Button'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import Link from 'next/link'
import { useEffect, useRef, useState } from 'react'
import type { MachineLine } from '@/core/fleet/views'
import { showAge, showDay } from '@/core/calendar'
import { showAmount } from '@/core/parts'
import type { StockLine } from '@/core/parts/views'
import type { Mark } from '@/core/planning'
import type { VisitLine } from '@/core/planning/views'
import type { ClockView, WearView } from '@/core/wear/views'
import type { Option } from '../forms/FieldFrame'
import { ButtonLink } from '../frame/ButtonLink'
import { LifeStrip } from '../graphics/LifeStrip'
import { PostMark } from '../graphics/PostMark'
import { VisitList } from '../plan/VisitList'
import { StockMark } from '../stores/StockMark'
import { inkOf, markOf, stateWords } from '../wear/ClockList'
import { LaterButtons, type MarkActions } from './LaterDialog'
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
  /** What was put off or handed on. */
  marks: Mark[]
  /** Who rows can be handed to; null where whoever looks may not mark any. */
  people: Option[] | null
  actions: MarkActions
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
  const { yards, marks, people, actions, today } = props
  const [yard, setYard] = useState('')
  const [kind, setKind] = useState<Kind>('all')
  const [lead, setLead] = useState('')
  const panel = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const hear = (event: KeyboardEvent) => stepThrough(event, panel.current)
    document.addEventListener('keydown', hear)
    return () => document.removeEventListener('keydown', hear)
  }, [])
  const putOff = (subject: string) => marks.some((mark) => mark.kind === 'snooze' && mark.subject === subject)
  const handedTo = (subject: string) =>
    marks.find((mark) => mark.kind === 'hand' && mark.subject === subject)?.to ?? null
  const mine = (subject: string, visitLead?: string) =>
    lead === '' || visitLead === lead || handedTo(subject) === lead
  /** What stands beside a row's action: who has it, and the ways to put it off or hand it on. */
  const marksOf = (subject: string, label: string, hint?: string) => (
    <>
      {handedTo(subject) && <span className="second">with {handedTo(subject)}</span>}
      {people && (
        <LaterButtons
          subject={subject}
          label={label}
          today={today}
          hint={hint}
          people={people}
          actions={actions}
        />
      )}
    </>
  )
  const here = (yardId: string | null) => yard === '' || yardId === yard
  const leads = [
    ...new Set([
      ...props.visits.map((visit) => visit.lead),
      ...marks.flatMap((mark) => (mark.kind === 'hand' && mark.to ? [mark.to] : [])),
    ]),
  ].sort()
  const due = props.due.filter(
    (item) => here(item.view.yardId) && !putOff(serviceKey(item)) && mine(serviceKey(item), item.visit?.lead),
  )
  const yardName = yards.find((each) => each.id === yard)?.name
  const visits = props.visits.filter(
    (visit) =>
      (yardName === undefined || visit.place.startsWith(yardName)) && (lead === '' || visit.lead === lead),
  )
  const ofMachines = (what: 'reading' | 'doubt', list: MachineLine[]) =>
    list.filter(({ id, yardId }) => here(yardId) && !putOff(`${what}:${id}`) && mine(`${what}:${id}`))
  const owing = ofMachines('reading', props.owing)
  const doubtful = ofMachines('doubt', props.doubtful)
  const parts = props.parts.filter(({ id }) => !putOff(`part:${id}`) && mine(`part:${id}`))
  const later = marks.filter((mark) => mark.kind === 'snooze')
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
                  marks={marksOf(serviceKey(item), serviceLabel(item), actWords(item.clock, today))}
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
                <MachineRow
                  key={machine.id}
                  machine={machine}
                  mark="doubted"
                  action="Settle"
                  marks={marksOf(`doubt:${machine.id}`, `${machine.number} reading in doubt`)}
                >
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
                <MachineRow
                  key={machine.id}
                  machine={machine}
                  mark="notRead"
                  action="Read"
                  marks={marksOf(`reading:${machine.id}`, `${machine.number} reading`)}
                >
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
                  <div className="row-action">
                    <ButtonLink href={`/stores/${encodeURIComponent(part.number)}`}>
                      {part.short > 0 ? 'Count' : 'Look'}
                    </ButtonLink>
                    {marksOf(`part:${part.id}`, `${part.number} ${part.name}`)}
                  </div>
                </li>
              ))}
            </ul>
          </section>
        )}
        {later.length > 0 && (
          <section>
            <header>
              <span className="step-number">6</span>
              <h2>Put off</h2>
              <span className="second">comes back by itself on its day</span>
            </header>
            <ul>
              {later.map((mark) => (
                <li key={mark.id} className="part-row">
                  <div>
                    {mark.label} <span className="second">until {showDay(mark.until!, today)}</span>
                  </div>
                  <div className="second">
                    {mark.reason} · {mark.by}, {showDay(mark.day, today)}
                  </div>
                  {people && (
                    <Button variant="text" onClick={() => void actions.clearMark(mark.id)}>
                      Bring back
                    </Button>
                  )}
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
  const actions = [...panel.querySelectorAll<HTMLElement>('.row-action > a, .line-list a.strong')]
  const at = actions.indexOf(document.activeElement as HTMLElement)
  const next = actions[event.key === 'ArrowDown' ? at + 1 : Math.max(0, at - 1)]
  if (!next) return
  event.preventDefault()
  next.focus()
}

const serviceKey = ({ view, clock }: Due) => `service:${view.assemblyId}:${clock.task}:${clock.positions[0]}`

const serviceLabel = ({ view, clock }: Due) =>
  [`${view.machineNumber ?? view.number} ${clock.name.toLowerCase()}`, clock.where].filter(Boolean).join(', ')

function DueRow({ view, clock, visit, today, marks }: Due & { today: string; marks: React.ReactNode }) {
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
      <div className="row-action">
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
        {marks}
      </div>
    </li>
  )
}

type MachineRowProps = {
  machine: MachineLine
  mark: 'doubted' | 'notRead'
  action: string
  marks: React.ReactNode
  children: React.ReactNode
}

function MachineRow({ machine, mark, action, marks, children }: MachineRowProps) {
  const href = `/fleet/${encodeURIComponent(machine.number)}`
  return (
    <li className="machine-row">
      <PostMark state={mark} silent />
      <div>
        <span className="strong">{machine.number}</span> {machine.name}{' '}
        <span className="second">{machine.yardName}</span>
      </div>
      <div className="second">{children}</div>
      <div className="row-action">
        <ButtonLink href={href}>{action}</ButtonLink>
        {marks}
      </div>
    </li>
  )
}
