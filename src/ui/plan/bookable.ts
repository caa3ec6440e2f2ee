import { visitFor } from '@/core/planning/onVisit'
import type { VisitLine } from '@/core/planning/views'
import type { ClockView, WearView } from '@/core/wear/views'

/** A service of a pump as a visit or an unplanned sheet can take it. */
export type BookableClock = ClockView & {
  assemblyId: string
  pump: string
  unit: WearView['unit']
  booked: string | null
  positionNames: Record<string, string>
}

/** A pump's services as a visit can take them. */
export function bookable(view: WearView, open: VisitLine[]): BookableClock[] {
  return view.clocks.map((clock) => ({
    ...clock,
    assemblyId: view.assemblyId,
    pump: view.number,
    unit: view.unit,
    booked: visitFor(view.assemblyId, clock, open)?.id ?? null,
    positionNames: view.positionNames,
  }))
}
