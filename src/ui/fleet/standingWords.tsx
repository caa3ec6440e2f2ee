import { showDay } from '@/core/calendar'
import type { DueStanding } from '@/core/plan'
import { Link } from '../frame/Link'
import { LifeStrip } from '../graphics/LifeStrip'
import { PostMark, type PostMarkState } from '../graphics/PostMark'
import type { Column } from '../table/DataTable'
import { inkOf, leftWords, markOf, stateWords, usedWords } from '../wear'

/** A row that says how it stands: a machine, or a pump. */
export type Standing = { standing: DueStanding | null; retiredOn: string | null }

/** What a list is grouped and narrowed by, worst first; each in the words that stand over its group. */
export const standingNames = {
  overdue: 'Overdue',
  over: 'Past its limit',
  dueSoon: 'Due soon',
  healthy: 'In order',
  none: 'No service clock runs',
} as const
export const standingOrder: readonly string[] = Object.values(standingNames)

export const standingOf = ({ standing }: Pick<Standing, 'standing'>) =>
  standingNames[standing?.state ?? 'none']

/** Everything that a row says of how it stands, for searching. */
export function standingText({ standing }: Standing): string {
  if (!standing) return ''
  const { worst, next, signs } = standing
  return [
    standingNames[standing.state],
    worst?.name,
    worst?.where,
    worst?.pump,
    next && `visit ${next.number} ${next.lead}`,
    ...signs.map((sign) => sign.name),
  ]
    .filter(Boolean)
    .join(' ')
}

const marks: Record<DueStanding['state'], PostMarkState> = { ...markOf, none: 'open' }

/** The columns that answer first: worst service, when, next visit, signs. @param named whether its pump is named */
export function standingColumns<Row extends Standing>(
  today: string,
  named: boolean,
  worse: (a: Row, b: Row) => number,
): Column<Row>[] {
  return [
    {
      name: 'Worst service',
      order: worse,
      width: '25%',
      cell: (row) => <WorstService row={row} named={named} />,
    },
    {
      name: 'When',
      width: '17%',
      by: (row) => row.standing?.worst?.aboutDay ?? null,
      cell: (row) => <When row={row} today={today} />,
    },
    {
      name: 'Next visit',
      width: '11%',
      by: (row) => row.standing?.next?.day ?? null,
      cell: (row) => <NextVisit row={row} today={today} />,
    },
    {
      name: 'Signs',
      width: '12%',
      by: (row) => row.standing?.signs[0]?.by ?? null,
      cell: (row) => <Signs row={row} today={today} />,
    },
  ]
}

function WorstService({ row, named }: { row: Standing; named: boolean }) {
  const worst = row.standing?.worst
  if (row.retiredOn || !worst)
    return <span className="second">{row.retiredOn ? '' : 'no service clock runs'}</span>
  const { past, soon } = row.standing!
  // The one told and those that stand behind it.
  const more = [
    past > 1 ? `${past} past their limit` : '',
    soon > 0 && (past > 0 || soon > 1) ? `${soon} due soon` : '',
  ].filter(Boolean)
  return (
    <span className="mark-line">
      <PostMark state={marks[worst.state]} size={16} silent />
      <span>
        <Link href={`/fleet/pumps/${encodeURIComponent(worst.pump)}`} className="row-link">
          {worst.name}
        </Link>
        <span className="visually-hidden">, {stateWords[worst.state]}</span>
        <span className="second block">
          {[named && worst.pump, worst.where, ...more].filter(Boolean).join(' · ')}
        </span>
      </span>
    </span>
  )
}

function When({ row, today }: { row: Standing; today: string }) {
  const worst = row.standing?.worst
  if (row.retiredOn || !worst) return null
  const { lastResponsibleDay } = worst
  const late = lastResponsibleDay !== null && lastResponsibleDay <= today
  return (
    <>
      <LifeStrip
        share={worst.share}
        early={worst.early}
        state={worst.state}
        width={112}
        says={`${usedWords(worst, worst.unit)}, ${stateWords[worst.state]}`}
      />
      <span className="block">
        <span className={`strong ${inkOf[worst.state]}`}>{leftWords(worst, worst.unit, today)}</span>
        {late && worst.share <= 1 && <span className="second"> · act now</span>}
      </span>
    </>
  )
}

function NextVisit({ row, today }: { row: Standing; today: string }) {
  const { standing } = row
  if (!standing?.next) {
    const wants = standing && (standing.state === 'over' || standing.state === 'overdue') && !row.retiredOn
    return <span className={wants ? 'second oxide' : 'second dash'}>{wants ? 'none booked' : '–'}</span>
  }
  const { next, worst } = standing
  return (
    <>
      <Link
        href={`/plan/${next.id}`}
        className={next.late && !next.onBench ? 'row-link oxide strong' : 'row-link strong'}
      >
        {showDay(next.day, today)}
        {next.onBench ? ', on the bench' : next.late ? ', not done' : ''}
      </Link>
      <span className="second block">{next.lead}</span>
      {worst && worst.state !== 'healthy' && worst.bookedOn === null && (
        <span className="second block brass">not the worst</span>
      )}
    </>
  )
}

function Signs({ row, today }: { row: Standing; today: string }) {
  const signs = row.standing?.signs ?? []
  const [first, ...others] = signs
  if (!first) return <span className="second dash">–</span>
  return (
    <>
      <span className={first.by < today ? 'oxide strong' : 'brass strong'}>{first.name}</span>
      <span className="second block">
        by {showDay(first.by, today)}
        {others.length > 0 && `, ${others.length} more`}
      </span>
    </>
  )
}
