import { addDays, dayNumber, showDay, type Day } from '../calendar'

export type Running = {
  /** Days on which it is worked on, with the minutes of each. */
  days: { day: Day; minutes: number }[]
  /** The day on which the machine is back: the last of the work, or once what was glued has cured. */
  backOn: Day
}

/** Work begins at this minute of the day. Ours. */
const begins = 8 * 60
/** So many days ahead a visit is followed. */
const most = 120

/**
 * The days over which a visit runs: what does not fit in its technician's day goes on, on the next day of theirs, and
 * what has to cure before pressure keeps the machine until it has.
 *
 * @param freeOn minutes that the technician works on a day
 * @param cureMinutes the longest cure before pressure; 0 for none
 * @example // 600 minutes from a Thursday on, 480 a day: Thursday 480, Friday 120, back on Friday
 */
export function runsOver(
  { day, minutes, cureMinutes }: { day: Day; minutes: number; cureMinutes: number },
  freeOn: (day: Day) => number,
): Running {
  const days: Running['days'] = []
  let left = minutes
  for (let ahead = 0; ahead < most && (left > 0 || days.length === 0); ahead++) {
    const on = addDays(day, ahead)
    const free = freeOn(on)
    // Where nobody is known to work, its own day takes all of it.
    if (free <= 0 && ahead > 0) continue
    const spent = free <= 0 ? left : Math.min(left, free)
    days.push({ day: on, minutes: spent })
    left -= spent
  }
  const last = days.at(-1)!
  if (cureMinutes <= 0) return { days, backOn: last.day }
  const ready = begins + last.minutes + cureMinutes
  const later = Math.floor(ready / (24 * 60))
  const ends = begins + Math.max(freeOn(last.day), last.minutes)
  // Cured after work it is proved on the next morning.
  if (later === 0 && ready <= ends) return { days, backOn: last.day }
  let backOn = addDays(last.day, later + (ready % (24 * 60) > ends ? 1 : 0))
  // It is proved by somebody: on the next day on which the technician works.
  for (let ahead = 0; ahead < most && freeOn(backOn) <= 0; ahead++) backOn = addDays(backOn, 1)
  return { days, backOn }
}

/** "Runs over 15 Oct, 16 Oct; the machine is back on 17 Oct." Blank where it is done on its day. */
export function runningWords({ days, backOn }: Running, today: Day): string {
  const last = days.at(-1)!.day
  const over = days.length > 1 ? `Runs over ${days.map(({ day }) => showDay(day, today)).join(', ')}` : ''
  const back = backOn > last ? 'the machine is back once it has cured' : 'the machine is back'
  if (days.length === 1 && backOn === last) return ''
  return `${over || `Done on ${showDay(last, today)}`}; ${back}, on ${showDay(backOn, today)}.`
}

/** Minutes that a member of the crew works on a day, leave and closed days taken off. */
export function minutesOn(
  member: { days: number[]; minutes: number; leave: readonly { from: Day; to: Day }[] } | undefined,
  closed: readonly { from: Day; to: Day }[],
  day: Day,
): number {
  const isIn = ({ from, to }: { from: Day; to: Day }) => from <= day && day <= to
  if (!member || !member.days.includes(weekday(day)) || member.leave.some(isIn) || closed.some(isIn)) return 0
  return member.minutes
}

/** 1 Monday to 7 Sunday. */
export const weekday = (day: Day) => ((dayNumber(day) + 3) % 7) + 1
