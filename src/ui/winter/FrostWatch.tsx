import { showDay } from '@/core/calendar'
import { showMoney } from '@/core/units'
import type { FrostAlarm, WinterNoteInput, WinterRow } from '@/core/winter'
import type { Outcome } from '@/core/problem'
import { Link } from '../frame/Link'
import { PostMark } from '../graphics/PostMark'
import { EveningButton } from './dialogs/WinterNoteDialog'
import { showDegrees, showWork, stateNames } from './words'
import './winter.css'

type Props = {
  rows: WinterRow[]
  today: string
  currency?: string
  /** On a page that is about more: the most urgent few, each with its quickest act. */
  brief?: boolean
  evening: ((input: WinterNoteInput) => Promise<Outcome>) | null
}

const fewest = 6

/** Frozen first, then by the hours that are left; void and evenings after what freezes. */
const rank = ({ state, alarm }: WinterRow) => (state === 'exposed' ? -1 : (alarm?.hoursLeft ?? 1000))

const actsOf = ({ acts, quickest }: FrostAlarm, brief: boolean) =>
  brief ? (quickest ? [quickest] : []) : acts

/** Machines that frost is about to reach, that it has reached, or whose protection is void; each with what to do. */
export function FrostWatch({ rows, today, currency = '', brief = false, evening }: Props) {
  if (rows.length === 0) return null
  const urgent = [...rows].sort((a, b) => rank(a) - rank(b) || b.valueCents - a.valueCents)
  const shown = brief ? urgent.slice(0, fewest) : urgent
  return (
    <section className="panel panel-pad frost-watch" aria-label="Frost">
      <h2>Frost</h2>
      <ul className="line-list">
        {shown.map((row) => (
          <li key={row.machineId}>
            <PostMark state={row.alarm || row.state === 'exposed' ? 'frost' : 'atRisk'} silent />
            <span className="grow">
              <Link href={`/winter/${encodeURIComponent(row.number)}`} className="strong">
                {row.number}
              </Link>{' '}
              {row.name}{' '}
              {row.state === 'exposed' ? (
                <span className="oxide strong">Do not start it: frost met it unprotected.</span>
              ) : row.alarm ? (
                <span className="oxide strong">
                  {showDegrees(row.alarm.minC)} in the night to {showDay(row.alarm.night, today)},{' '}
                  {Math.max(0, Math.round(row.alarm.hoursLeft))} h left.
                </span>
              ) : row.evening?.wanted ? (
                <span>{row.evening.name.replace('Works on: ', '')}, not confirmed.</span>
              ) : (
                <span className="oxide">
                  Protection is {stateNames[row.state]}: {row.says}
                </span>
              )}
              {row.alarm && (
                <span className="second">
                  {' '}
                  {actsOf(row.alarm, brief)
                    .map(
                      (act) =>
                        `${act.name.toLowerCase()} ${showWork(act.minutes)}${currency ? `, ${showMoney(act.cents, currency)}` : ''}${act.leaves ? ` (${act.leaves})` : ''}`,
                    )
                    .join(' · ')}
                </span>
              )}
            </span>
            {row.evening?.wanted && evening ? (
              <EveningButton machineId={row.machineId} number={row.number} today={today} save={evening} />
            ) : row.alarm ? (
              <span className="strong nowrap">
                {row.alarm.quickest ? row.alarm.quickest.name : 'Nothing fits any more'}
              </span>
            ) : (
              <Link href={`/winter/${encodeURIComponent(row.number)}`}>Look</Link>
            )}
          </li>
        ))}
      </ul>
      {shown.length < rows.length && (
        <p className="second">
          <Link href="/winter">{rows.length - shown.length} more under Winter</Link>
        </p>
      )}
    </section>
  )
}
