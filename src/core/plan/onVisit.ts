import type { ClockView } from '../wear'
import type { VisitLine } from './views'

type Due = Pick<ClockView, 'task' | 'positions'>

/** The positions of a due service that stand on no open visit yet. */
export function notOnVisit(assemblyId: string, clock: Due, open: VisitLine[]): string[] {
  const booked = new Set(
    open.flatMap((visit) =>
      visit.services
        .filter((service) => service.assemblyId === assemblyId && service.task === clock.task)
        .flatMap((service) => service.positions),
    ),
  )
  return clock.positions.filter((position) => !booked.has(position))
}

/** The open visit that a due service is on with all its positions; null while any of them is left to book. */
export function visitFor(assemblyId: string, clock: Due, open: VisitLine[]): VisitLine | null {
  if (notOnVisit(assemblyId, clock, open).length > 0) return null
  return (
    open.find((visit) =>
      visit.services.some(
        (service) =>
          service.assemblyId === assemblyId &&
          service.task === clock.task &&
          service.positions.some((position) => clock.positions.includes(position)),
      ),
    ) ?? null
  )
}
