import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import type { AssemblyView, MachinePage } from '@/core/fleet'
import { showNumber } from '@/core/units'
import { countedWords, usageWords } from './usageWords'

type Props = {
  fitted: AssemblyView[]
  past: MachinePage['past']
  today: string
  action: (assembly: AssemblyView) => React.ReactNode
}

/** What is on the machine now, and what was on it before. */
export function FittedList({ fitted, past, today, action }: Props) {
  return (
    <>
      {fitted.length === 0 && (
        <p className="second">Nothing is fitted. Fit a pump from the shelf on the pump’s own page.</p>
      )}
      <ul className="line-list">
        {fitted.map((assembly) => (
          <li key={assembly.id}>
            <div className="grow">
              <Link href={`/fleet/pumps/${encodeURIComponent(assembly.number)}`} className="strong">
                {assembly.number}
              </Link>{' '}
              {assembly.title} <span className="second">{assembly.place.slot}</span>
              <div className="second">
                {assembly.serial && `serial ${assembly.serial} · `}on since{' '}
                {showDay(assembly.place.day, today)} · {countedWords(assembly)}
              </div>
            </div>
            <span className="strong nowrap">{usageWords(assembly)}</span>
            {action(assembly)}
          </li>
        ))}
      </ul>
      {past.map((stay) => (
        <p key={stay.id} className="second past-stay">
          {showDay(stay.day, today)} to {stay.untilDay && showDay(stay.untilDay, today)}:{' '}
          <Link href={`/fleet/pumps/${encodeURIComponent(stay.number)}`}>{stay.number}</Link> {stay.title},{' '}
          {showNumber(Math.round(stay.used))}&nbsp;h here
        </p>
      ))}
    </>
  )
}
