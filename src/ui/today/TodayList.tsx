'use client'

import { useEffect, useRef, useState } from 'react'
import { addDays, showDay } from '@/core/calendar'
import { groupBy } from '@/core/lists'
import type { Mark } from '@/core/plan'
import {
  mostAtOnce,
  standsFor,
  type BookedVisit,
  type MorningKind,
  type TodayRow,
  type TodayView,
} from '@/core/today'
import { Button } from '../frame/Button'
import type { Option } from '../forms/FieldFrame'
import { ButtonLink } from '../frame/ButtonLink'
import { unpack, type Packed } from '../frame/packed'
import { Link } from '../frame/Link'
import type { DecideActions } from '../plan'
import { useHydrated } from '../frame/useHydrated'
import { SettleSign } from '../inspection'
import { actWords } from '../wear'
import { LaterButtons, type MarkActions } from './LaterDialog'
import { Line } from './Line'
import { Row } from './rows'
import type { TodayActions } from './actions'
import { TodayFilters, type Narrowed } from './TodayFilters'

type Props = {
  packed: Packed<TodayView>
  yards: { id: string; name: string }[]
  /** Who rows can be handed to; null where whoever looks may not mark any. */
  people: Option[] | null
  maySettle: boolean
  plan: (DecideActions & { currency: string }) | null
  actions: TodayActions
  today: string
}

/** So many lines are drawn by the server: what is in sight. */
const firstDrawn = 16

/** The morning's work as one list, by the last day on which acting is in time. */
export function TodayList({ packed, yards, people, maySettle, plan, actions, today }: Props) {
  const view = unpack(packed)
  const [narrowed, setNarrowed] = useState<Narrowed>({ yard: '', kind: 'all', lead: '' })
  // Two dialogs a row are the dearest part of the page: the server leaves them out, and draws what is in sight.
  const hydrated = useHydrated()
  const panel = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const hear = (event: KeyboardEvent) => stepThrough(event, panel.current)
    document.addEventListener('keydown', hear)
    return () => document.removeEventListener('keydown', hear)
  }, [])
  const rows = view.rows.filter(
    (row) =>
      (narrowed.yard === '' || row.yardId === narrowed.yard || row.yardId === null) &&
      (narrowed.kind === 'all' || row.kind === narrowed.kind) &&
      (narrowed.lead === '' || row.lead === narrowed.lead || row.handedTo === narrowed.lead),
  )
  const leads = [
    ...view.rows.flatMap((row) => row.lead ?? []),
    ...view.marks.flatMap((mark) => (mark.kind === 'hand' && mark.to ? [mark.to] : [])),
  ]
  const marksOf = (row: TodayRow) => (
    <>
      {row.cameBack && (
        <span className="brass">
          {row.cameBack.because === 'new' ? 'Something new came up' : 'Worse than it was'}: put off until{' '}
          {showDay(row.cameBack.until, today)} by {row.cameBack.by}
          {row.cameBack.reason && ` (${row.cameBack.reason})`}
        </span>
      )}
      {row.handedTo && <span className="second">with {row.handedTo}</span>}
      {people && hydrated && (
        <LaterButtons
          label={row.label}
          marked={standsFor(row)}
          today={today}
          hint={row.kind === 'bundle' ? actWords(row.bundle.services[0]!.clock, today) : undefined}
          people={people}
          actions={actions}
        />
      )}
    </>
  )
  const entries = folded(rows, narrowed.kind)
  const drawn = hydrated ? entries : inSight(entries)
  const later = view.marks.filter((mark) => mark.kind === 'snooze')
  return (
    <>
      <TodayFilters
        value={narrowed}
        yards={yards}
        kinds={[...new Set(view.rows.map((row) => row.kind))]}
        leads={[...new Set(leads)].sort()}
        change={setNarrowed}
      />
      <div className="panel today" ref={panel}>
        {rows.length === 0 && <Nothing view={view} narrowed={view.rows.length > 0} today={today} />}
        {bySpan(drawn, today).map(({ span, entries }) => (
          <section key={span}>
            <header>
              <h2>{span}</h2>
              <span className="second">{spanWords(span, today)}</span>
            </header>
            <ul>
              {entries.map((entry) =>
                'rows' in entry ? (
                  <ReadingsLine key={entry.rows[0]!.subject} rows={entry.rows} today={today} />
                ) : (
                  <Row
                    key={entry.subject}
                    row={entry}
                    today={today}
                    actions={maySettle ? actions : null}
                    plan={plan}
                    marks={marksOf(entry)}
                  />
                ),
              )}
            </ul>
          </section>
        ))}
        {view.left > 0 && (
          <p className="today-left second">
            {view.left} more of later days are left out: {mostAtOnce} of a kind in a yard stand here at once.
            The due list has every service.
          </p>
        )}
        {hydrated && view.booked.length > 0 && narrowed.kind === 'all' && (
          <Booked
            booked={view.booked.filter(
              ({ visit }) =>
                (narrowed.yard === '' || visit.yardId === narrowed.yard) &&
                (narrowed.lead === '' || visit.lead === narrowed.lead),
            )}
            today={today}
            settle={maySettle ? actions.settleSign : null}
          />
        )}
        {later.length > 0 && (
          <PutOff marks={later} today={today} bringBack={people ? actions.clearMark : null} />
        )}
      </div>
    </>
  )
}

