import { daysBetween, type Day } from '../calendar'
import { groupBy } from '../lists'
import { runningOf, type Fleet, type FleetService, type FleetVisit } from './fleet'

/** Services of a machine that fall due about the same time: drawn as one lens. */
export type Lens = {
  /** Days from today: by 10 %, as likely as not, by 90 %. */
  from: number
  due: number
  to: number
  services: FleetService[]
  isSoon: boolean
}

export type HorizonRow = {
  machineId: string
  number: string
  name: string
  /** What is past its limit and on no visit. */
  over: FleetService[]
  lenses: Lens[]
  /** Visits of one spot; more than one where they stand too close to be told apart. */
  visits: { day: number; visits: FleetVisit[]; services: number }[]
  away: { from: number; to: number; kind: 'job' | 'layUp' }[]
}

export type HorizonYard = { id: string; name: string; rows: HorizonRow[] }

/** Whoever is due within so many days is due soon. */
const soonDays = 14

/**
 * What the horizon shows, machine by machine: due windows of what is on no visit, visits, and days on which it is
 * away. What would lie on top of each other is drawn as one.
 *
 * @param apart how many days two marks must lie apart to be drawn each
 */
export function horizonRows(
  fleet: Fleet,
  yards: { id: string; name: string }[],
  apart: number,
): HorizonYard[] {
  const { today, weeks, machines, services, visits } = fleet
  const end = weeks * 7
  const at = (day: Day) => daysBetween(today, day)
  const servicesOf = groupBy(services, ({ machineId }) => machineId)
  const visitsOf = groupBy(visits, ({ machineId }) => machineId)
  const counts = groupBy(
    services.filter(({ visitId }) => visitId !== null),
    ({ visitId }) => visitId!,
  )
  const rowOf = ({ id, number, name, away }: Fleet['machines'][number]): HorizonRow => {
    const open = (servicesOf.get(id) ?? []).filter(({ visitId }) => visitId === null)
    const lenses: Lens[] = []
    const coming = open
      .filter(({ isOver, due }) => !isOver && at(due) < end)
      .sort((a, b) => at(a.due) - at(b.due))
    for (const service of coming) {
      const due = Math.max(0, at(service.due))
      const from = service.band ? at(service.band.early) : due
      const to = service.band?.late ? at(service.band.late) : due + (due - from)
      const last = lenses[lenses.length - 1]
      if (last && due - last.due < apart) {
        last.services.push(service)
        last.from = Math.min(last.from, from)
        last.to = Math.max(last.to, to)
      } else lenses.push({ from, due, to, services: [service], isSoon: due <= soonDays })
    }
    const spots: HorizonRow['visits'] = []
    for (const visit of [...(visitsOf.get(id) ?? [])].sort((a, b) => at(a.day) - at(b.day))) {
      const day = Math.max(0, at(visit.day))
      if (day >= end) continue
      const count = (counts.get(visit.id) ?? []).length
      const last = spots[spots.length - 1]
      if (last && day - last.day < apart) {
        last.visits.push(visit)
        last.services += count
      } else spots.push({ day, visits: [visit], services: count })
    }
    return {
      machineId: id,
      number,
      name,
      lenses,
      visits: spots,
      over: open.filter(({ isOver }) => isOver).sort((a, b) => at(a.due) - at(b.due)),
      away: away.flatMap(({ from, to, kind }) => {
        const span = { from: Math.max(0, at(from)), to: Math.min(end - 1, at(to)), kind }
        return span.to >= span.from ? [span] : []
      }),
    }
  }
  return yards
    .map(({ id, name }) => ({ id, name, rows: machines.filter(({ yardId }) => yardId === id).map(rowOf) }))
    .filter(({ rows }) => rows.length > 0)
}

/** Of a yard with so many bench places: the most visits on any day, week by week. */
export type BenchLoad = { yardId: string; name: string; places: number; weeks: number[] }

/** How full the benches are; yards without a limit are left out. */
export function benchLoad(fleet: Fleet, yards: readonly { id: string; name: string }[]): BenchLoad[] {
  const yardOf = new Map(fleet.machines.map(({ id, yardId }) => [id, yardId]))
  return fleet.terms.benches.flatMap(({ yardId, places }) => {
    if (places === null) return []
    const days = Array.from({ length: fleet.weeks * 7 }, () => 0)
    for (const visit of fleet.visits)
      if (yardOf.get(visit.machineId) === yardId)
        for (const { day } of runningOf(fleet, visit).days) {
          const at = daysBetween(fleet.today, day)
          if (at >= 0 && at < days.length) days[at]! += 1
        }
    const weeks = Array.from({ length: fleet.weeks }, (_, week) =>
      Math.max(...days.slice(week * 7, week * 7 + 7)),
    )
    return [{ yardId, places, weeks, name: yards.find(({ id }) => id === yardId)?.name ?? '' }]
  })
}

/** Minutes of each week: what the crew has, the share for breakdowns taken off, and what is booked of it. */
export function weeklyLoad(
  fleet: Fleet,
  crew: readonly { minutesByDay: number[] }[],
): { free: number; booked: number }[] {
  const worked = fleet.visits.flatMap((visit) => runningOf(fleet, visit).days)
  return Array.from({ length: fleet.weeks }, (_, week) => {
    const from = week * 7
    const isIn = (day: number) => day >= from && day < from + 7
    return {
      free: crew.reduce(
        (sum, { minutesByDay }) =>
          sum + minutesByDay.slice(from, from + 7).reduce((all, each) => all + each, 0),
        0,
      ),
      booked: worked.reduce(
        (sum, { day, minutes }) => sum + (isIn(daysBetween(fleet.today, day)) ? minutes : 0),
        0,
      ),
    }
  })
}
