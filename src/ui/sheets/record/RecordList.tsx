import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber, visitStates } from '@/core/plan'
import type { WorkDone } from '@/core/sheets'
import { Link } from '../../frame/Link'
import { PostMark, type PostMarkState } from '../../graphics/PostMark'
import { visitMarks } from '../../plan'

/** How many lines of what is over are told at once. */
const few = 5

/** What is still to come on one machine or pump, the next first: when, what, who, and how far it is. */
export function Coming({ lines, today }: { lines: WorkDone[]; today: string }) {
  if (lines.length === 0) return <p className="second">Nothing is booked.</p>
  return (
    <ul className="line-list">
      {lines.map((line) => (
        <Line key={keyOf(line)} line={line} today={today} />
      ))}
    </ul>
  )
}

/** What was done, the newest first: a visit and its sheet are one line; what is older is folded. */
export function ServiceRecord({ lines, today }: { lines: WorkDone[]; today: string }) {
  if (lines.length === 0) return <p className="second">Nothing was worked on it yet.</p>
  const [first, rest] = [lines.slice(0, few), lines.slice(few)]
  return (
    <>
      <ul className="line-list">
        {first.map((line) => (
          <Line key={keyOf(line)} line={line} today={today} />
        ))}
      </ul>
      {rest.length > 0 && (
        <details>
          <summary>{rest.length} earlier</summary>
          <ul className="line-list">
            {rest.map((line) => (
              <Line key={keyOf(line)} line={line} today={today} />
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

const keyOf = ({ sheet, visit }: WorkDone) => sheet?.id ?? visit!.id

function Line({ line, today }: { line: WorkDone; today: string }) {
  const { sheet, visit, day } = line
  const services = sheet?.services ?? visit!.services
  return (
    <li className={isVoid(line) ? 'receding' : undefined}>
      <PostMark state={markOf(line)} silent />
      <div className="grow">
        <span className="strong">{showDay(day, today)}</span>{' '}
        {sheet && <Link href={`/sheets/${sheet.id}`}>Sheet {visitNumber(sheet.number)}</Link>}
        {sheet && visit && <span className="second"> of </span>}
        {visit && (
          <Link href={`/plan/${visit.id}`}>
            {sheet ? 'visit' : 'Visit'} {visitNumber(visit.number)}
          </Link>
        )}
        {sheet?.trigger === 'breakdown' && <span className="oxide strong"> breakdown</span>}
        <div className="second">
          {services.map(({ name, where }) => (where ? `${name}, ${where}` : name)).join(' · ')}
          {sheet?.trouble && ` · ${sheet.trouble}`}
        </div>
        {sheet?.left && (
          <div className="brass">
            {sheet.left.toName
              ? `${sheet.left.byName} handed it to ${sheet.left.toName}`
              : `${sheet.left.byName} left it for later`}
          </div>
        )}
      </div>
      <div className="num second">{stateOf(line)}</div>
    </li>
  )
}

const isVoid = ({ sheet, visit }: WorkDone) =>
  sheet ? sheet.state === 'abandoned' : visit!.state === 'cancelled' || visit!.state === 'missed'

function markOf({ sheet, visit }: WorkDone): PostMarkState {
  if (sheet) return sheet.state === 'signed' ? 'done' : sheet.state === 'open' ? 'waiting' : 'open'
  return visit!.late ? 'atRisk' : visitMarks[visit!.state]
}

function stateOf({ sheet, visit }: WorkDone): React.ReactNode {
  if (sheet?.state === 'signed') return `signed, ${sheet.signedBy}`
  if (sheet?.state === 'open') return `${sheet.ticked} of ${sheet.steps} steps, ${sheet.startedBy}`
  if (sheet) return 'given up'
  const when = [visit!.startTime, visit!.lead, showMinutes(visit!.minutes)].filter(Boolean).join(', ')
  if (visit!.late) return <span className="brass strong">day has passed, {visit!.lead}</span>
  return visit!.state === 'booked' || visit!.state === 'approved'
    ? when
    : visitStates[visit!.state].toLowerCase()
}
