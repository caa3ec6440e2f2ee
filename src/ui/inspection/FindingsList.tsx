import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import type { FindingLine } from '@/core/inspection'
import { PostMark, type PostMarkState } from '../graphics/PostMark'

const marks: Record<FindingLine['kind'], PostMarkState> = {
  failed: 'overdue',
  found: 'doubted',
  measured: 'done',
  remark: 'done',
  sign: 'doubted',
}
const shownAtFirst = 8

/** What was found over time, newest first. */
export function FindingsList({ findings, today }: { findings: FindingLine[]; today: string }) {
  if (findings.length === 0) return <p className="second">Nothing was found yet, on a sheet or as a sign.</p>
  const rest = findings.slice(shownAtFirst)
  return (
    <>
      <Lines findings={findings.slice(0, shownAtFirst)} today={today} />
      {rest.length > 0 && (
        <details>
          <summary>{rest.length} earlier</summary>
          <Lines findings={rest} today={today} />
        </details>
      )}
    </>
  )
}

function Lines({ findings, today }: { findings: FindingLine[]; today: string }) {
  return (
    <ul className="line-list findings">
      {findings.map((finding, index) => (
        <li key={`${finding.day} ${index}`}>
          <PostMark state={marks[finding.kind]} silent size={16} />
          <div className="grow">
            <span className={finding.kind === 'failed' ? 'oxide strong' : undefined}>{finding.what}</span>
            <div className="second">
              {finding.detail && `${finding.detail} · `}
              {finding.by}
              {finding.sheet && (
                <>
                  {' · '}
                  <Link href={`/sheets/${finding.sheet.id}`}>sheet {finding.sheet.number}</Link>
                </>
              )}
            </div>
          </div>
          <span className="nowrap second">{showDay(finding.day, today)}</span>
        </li>
      ))}
    </ul>
  )
}
