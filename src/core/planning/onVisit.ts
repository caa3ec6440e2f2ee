import type { ClockView } from '../wear/views'
import type { VisitLine } from './views'

/** The open visit that a due service is on already, if any. */
export function visitFor(
  assemblyId: string,
  clock: Pick<ClockView, 'task' | 'positions'>,
  open: VisitLine[],
): VisitLine | null {
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
