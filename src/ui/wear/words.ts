import { daysBetween, showAhead, showDay, showFarDay, showSpan } from '@/core/calendar'
import { showNumber } from '@/core/units'
import type { ClockView } from '@/core/wear'

export const stateWords = {
  healthy: 'healthy',
  dueSoon: 'due soon',
  over: 'past its limit',
  overdue: 'overdue',
} as const
export const inkOf = { healthy: '', dueSoon: 'brass', over: 'oxide', overdue: 'oxide' } as const

type Used = Pick<ClockView, 'by' | 'hoursUsed' | 'hoursLimit' | 'daysUsed' | 'daysLimit'>
type Left = Used & Pick<ClockView, 'share' | 'firstBy' | 'aboutDay' | 'perDay'>

/** @example "846 of 800 h" */
export function usedWords(clock: Used, unit: string): string {
  return clock.by === 'hours' && clock.hoursLimit !== null
    ? `${showNumber(Math.round(clock.hoursUsed))} of ${showNumber(clock.hoursLimit)}\u00a0${unit}`
    : `${showNumber(clock.daysUsed)} of ${showNumber(clock.daysLimit ?? 0)}\u00a0days`
}

/** @example "46 h past", "about 9 days", "about 9 years" */
export function leftWords(clock: Left, unit: string, today: string): string {
  if (clock.share > 1) {
    return clock.by === 'hours'
      ? `${showNumber(Math.max(1, Math.round(clock.hoursUsed - (clock.hoursLimit ?? 0))))}\u00a0${unit} past`
      : `${showNumber(clock.daysUsed - (clock.daysLimit ?? 0))}\u00a0days past`
  }
  if (clock.firstBy === 'sign' && clock.aboutDay !== null)
    return clock.aboutDay < today
      ? `since ${showDay(clock.aboutDay, today)}`
      : `by ${showDay(clock.aboutDay, today)}`
  // Used, but so little that the limit lies beyond every forecast.
  if (clock.aboutDay === null) return clock.perDay ? 'years away' : 'not in use'
  return showAhead(Math.max(0, daysBetween(today, clock.aboutDay)))
}

/** @example "9 to 31 Oct": the days between which the limit is likely reached; nothing once it is past. */
export function bandWords(clock: ClockView, today: string): string {
  if (clock.firstBy === 'sign') return 'brought forward'
  if (clock.band === null || clock.share > 1) return ''
  const early = clock.band.early < today ? today : clock.band.early
  return showSpan(early, clock.band.late, today)
}

/** @example "OR-31 O-ring missing", "3 parts missing"; blank where all are there. */
export function missingWords({ leadTime: { parts } }: Pick<ClockView, 'leadTime'>): string {
  if (parts.length === 0) return ''
  return parts.length === 1 ? `${parts[0]} missing` : `${parts.length} parts missing`
}

/** @example "hard duty: 448, not 640 h" */
export function limitWords(clock: ClockView, unit: string): string {
  const short =
    clock.factor < 1 && clock.statedHours !== null && clock.hoursLimit !== null
      ? `hard duty: ${showNumber(clock.hoursLimit)}, not ${showNumber(clock.statedHours)}\u00a0${unit}`
      : ''
  const own = clock.overrideReason && `its own limit: ${clock.overrideReason}`
  return [short, own].filter(Boolean).join(' · ')
}

/**
 * The last responsible day and what it allows for.
 * @example "act by 7 Oct: parts 21 days, notice 2"
 */
export function actWords(clock: ClockView, today: string): string {
  if (clock.lastResponsibleDay === null) return ''
  const { leadTime, noticeDays } = clock
  const allows = leadTime.days > 0 ? `: parts ${leadTime.days} days, notice ${noticeDays}` : ''
  return clock.lastResponsibleDay <= today
    ? `act now${allows}`
    : `act by ${showFarDay(clock.lastResponsibleDay, today)}${allows}`
}

/** Red where acting is late already, unless the limit says so by itself. */
export function actInk(clock: ClockView, today: string): string {
  return clock.lastResponsibleDay !== null && clock.lastResponsibleDay < today && clock.share <= 1
    ? 'oxide'
    : ''
}
