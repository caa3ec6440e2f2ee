import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import type { ToolPage } from '@/core/tools'
import { Note } from '../feedback/States'

/** What is wrong with the register as the plan stands: one tool for two visits, none at all, out of calibration. */
export function ToolNotes({ page, today }: { page: ToolPage; today: string }) {
  const out = page.tools.filter((tool) => tool.outOfCalibration && !tool.retiredOn)
  return (
    <>
      {page.clashes.map(({ tool, day, have, visits }) => (
        <Note key={`${tool} ${day}`} tone="oxide" title={`${tool}, ${showDay(day, today)}:`}>
          {visits.length} visits take it ({visits.join(', ')}), and there{' '}
          {have === 1 ? 'is one' : `are ${have}`}. Move one of them.
        </Note>
      ))}
      {out.length > 0 && (
        <Note tone="brass" title="Out of calibration:">
          {out.map((tool) => `${tool.number} since ${showDay(tool.calibrationDue!, today)}`).join(', ')}.
          Steps take another wrench where one covers them.
        </Note>
      )}
      {page.missing.length > 0 && (
        <Note tone="brass" title="Asked for by visits, and in no register:">
          {page.missing.map(({ name, visits }) => `${name} (visit ${visits.join(', ')})`).join(', ')}. Add
          them, or name them under “serves as” of a tool that does.
        </Note>
      )}
      {page.tools.length > 0 && (
        <p className="second">
          Which tools a visit takes is composed from its services; see <Link href="/plan">Plan</Link>.
        </p>
      )}
    </>
  )
}