/** What is due and in hand: the visits it is booked on. */
type BookedProps = {
  booked: BookedVisit[]
  today: string
  settle: TodayActions['settleSign'] | null
}

function Booked({ booked, today, settle }: BookedProps) {
  if (booked.length === 0) return null
  return (
    <section>
      <header>
        <h2>Booked</h2>
        <span className="second">due, and on a visit that fits</span>
      </header>
      <ul>
        {booked.map(({ visit, services }) => (
          <li key={visit.id} className="put-off-row">
            <div>
              {visit.machineNumber ? (
                <Link href={`/fleet/${encodeURIComponent(visit.machineNumber)}`} className="strong">
                  {visit.machineNumber}
                </Link>
              ) : (
                <span className="strong">Shelf</span>
              )}{' '}
              {visit.machineName}
            </div>
            <div className="second">
              {services
                .map(({ clock }) => (clock.where ? `${clock.name}, ${clock.where}` : clock.name))
                .join(' · ')}
              {services.flatMap(({ pump, clock }) =>
                clock.signs.map((sign) => (
                  <span key={sign.id} className="block brass">
                    {clock.name} brought forward: {sign.words}{' '}
                    {settle && (
                      <SettleSign
                        sign={sign}
                        label={`${pump.machineNumber ?? pump.number} ${clock.name.toLowerCase()}`}
                        look="text"
                        settle={settle}
                      />
                    )}
                  </span>
                )),
              )}
            </div>
            {visit.sheet ? (
              <ButtonLink href={`/sheets/${visit.sheet.id}`}>On the bench</ButtonLink>
            ) : (
              <ButtonLink href={`/plan/${visit.id}`}>On {showDay(visit.day, today)}</ButtonLink>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Says so when there is nothing, and what comes next. */
function Nothing({ view, narrowed, today }: { view: TodayView; narrowed: boolean; today: string }) {
  const { next } = view
  return (
    <div className="today-nothing">
      <p className="strong">
        {narrowed ? 'Nothing of this kind, here, today.' : 'Nothing has to be decided today.'}
      </p>
      {!narrowed && next && (
        <p className="second">
          Next: {next.pump.machineNumber ?? next.pump.number}, {next.clock.name.toLowerCase()}
          {next.clock.where && `, ${next.clock.where}`}, {actWords(next.clock, today)}.
        </p>
      )}
    </div>
  )
}

const spans = ['Late', 'Today', 'Within a week', 'Later'] as const
type Span = (typeof spans)[number]

/** The list stays one; thin heads say where a day begins. */
function bySpan(entries: Entry[], today: string): { span: Span; entries: Entry[] }[] {
  const week = addDays(today, 7)
  const spanOf = (entry: Entry): Span => {
    const { actBy } = 'rows' in entry ? entry.rows[0]! : entry
    if (actBy === null || actBy > week) return 'Later'
    return actBy < today ? 'Late' : actBy === today ? 'Today' : 'Within a week'
  }
  return spans
    .map((span) => ({ span, entries: entries.filter((entry) => spanOf(entry) === span) }))
    .filter((group) => group.entries.length > 0)
}

function spanWords(span: Span, today: string): string {
  switch (span) {
    case 'Late':
      return 'the last day on which acting was in time has passed; longest ago first'
    case 'Today':
      return 'the last day on which acting is in time'
    case 'Within a week':
      return `act by ${showDay(addDays(today, 7), today)} at the latest`
    case 'Later':
      return 'inside its tolerance, with time to choose the day'
  }
}

/** As many entries as fill the first screen; a visit has a line for each of its services. */
function inSight(entries: Entry[]): Entry[] {
  let lines = 0
  const end = entries.findIndex((entry) => {
    if (lines >= firstDrawn) return true
    lines += 'rows' in entry || entry.kind !== 'bundle' ? 1 : Math.min(6, entry.bundle.services.length)
    return false
  })
  return end < 0 ? entries : entries.slice(0, end)
}

type ReadingRow = Extract<TodayRow, { kind: 'doubt' | 'reading' }>
type Entry = TodayRow | { rows: ReadingRow[] }

/** Among everything else the meters of a yard are one round, at the place of the one owed longest. */
function folded(rows: TodayRow[], kind: MorningKind | 'all'): Entry[] {
  if (kind !== 'all') return rows
  const readings = rows.filter((row): row is ReadingRow => row.kind === 'reading')
  const seen = new Set<string>()
  return rows.flatMap((row): Entry[] => {
    if (row.kind !== 'reading') return [row]
    const yard = row.yardId ?? ''
    if (seen.has(yard)) return []
    seen.add(yard)
    const own = readings.filter((each) => each.yardId === row.yardId)
    return own.length === 1 ? [row] : [{ rows: own }]
  })
}

function ReadingsLine({ rows, today }: { rows: ReadingRow[]; today: string }) {
  const [first] = rows
  return (
    <Line
      className="readings-row"
      mark="notRead"
      who={
        <>
          <span className="strong">{first!.machine.yardName}</span>
          <span className="second block">{rows.length} machines</span>
        </>
      }
      what={
        <>
          Read {rows.length} meters
          <span className="second block">
            {rows
              .map(({ machine }) =>
                machine.lastReading
                  ? `${machine.number} ${machine.lastReading.ageDays} days`
                  : `${machine.number} never`,
              )
              .join(', ')}
          </span>
        </>
      }
      when={
        <span className="second">
          {first!.machine.owesSince ? `owed since ${showDay(first!.machine.owesSince, today)}` : 'owed'}
        </span>
      }
      action={<ButtonLink href="/hours">Start the round</ButtonLink>}
    />
  )
}

type PutOffProps = { marks: Mark[]; today: string; bringBack: MarkActions['clearMark'] | null }

function PutOff({ marks, today, bringBack }: PutOffProps) {
  return (
    <section>
      <header>
        <h2>Put off</h2>
        <span className="second">comes back by itself on its day</span>
      </header>
      <ul>
        {putOffTogether(marks).map(([mark, ...rest]) => (
          <li key={mark!.id} className="put-off-row">
            <div>
              {[mark!, ...rest].map(({ label }) => label).join(' · ')}{' '}
              <span className="second">until {showDay(mark!.until!, today)}</span>
            </div>
            <div className="second">
              {mark!.reason} · {mark!.by}, {showDay(mark!.day, today)}
            </div>
            {bringBack && (
              <Button
                variant="text"
                onClick={async () => {
                  for (const each of [mark!, ...rest]) await bringBack(each.id)
                }}
              >
                Bring back
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What was put off with one word stands as one. */
function putOffTogether(marks: Mark[]): Mark[][] {
  return [
    ...groupBy(marks, ({ until, reason, by, day }) => JSON.stringify([until, reason, by, day])).values(),
  ]
}

/** Arrow keys go from one row's action to the next; from nowhere in particular to the first. */
function stepThrough(event: KeyboardEvent, panel: HTMLElement | null) {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  const inside = panel?.contains(document.activeElement) || document.activeElement === document.body
  if (!panel || !inside) return
  const actions = [...panel.querySelectorAll<HTMLElement>('.row-action > :is(a, button):first-child')]
  const at = actions.indexOf(document.activeElement as HTMLElement)
  const next = actions[event.key === 'ArrowDown' ? at + 1 : Math.max(0, at - 1)]
  if (!next) return
  event.preventDefault()
  next.focus()
}
