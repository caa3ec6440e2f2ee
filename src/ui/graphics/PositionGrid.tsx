import { showNumber } from '@/core/units'
import type { PositionView, WearView } from '@/core/wear'
import { stateColour } from './LifeStrip'
import { hatch } from './Hatches'

type Props = Pick<WearView, 'grid' | 'columns' | 'unit'> & {
  /** Opens the lives at a position; without it the cells are for looking only. */
  open?: (position: string) => void
}

/**
 * Every wearing position by cylinder, in body order: a gauge that fills towards its limit, the hours
 * beside it. A folded corner and a dashed line tell of a part that came out early, and how far it got.
 */
export function PositionGrid({ grid, columns, unit, open }: Props) {
  return (
    <table className="position-grid">
      <caption className="visually-hidden">{unit === 'h' ? 'Hours' : 'Strokes'} on each part</caption>
      <thead>
        <tr>
          <td />
          {columns.map((column) => (
            <th key={column} scope="col">
              {column}
            </th>
          ))}
        </tr>
      </thead>
      {grid.map((zone) => (
        <tbody key={zone.zone}>
          <tr>
            <th scope="rowgroup" colSpan={columns.length + 1} className="zone">
              {zone.zone}
            </th>
          </tr>
          {zone.rows.map((row) => (
            <tr key={row.key}>
              <th scope="row">
                {row.name}
                {row.limit !== null && (
                  <span className="second">
                    {showNumber(row.limit)}&nbsp;{unit}
                  </span>
                )}
              </th>
              {row.cells.map((cell) => (
                <td key={cell.position}>
                  {open ? (
                    <button type="button" className="cell-button" onClick={() => open(cell.position)}>
                      <Cell cell={cell} unit={unit} />
                      <span className="visually-hidden">, open its lives</span>
                    </button>
                  ) : (
                    <Cell cell={cell} unit={unit} />
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      ))}
    </table>
  )
}

const words = { healthy: 'healthy', dueSoon: 'due soon', over: 'past its limit', overdue: 'overdue' } as const

function Cell({ cell, unit }: { cell: PositionView; unit: string }) {
  const share = cell.limit === null ? 0 : cell.used / cell.limit
  const height = Math.min(share, 1) * 26
  const colour = stateColour[cell.state]
  const used = showNumber(Math.round(cell.used))
  const over = cell.state === 'over' || cell.state === 'overdue'
  const says = `${used} of ${cell.limit === null ? 'no limit' : showNumber(cell.limit)} ${unit}, ${words[cell.state]}${
    cell.was === null ? '' : `; the part before came out early at ${showNumber(Math.round(cell.was))}`
  }`
  const wasAt = cell.was === null || cell.limit === null ? null : 33 - Math.min(cell.was / cell.limit, 1) * 26
  return (
    <svg width="88" height="40" viewBox="0 0 88 40" role="img" aria-label={says}>
      <path
        d={cell.was === null ? 'M.5.5h87v39H.5Z' : 'M.5.5h77l10 10v29H.5Z'}
        fill="var(--panel)"
        stroke="var(--edge)"
      />
      {cell.was !== null && <path d="M77.5.5v10h10Z" fill="var(--petrol-tint)" stroke="var(--edge)" />}
      <rect x="6.5" y="7.5" width="11" height="26" fill="none" stroke="var(--edge)" />
      <rect x="6.5" y="7.5" width="11" height={26 * cell.early} fill={hatch('edge')} />
      <rect x="6" y={33.5 - height} width="12" height={height} fill={colour} />
      {share > 1 && <rect x="6" y="3" width="12" height="4" fill="var(--oxide)" />}
      <line x1="4" x2="20" y1="7.5" y2="7.5" stroke="var(--ink)" strokeWidth="1.5" />
      {wasAt !== null && (
        <line
          x1="4"
          x2="20"
          y1={wasAt}
          y2={wasAt}
          stroke="var(--petrol)"
          strokeWidth="1.5"
          strokeDasharray="3 2"
        />
      )}
      <text x="27" y={cell.was === null ? 25 : 18} className={over ? 'cell-figure over' : 'cell-figure'}>
        {cell.assumed ? `~${used}` : used}
      </text>
      {cell.was !== null && (
        <text x="27" y="33" className="cell-was">
          was {showNumber(Math.round(cell.was))}
        </text>
      )}
    </svg>
  )
}
