import { timerStand, type SheetTimer } from '@/core/sheets'

/** How much of a timer is gone, as a filled dial. */
export function TimerDial({ timer, now }: { timer: SheetTimer; now: string }) {
  const { state, ms } = timerStand(timer, now)
  const whole = timer.endsAt ? Date.parse(timer.endsAt) - Date.parse(timer.startedAt) : 60_000
  const left = timer.endsAt ? Math.max(0, Math.min(1, ms / whole)) : (ms % whole) / whole
  const angle = 2 * Math.PI * left
  const [x, y] = [12 - 9 * Math.sin(angle), 12 - 9 * Math.cos(angle)]
  const colour = state === 'running' ? 'var(--petrol)' : state === 'soon' ? 'var(--brass)' : 'var(--oxide)'
  return (
    <svg width="24" height="24" viewBox="0 0 24 24" aria-hidden>
      <circle cx="12" cy="12" r="10" fill="none" stroke={colour} strokeWidth="2" />
      {left >= 0.999 ? (
        <circle cx="12" cy="12" r="8" fill={colour} />
      ) : (
        left > 0 && <path d={`M12 12V3A9 9 0 ${left > 0.5 ? 1 : 0} 0 ${x} ${y}Z`} fill={colour} />
      )}
    </svg>
  )
}
