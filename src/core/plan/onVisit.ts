import type { ClockView } from '../wear'
import type { VisitLine } from './views'

type Due = Pick<ClockView, 'task' | 'positions'>

/** The positions of a due service that stand on no open visit yet. */
export function notOnVisit(assemblyId: string, clock: Due, open: readonly VisitLine[]): string[] {
  const on = placesOn(assemblyId, clock, open)
  return on.length === 0
    ? clock.positions
    : clock.positions.filter((position) => !on.some(({ positions }) => positions.includes(position)))
}

/** The open visit that a due service is on with all its positions; null while any of them is left to book. */
export function visitFor(assemblyId: string, clock: Due, open: readonly VisitLine[]): VisitLine | null {
  if (notOnVisit(assemblyId, clock, open).length > 0) return null
  const on = placesOn(assemblyId, clock, open)
  return (
    on.find(({ positions }) => positions.some((position) => clock.positions.includes(position)))?.visit ??
    null
  )
}

type Places = { visit: VisitLine; positions: readonly string[] }

/** What visits have in hand of each task of each pump: the same visits are asked about every service of a fleet. */
const inHand = new WeakMap<readonly VisitLine[], Map<string, Places[]>>()

function placesOn(assemblyId: string, clock: Due, open: readonly VisitLine[]): readonly Places[] {
  let places = inHand.get(open)
  if (!places) {
    places = new Map()
    for (const visit of open)
      for (const { assemblyId: of, task, positions } of visit.services) {
        const own = places.get(`${of} ${task}`)
        if (own) own.push({ visit, positions })
        else places.set(`${of} ${task}`, [{ visit, positions }])
      }
    inHand.set(open, places)
  }
  return places.get(`${assemblyId} ${clock.task}`) ?? []
}
