import { Link } from '../frame/Link'
import { showDay, showFarDay } from '@/core/calendar'
import type { EarlyCheckInput, EarlyCheckView } from '@/core/inspection'
import type { Outcome } from '@/core/problem'
import { showNumber } from '@/core/units'
import { PostMark } from '../graphics/PostMark'
import { EarlyCheckDialog } from './EarlyCheckDialog'
import { EarlyStrip } from './EarlyStrip'

type Props = {
  checks: EarlyCheckView[]
  today: string
  record: ((input: EarlyCheckInput) => Promise<Outcome>) | null
}

const resultMarks = { good: 'done', found: 'atRisk', dropped: 'open' } as const
const resultWords = { good: 'All well', found: 'Something was found', dropped: 'Not done' } as const

/** The look after the first hours of each service: the one still to come, and what the last ones showed. */
export function EarlyChecks({ checks, today, record }: Props) {
  const done = checks.filter((check) => check.result !== null)
  return (
    <>
      {checks
        .filter((check) => check.result === null)
        .map((check) => (
          <div key={check.id} className="early-watch">
            <div>
              <span className="strong">Early check</span>{' '}
              <span className="second">
                after sheet <Link href={`/sheets/${check.sheet.id}`}>{check.sheet.number}</Link>
              </span>
              <span className="second block">
                <EarlyStrip worked={check.worked} afterHours={check.afterHours} unit={check.unit} />{' '}
                {showNumber(Math.round(check.worked))} of {showNumber(check.afterHours)} {check.unit}
                {check.aboutDay &&
                  `, ${check.aboutDay < today ? 'due since' : 'about'} ${showFarDay(check.aboutDay, today)}`}
              </span>
            </div>
            {record && <EarlyCheckDialog check={check} label="Record the check" record={record} />}
          </div>
        ))}
      {done.length > 0 && (
        <details>
          <summary>{done.length === 1 ? 'One early check done' : `${done.length} early checks done`}</summary>
          <ul className="line-list">
            {done.slice(0, 12).map((check) => (
              <li key={check.id}>
                <PostMark state={resultMarks[check.result!.kind]} silent size={16} />
                <div className="grow">
                  {resultWords[check.result!.kind]}
                  {check.result!.words && `: ${check.result!.words}`}
                  <div className="second">
                    sheet <Link href={`/sheets/${check.sheet.id}`}>{check.sheet.number}</Link> of{' '}
                    {showDay(check.workedOn, today)} · {check.result!.by}, {showDay(check.result!.day, today)}
                  </div>
                </div>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}
