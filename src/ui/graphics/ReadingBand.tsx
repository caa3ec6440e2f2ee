import type { VerdictKind } from '@/core/hours'
import { hatch } from './Hatches'

type Props = {
  previous: number
  low: number
  high: number
  value: number | null
  suggestion: number | null
  kind: VerdictKind | null
  says: string
  width?: number
}

/**
 * Where a reading lies: the post is the last one, the hatch what is expected; a moss pin fits, a brass
 * diamond is possible but unusual, an oxide arrow is backwards or off the scale; a hollow circle is the
 * value that would fit.
 */
export function ReadingBand({ previous, low, high, value, suggestion, kind, says, width = 320 }: Props) {
  const left = Math.min(28, width / 8)
  const right = width - left
  const span = Math.max(high - previous, 1)
  const scale = (amount: number) => left + ((amount - previous) / (span * 1.6)) * (right - left)
  const x = value === null ? null : scale(value)
  const off = x !== null && (x < left - 2 || x > right)
  const fits = kind === 'fits' || kind === 'first'
  return (
    <svg
      viewBox={`0 0 ${width} 24`}
      width="100%"
      height="24"
      role="img"
      aria-label={says}
      preserveAspectRatio="xMinYMid meet"
    >
      <line x1="4" x2={width - 4} y1="12" y2="12" stroke="var(--line)" />
      <rect
        x={scale(low)}
        y="6"
        width={Math.max(scale(high) - scale(low), 3)}
        height="12"
        fill={hatch('edge')}
        stroke="var(--edge)"
      />
      <line x1={left} x2={left} y1="3" y2="21" stroke="var(--ink)" strokeWidth="2" />
      {suggestion !== null && (
        <circle
          cx={Math.min(scale(suggestion), right)}
          cy="12"
          r="4.5"
          fill="var(--panel)"
          stroke="var(--petrol)"
          strokeWidth="2"
        />
      )}
      {x !== null && fits && (
        <>
          <line x1={x} x2={x} y1="3" y2="21" stroke="var(--moss)" strokeWidth="2" />
          <circle cx={x} cy="12" r="4.5" fill="var(--moss)" />
        </>
      )}
      {x !== null && !fits && !off && <path d={`M${x} 5 l6 7 -6 7 -6 -7Z`} fill="var(--brass)" />}
      {x !== null && !fits && off && (
        <path d={x < left ? 'M4 12 l10 -6 v12Z' : `M${width - 4} 12 l-10 -6 v12Z`} fill="var(--oxide)" />
      )}
    </svg>
  )
}
