import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber, type GoesOn } from '@/core/plan'
import { PostMark } from '../graphics/PostMark'
import { Link } from '../frame/Link'

/** Visits that began before and are worked on for another day, one a row. */
export function GoingOn({ visits, today }: { visits: GoesOn[]; today: string }) {
  return (
    <ul className="line-list">
      {visits.map(({ visit, day, minutes, last }) => (
        <li key={`${visit.id} ${day}`}>
          <PostMark state="waiting" silent />
          <div className="grow">
            <Link href={`/plan/${visit.id}`} className="strong">
              {visit.machineNumber ?? visit.services[0]?.pump}
            </Link>{' '}
            {visit.machineName} <span className="second">visit {visitNumber(visit.number)} goes on</span>
            <div className="second">
              since {showDay(visit.day, today)}
              {day < last && `, until ${showDay(last, today)}`}
            </div>
          </div>
          <div className="num nowrap">
            {showMinutes(minutes)}
            <div className="second">{visit.lead}</div>
          </div>
        </li>
      ))}
    </ul>
  )
}
