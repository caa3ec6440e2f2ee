import { Link } from '../../frame/Link'
import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber } from '@/core/plan'
import type { SheetLine } from '@/core/sheets'
import { PostMark } from '../../graphics/PostMark'

/** Sheets, one a row: which, where, what, how far or by whom signed. */
export function SheetList({ sheets, today }: { sheets: SheetLine[]; today: string }) {
  return (
    <ul className="line-list">
      {sheets.map((sheet) => (
        <li key={sheet.id} className={sheet.state === 'abandoned' ? 'receding' : undefined}>
          <SheetWords sheet={sheet} today={today} />
        </li>
      ))}
    </ul>
  )
}

/** What a row of sheets tells of one. */
export function SheetWords({ sheet, today }: { sheet: SheetLine; today: string }) {
  return (
    <>
      <PostMark
        state={sheet.state === 'signed' ? 'done' : sheet.state === 'open' ? 'waiting' : 'open'}
        silent
      />
      <div className="grow">
        <Link href={`/sheets/${sheet.id}`} className="strong">
          Sheet {visitNumber(sheet.number)}
        </Link>{' '}
        <span className="strong">{sheet.machineNumber ?? sheet.pumps.join(', ')}</span>{' '}
        {sheet.machineName ?? 'on the shelf'}
        {sheet.trigger === 'breakdown' && <span className="oxide strong"> breakdown</span>}
        <div className="second">
          {sheet.services.map(({ name, where }) => (where ? `${name}, ${where}` : name)).join(' · ')}
          {sheet.trouble && ` · ${sheet.trouble}`}
        </div>
        {sheet.extra.length > 0 && (
          <div className="brass">
            Added on the way:{' '}
            {sheet.extra
              .map(
                ({ services, minutes }) =>
                  `${services} (${minutes >= 0 ? '+' : '−'}${showMinutes(Math.abs(minutes))})`,
              )
              .join('; ')}
          </div>
        )}
        {sheet.left && (
          <div className="brass">
            {sheet.left.toName
              ? `${sheet.left.byName} handed it to ${sheet.left.toName}`
              : `${sheet.left.byName} left it for later`}
            {sheet.left.words && `: ${sheet.left.words}`}
          </div>
        )}
      </div>
      <div className="num nowrap">
        <span className="strong">{showDay(sheet.signedOn ?? sheet.startedOn, today)}</span>
        <div className="second">
          {sheet.state === 'signed'
            ? `signed, ${sheet.signedBy}`
            : sheet.state === 'open'
              ? `${sheet.ticked} of ${sheet.steps} steps, ${sheet.startedBy}`
              : 'given up'}
        </div>
      </div>
    </>
  )
}
