import { showDay } from '@/core/calendar'
import { showNumber } from '@/core/units'

type Props = {
  /** Oldest first. */
  earlier: { value: number; day: string; sheet: string }[]
  now: number | null
  unit: string
  min: number | null
  max: number | null
}

const [width, height] = [264, 64]

/** Earlier values of one measure, the limits as posts across, and today's at the right. */
export function MeasureTrend({ earlier, now, unit, min, max }: Props) {
  const shown = earlier.slice(-8)
  const values = [...shown.map(({ value }) => value), ...[now, min, max].filter((each) => each !== null)]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const room = (high - low || Math.abs(high) || 1) * 0.15
  const y = (value: number) => 8 + (height - 16) * (1 - (value - low + room) / (high - low + 2 * room))
  const x = (index: number) => 12 + (index * (width - 72)) / Math.max(shown.length, 1)
  const last = shown.at(-1)
  const words = shown.map(
    ({ value, day, sheet }) => `${showNumber(value)} on ${showDay(day)} (sheet ${sheet})`,
  )
  return (
    <figure className="measure-trend">
      <svg
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`Before: ${words.join(', ')} ${unit}${now === null ? '' : `; now ${showNumber(now)} ${unit}`}`}
      >
        {[min, max].map(
          (limit) =>
            limit !== null && (
              <g key={limit}>
                <line
                  x1="4"
                  x2={width - 46}
                  y1={y(limit)}
                  y2={y(limit)}
                  stroke="var(--ink)"
                  strokeWidth="1.5"
                />
                <text x={width - 42} y={y(limit) + 4} className="trend-limit">
                  {showNumber(limit)}
                </text>
              </g>
            ),
        )}
        {shown.length > 1 && (
          <polyline
            points={shown.map(({ value }, index) => `${x(index)},${y(value)}`).join(' ')}
            fill="none"
            stroke="var(--edge)"
          />
        )}
        {shown.map(({ value, day }, index) => (
          <circle key={`${day} ${index}`} cx={x(index)} cy={y(value)} r="3.5" fill="var(--moss)" />
        ))}
        {now !== null && (
          <rect
            x={x(shown.length) - 5}
            y={y(now) - 5}
            width="10"
            height="10"
            fill="var(--panel)"
            stroke="var(--petrol)"
            strokeWidth="2"
          />
        )}
      </svg>
      <figcaption className="second">
        {last
          ? `Last ${showNumber(last.value)}\u00a0${unit} on ${showDay(last.day)}, sheet ${last.sheet}`
          : 'Never measured here before'}
      </figcaption>
    </figure>
  )
}
