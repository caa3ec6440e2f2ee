import { showMinutes } from '@/core/plan'
import type { ComposedSheet, Saving } from '@/core/composing'
import type { PumpModel } from '@/core/models'

type Props = { sheet: ComposedSheet; saving: Saving; model: PumpModel }

const row = 22
const label = 190

/**
 * The strip-down comb: each opening once. What several tasks share is solid in the row of the opening, and
 * dashed again for every further task that would have paid for it by itself.
 */
export function StripComb({ sheet, saving, model }: Props) {
  if (saving.shared.length === 0) return null
  const nodes = groupByName(saving, model)
  const width = 760
  const most = Math.max(...nodes.map(({ minutes, tasks }) => minutes * tasks))
  const scale = (width - label - 150) / most
  const total = nodes.reduce((sum, { minutes, tasks }) => sum + minutes * (tasks - 1), 0)
  return (
    <figure>
      <svg
        className="comb"
        viewBox={`0 0 ${width} ${nodes.length * row + 4}`}
        role="img"
        aria-label={`Openings that are shared: ${nodes
          .map(({ name, minutes, tasks }) => `${name}, ${minutes} minutes once for ${tasks} services`)
          .join('; ')}. Sharing them saves ${total} of the ${Math.round(saving.saved)} minutes saved.`}
      >
        {nodes.map(({ name, minutes, tasks }, index) => (
          <g key={name} transform={`translate(0 ${index * row})`}>
            <text x="0" y="16">
              {name}
            </text>
            <rect x={label} y="5" width={minutes * scale} height="14" className="comb-shared" />
            {Array.from({ length: tasks - 1 }, (_, again) => (
              <rect
                key={again}
                x={label + minutes * scale * (again + 1) + 2}
                y="5.5"
                width={Math.max(2, minutes * scale - 3)}
                height="13"
                className="comb-again"
              />
            ))}
            <text x={label + minutes * scale * tasks + 10} y="16" className="comb-note">
              {showMinutes(minutes)} once, for {tasks}
            </text>
          </g>
        ))}
      </svg>
      <ul className="comb-words second" aria-hidden="true">
        {nodes.map(({ name, minutes, tasks }) => (
          <li key={`${name} ${tasks}`}>
            {name}: {showMinutes(minutes)} once, for {tasks}
          </li>
        ))}
      </ul>
      <figcaption className="second">
        <span className="comb-key">
          Solid: opened once. Dashed: what each further service would have opened again.
        </span>{' '}
        {sheet.opened.length} openings in all.
      </figcaption>
    </figure>
  )
}

/** Cylinders of one opening stand in one row. */
function groupByName({ shared }: Saving, model: PumpModel) {
  const rows = new Map<string, { name: string; minutes: number; tasks: number }>()
  for (const { name, minutes, tasks } of shared) {
    const known = rows.get(`${name} ${tasks}`) ?? { name, minutes: 0, tasks }
    known.minutes += minutes
    rows.set(`${name} ${tasks}`, known)
  }
  return [...rows.values()].filter(({ minutes }) => minutes > 0).slice(0, model.access.length)
}
