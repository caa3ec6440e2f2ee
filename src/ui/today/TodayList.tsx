import Link from 'next/link'
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
  today: string
}

/** The morning's work in order: decide on services, settle doubts, read meters. */
export function TodayList({ due, visits, owing, doubtful, parts, today }: Props) {
  const actBy = ({ clock }: Due) => clock.lastResponsibleDay ?? '9999'
  const inOrder = [...due].sort(
    (a, b) => (actBy(a) < actBy(b) ? -1 : actBy(a) > actBy(b) ? 1 : 0) || b.clock.share - a.clock.share,
  )
  return (
    <div className="panel today">
      <section>
        <header>
          <span className="step-number">1</span>
          <h2>Decide</h2>
          <span className="second">{due.length} services, by the last day on which acting is in time</span>
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
              {machine.lastReading ? `last read ${showAge(machine.lastReading.day, today)}` : 'never read'}
              {machine.weekly !== null &&
                machine.lastReading &&
                `, about +${Math.round((machine.weekly / 7) * machine.lastReading.ageDays)}\u00a0h since`}
            </MachineRow>
          ))}
        </ul>
      </section>
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
    </div>
  )
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
        <ButtonLink href={`/fleet/pumps/${encodeURIComponent(view.number)}`}>Book</ButtonLink>
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
