import { showDay } from '@/core/calendar'
import { judgeReading } from '@/core/hours'
import { historyOf, type RoundRow } from '@/core/round'
import { showNumber } from '@/core/units'
import { Part } from '../frame/Page'
import { hatch } from '../graphics/Hatches'
import type { Round } from './useRound'

type Props = { row: RoundRow | undefined; round: Round; today: string }

const keys: [string, string][] = [
  ['Enter', 'save, go to the next machine'],
  ['Tab', 'leave it as not read'],
  ['D', 'take the value that would fit'],
  ['K', 'keep an unusual reading, say why'],
  ['M', 'the meter was replaced'],
  ['S', 'skip it, say why'],
  ['Esc', 'clear and retype'],
  ['Ctrl Z', 'take the last one back'],
]

/** Beside the round: how the machine at hand is used, the keys, and the due days that moved. */
export function RoundSide({ row, round, today }: Props) {
  return (
    <aside className="round-side stack" aria-label="About this round">
      {row && <Usage row={row} today={today} instant={round.instant()} />}
      <Part title="What this round moves" aside="days as likely as not">
        {round.moves.length === 0 && <p className="second">No due day has moved yet.</p>}
        <ul className="line-list">
          {round.moves.map((move, index) => (
            <li key={`${move.readingId} ${index}`}>
              <span className="grow">
                <span className="strong">{move.machine}</span> {move.service.toLowerCase()}
                {move.where && <span className="second">, {move.where}</span>}
              </span>
              <span className={move.passed ? 'oxide strong' : undefined}>
                {move.passed
                  ? 'past its limit'
                  : `${move.before ? showDay(move.before, today) : 'not in use'} → ${move.after ? showDay(move.after, today) : 'not in use'}`}
              </span>
            </li>
          ))}
        </ul>
      </Part>
      <Part title="Keys">
        <dl className="key-list">
          {keys.map(([key, words]) => (
            <div key={key}>
              <dt>
                <kbd>{key}</kbd>
              </dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
      </Part>
    </aside>
  )
}

function Usage({ row, today, instant }: { row: RoundRow; today: string; instant: string }) {
  const { band } = judgeReading(historyOf(row), { at: instant, value: row.last?.value ?? 0 })
  const show = (value: number) => `${showNumber(value, row.face.decimals)}\u00a0${row.face.unit}`
  const next = band && row.last ? { low: band.low - row.last.value, high: band.high - row.last.value } : null
  const known = row.weeks.filter((week) => week !== null)
  const top = Math.max(1, ...known, next?.high ?? 0)
  const height = (value: number) => (value / top) * 56
  return (
    <Part
      title={`${row.number} ${row.name}`}
      aside={row.face.unit === 'h' ? 'hours a week' : 'strokes a week'}
    >
      <svg
        width="100%"
        viewBox="0 0 256 84"
        role="img"
        aria-label={`Use of the last weeks: ${known.map((week) => Math.round(week)).join(', ')}`}
      >
        {row.weeks.map((week, index) =>
          week === null ? null : (
            <g key={index}>
              <rect
                x={index * 28}
                y={60 - height(week)}
                width="20"
                height={Math.max(height(week), 1)}
                fill="var(--petrol)"
              />
              <text x={index * 28 + 10} y="76" textAnchor="middle" className="axis">
                {Math.round(week)}
              </text>
            </g>
          ),
        )}
        {next && (
          <rect
            x="228"
            y={60 - height(next.high)}
            width="24"
            height={Math.max(height(next.high) - height(Math.max(0, next.low)), 2)}
            fill={hatch('edge')}
            stroke="var(--edge)"
          />
        )}
        <line x1="0" x2="256" y1="60" y2="60" stroke="var(--edge)" />
      </svg>
      {row.last ? (
        <p>
          Last read {showDay(row.last.day, today)}
          {row.last.readBy && ` by ${row.last.readBy}`}.
          {band && (
            <>
              {' '}
              It should show{' '}
              <span className="strong">
                {show(band.low)} to {show(band.high)}
              </span>{' '}
              now.
            </>
          )}
        </p>
      ) : (
        <p className="second">Never read before.</p>
      )}
    </Part>
  )
}
