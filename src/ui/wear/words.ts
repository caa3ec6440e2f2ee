import { daysBetween, showDay } from '@/core/calendar'
import { showNumber } from '@/core/units'
import type { ClockView } from '@/core/wear/views'

/** @example "846 of 800 h" */
export function usedWords(clock: ClockView, unit: string): string {
  return clock.by === 'hours' && clock.hoursLimit !== null
    ? `${showNumber(Math.round(clock.hoursUsed))} of ${showNumber(clock.hoursLimit)}\u00a0${unit}`
    : `${showNumber(clock.daysUsed)} of ${showNumber(clock.daysLimit ?? 0)}\u00a0days`
}

/** @example "46 h past", "about 9 days", "about 17 weeks" */
export function leftWords(clock: ClockView, unit: string, today: string): string {
  if (clock.share > 1) {
    return clock.by === 'hours'
      ? `${showNumber(Math.max(1, Math.round(clock.hoursUsed - (clock.hoursLimit ?? 0))))}\u00a0${unit} past`
      : `${showNumber(clock.daysUsed - (clock.daysLimit ?? 0))}\u00a0days past`
  }
  if (clock.aboutDay === null) return 'not in use'
  const days = Math.max(0, daysBetween(today, clock.aboutDay))
  if (days < 60) return `about ${days}\u00a0${days === 1 ? 'day' : 'days'}`
  return `about ${Math.round(days / 7)}\u00a0weeks`
}

/** The day of the limit at present use, as an estimate; nothing once it is past. */
export function aboutDayWords(clock: ClockView, today: string): string {
  return clock.aboutDay === null || clock.share > 1 ? '' : showDay(clock.aboutDay, today)
}
