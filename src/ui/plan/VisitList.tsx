import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber, visitStates, type VisitLine } from '@/core/plan'
import { PostMark, type PostMarkState } from '../graphics/PostMark'

export const visitMarks: Record<VisitLine['state'], PostMarkState> = {
  proposed: 'proposed',
  booked: 'planned',
  approved: 'planned',
  inWork: 'waiting',
  waiting: 'waiting',
  done: 'done',
  missed: 'atRisk',
  cancelled: 'open',
}

/** Visits, one a row: when, where, what, who. */
export function VisitList({
  visits,
  today,
  withDay = true,
}: {
  visits: VisitLine[]
  today: string
  withDay?: boolean
}) {
  return (
    <ul className="line-list">
      {visits.map((visit) => (
        <li key={visit.id} className={visit.state === 'cancelled' ? 'receding' : undefined}>
          <PostMark state={visit.late ? 'atRisk' : visitMarks[visit.state]} silent />
          <div className="grow">
            <Link href={`/plan/${visit.id}`} className="strong">
              {visit.machineNumber ?? visit.services[0]?.pump}
            </Link>{' '}
            {visit.machineName ?? 'on the shelf'}{' '}
            <span className="second">visit {visitNumber(visit.number)}</span>
            {visit.sheet && (
              <>
                {' '}
                <Link href={`/sheets/${visit.sheet.id}`}>sheet {visitNumber(visit.sheet.number)}</Link>
              </>
            )}
            <div className="second">{serviceWords(visit)}</div>
          </div>
          <div className="num nowrap">
            {withDay && <span className="strong">{showDay(visit.day, today)} </span>}
            {visit.startTime}
            <div className="second">
              {visit.lead}, {showMinutes(visit.minutes)}
            </div>
          </div>
          <span className={visit.late ? 'brass strong' : 'second'}>
            {visit.late ? 'day has passed' : visitStates[visit.state].toLowerCase()}
          </span>
        </li>
      ))}
    </ul>
  )
}

export function serviceWords(visit: VisitLine): string {
  return visit.services.map(({ name, where }) => (where ? `${name}, ${where}` : name)).join(' · ')
}
