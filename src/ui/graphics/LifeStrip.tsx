import type { ClockState } from '@/core/wear'
import { hatch } from './Hatches'

type Props = { share: number; early: number; state: ClockState; says: string; width?: number }

export const stateColour: Record<ClockState, string> = {
  healthy: 'var(--moss)',
  dueSoon: 'var(--brass)',
  over: 'var(--oxide)',
  overdue: 'var(--oxide)',
}

/**
 * A life against its limit, the ink post. The limit stands at four fifths, the rest is room to overshoot;
 * the hatch before the post is the tolerance, which stays visible through the used part; what is past
 * the limit is a block taller than the track.
 */
export function LifeStrip({ share, early, state, says, width = 144 }: Props) {
  const limit = width * 0.8
  const window = limit * (1 - early)
  const used = Math.min(share, 1) * limit
  const past = share > 1 ? Math.max(5, Math.min(share - 1, 0.25) * limit - 2) : 0
  const colour = stateColour[state]
  return (
    <svg
      width={width}
      height="16"
      viewBox={`0 0 ${width} 16`}
      role="img"
      aria-label={says}
      className="life-strip"
    >
      <rect x="0.5" y="4.5" width={limit - 1} height="8" fill="none" stroke="var(--edge)" />
      <rect x={window} y="4.5" width={limit - window} height="8" fill={hatch('edge')} />
      <rect x="0" y="4" width={used} height="9" fill={colour} />
      {used > window && <rect x={window} y="4" width={used - window} height="9" fill={hatch('panel')} />}
      <line x1={limit} x2={limit} y1="0" y2="16" stroke="var(--ink)" strokeWidth="2" />
      {past > 0 && <rect x={limit + 2} y="0.5" width={past} height="15" fill="var(--oxide)" />}
    </svg>
  )
}
