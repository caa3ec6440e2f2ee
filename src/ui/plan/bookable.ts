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

/** The open visit that a due service is on already, if any. */
export function visitFor(view: WearView, clock: ClockView, open: VisitLine[]): VisitLine | null {
  return (
    open.find((visit) =>
      visit.services.some(
        (service) =>
          service.assemblyId === view.assemblyId &&
          service.task === clock.task &&
          service.positions.some((position) => clock.positions.includes(position)),
      ),
    ) ?? null
  )
}

/** A pump's services as a visit can take them. */
export function bookable(view: WearView, open: VisitLine[]): BookableClock[] {
  return view.clocks.map((clock) => ({
    ...clock,
    assemblyId: view.assemblyId,
    pump: view.number,
    unit: view.unit,
    booked: visitFor(view, clock, open)?.id ?? null,
    positionNames: view.positionNames,
  }))
}
