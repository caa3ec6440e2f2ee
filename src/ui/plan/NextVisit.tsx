import { showFarDay } from '@/core/calendar'
import { showAmount } from '@/core/stores'
import { showMinutes } from '@/core/plan'
import type { NextVisitView } from '@/core/today'
import { inSentence } from '@/core/units'

/** What the next visit would do, why then, and what doing it together saves. */
export function NextVisit({ visit, today }: { visit: NextVisitView | null; today: string }) {
  if (!visit) return <p className="second">Nothing comes due that is not booked already.</p>
  const saved = visit.minutesOneByOne - visit.minutes
  const missing = visit.parts.filter((part) => part.missing)
  return (
    <div className="next-visit">
      <p>
        <span className="strong">
          {visit.day <= today ? 'Today' : `About ${showFarDay(visit.day, today)}`}
        </span>
        <span className="second">
          {' '}
          when {visit.because.toLowerCase()} is due, with all that may be done by then
        </span>
      </p>
      <ul>
        {visit.services.map(({ name, where, task }) => (
          <li key={`${task} ${where}`}>{[name, where].filter(Boolean).join(', ')}</li>
        ))}
      </ul>
      <p>
        {showMinutes(visit.minutes)}
        {saved > 0 && <span className="moss"> together, {showMinutes(saved)} less than one by one</span>}
      </p>
      {visit.parts.length > 0 && (
        <p className="second">
          {visit.parts
            .map(({ name, quantity, unit }) => `${showAmount(quantity, unit)} ${inSentence(name)}`)
            .join(', ')}
        </p>
      )}
      {missing.length > 0 && (
        <p className="oxide">Not in the stores: {missing.map((part) => inSentence(part.name)).join(', ')}</p>
      )}
    </div>
  )
}
