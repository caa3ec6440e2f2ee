import type { Day } from '../calendar'
import type { ClockView } from '../wear'

/** What one visit to a pump would sensibly do, and when. */
export type NextVisit<Clock> = { day: Day; leading: Clock; items: Clock[] }

type Due = Pick<ClockView, 'aboutDay' | 'window' | 'lastResponsibleDay' | 'state' | 'share'>

/**
 * The next visit to a pump: on the due day of what has to be decided first, or today where that is past,
 * with everything whose allowed window is open on that day.
 *
 * @param clocks due items that are on no visit yet
 * @returns null where nothing has a day in sight
 * @example
 * // seals due on 3 Nov, valves allowed from 28 Oct, plungers from May: seals and valves on 3 Nov
 */
export function nextVisit<Clock extends Due>(clocks: Clock[], today: Day): NextVisit<Clock> | null {
  const dated = clocks.filter((clock) => clock.aboutDay !== null)
  const [leading] = [...dated].sort((a, b) => {
    const [x, y] = [a.lastResponsibleDay ?? a.aboutDay!, b.lastResponsibleDay ?? b.aboutDay!]
    return x < y ? -1 : x > y ? 1 : b.share - a.share
  })
  if (!leading) return null
  const day = leading.aboutDay! < today ? today : leading.aboutDay!
  const items = dated.filter(
    (clock) =>
      clock === leading || clock.state !== 'healthy' || (clock.window !== null && clock.window.from <= day),
  )
  return { day, leading, items }
}
