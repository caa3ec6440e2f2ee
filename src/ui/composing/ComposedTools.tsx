import { showDay } from '@/core/calendar'
import type { ComposedSheet, ToolNeed, ComposePage } from '@/core/composing'
import { answersTo } from '@/core/tools'

type Props = { sheet: ComposedSheet; page: ComposePage; today: string }

/** Every tool that a step names, and for the special ones who has taken the company's for when. */
export function ComposedTools({ sheet, page, today }: Props) {
  return (
    <ul className="line-list" aria-label="Tools">
      {sheet.tools.map((tool) => (
        <li key={tool.name}>
          <span className="grow">
            {tool.name}
            {tool.special && <Register tool={tool} page={page} today={today} />}
          </span>
          <span className="second">
            {[
              tool.temporary && 'counted back',
              tool.removalOnly && 'removal only',
              tool.contingency && 'in case',
              tool.torqueWrench && 'see torque',
            ]
              .filter(Boolean)
              .join(', ')}
          </span>
        </li>
      ))}
    </ul>
  )
}

function Register({ tool, page, today }: { tool: ToolNeed; page: ComposePage; today: string }) {
  const own = page.specialTools.find((each) => answersTo(each, tool.name))
  if (!own) return <div className="brass">not in the register of tools</div>
  const taken = own.taken
    .slice(0, 2)
    .map(({ number, day, yard }) => `visit ${number} on ${showDay(day, today)}, ${yard}`)
  return (
    <div className="second">
      {[own.number, own.place].filter(Boolean).join(', ')}
      {own.count > 1 && `, ${own.count} of it`}
      {taken.length > 0 && <span className="brass"> · taken by {taken.join('; ')}</span>}
    </div>
  )
}
