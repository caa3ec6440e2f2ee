import type { ClockView, WearView } from '../wear'
import { notOnVisit, visitFor } from './onVisit'
import type { VisitLine } from './views'

/** A service of a pump as a visit or an unplanned sheet can take it. */
export type BookableClock = ClockView & {
  assemblyId: string
  pump: string
  unit: WearView['unit']
  booked: string | null
  positionNames: Record<string, string>
}

/** A pump's services as a visit can take them: of one that is booked in part, what is left. */
export function bookable(view: WearView, open: VisitLine[]): BookableClock[] {
  return view.clocks.map((clock) => {
    const left = notOnVisit(view.assemblyId, clock, open)
    const part = left.length > 0 && left.length < clock.positions.length
    return {
      assemblyId: view.assemblyId,
      pump: view.number,
      unit: view.unit,
      booked: visitFor(view.assemblyId, clock, open)?.id ?? null,
      positionNames: view.positionNames,
      ...clock,
      ...(part && {
        positions: left,
        where: left.map((position) => view.positionNames[position] ?? position).join('; '),
      }),
    }
  })
}
