import { addDays, type Day } from '../calendar'
import type { ClockView, WearView } from '../wear'
import { visitFor } from './onVisit'
import { worseDue } from './standing'
import type { VisitLine } from './views'
import { isOpen } from './visits'

/** A service of one of the things on a machine, and the visit it is booked on. */
export type DueService = {
  pump: Pick<WearView, 'number' | 'title' | 'unit'>
  clock: ClockView
  visit: VisitLine | null
}

/** What is told at once reaches so many days ahead, and is at least so many services. */
const ahead = 30
const least = 3

/**
 * Every service of what a machine carries, worst first; those to be told at once, and those for later.
 *
 * @param views the wear of each assembly on it whose clocks run
 * @param visits its visits; those that are over are left out
 */
export function servicesOn(
  views: WearView[],
  visits: VisitLine[],
  today: Day,
): { now: DueService[]; later: DueService[] } {
  const open = visits.filter(({ state }) => isOpen(state))
  const all = views
    .flatMap((view) =>
      view.clocks.map((clock): DueService => ({
        pump: { number: view.number, title: view.title, unit: view.unit },
        clock,
        visit: visitFor(view.assemblyId, clock, open),
      })),
    )
    .sort((a, b) => worseDue(a.clock, b.clock))
  const until = addDays(today, ahead)
  const near = ({ clock }: DueService) =>
    clock.state !== 'healthy' || (clock.lastResponsibleDay !== null && clock.lastResponsibleDay <= until)
  const count = Math.max(all.filter(near).length, least)
  return { now: all.slice(0, count), later: all.slice(count) }
}
