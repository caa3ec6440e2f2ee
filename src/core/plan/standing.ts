import type { AssemblyView, MachineLine, Stay } from '../fleet'
import type { Day } from '../calendar'
import type { SignView } from '../inspection'
import { stateRank, type ClockState, type ClockView, type WearView } from '../wear'
import { visitFor } from './onVisit'
import type { VisitLine } from './views'

/** A service as a list of machines tells it. */
export type ToldService = Pick<
  ClockView,
  | 'task'
  | 'name'
  | 'where'
  | 'state'
  | 'share'
  | 'early'
  | 'by'
  | 'hoursUsed'
  | 'hoursLimit'
  | 'daysUsed'
  | 'daysLimit'
  | 'firstBy'
  | 'aboutDay'
  | 'perDay'
  | 'lastResponsibleDay'
  | 'assumed'
> & {
  pump: string
  unit: WearView['unit']
  /** The day of the visit that it is booked on. */
  bookedOn: Day | null
}

/** How a machine or a pump stands: what a list of them tells first. */
export type DueStanding = {
  /** By service and sign together; `none` where no clock runs and nothing was seen. */
  state: ClockState | 'none'
  /** The earliest day on which acting is in time, for a service or a sign. */
  actBy: Day | null
  worst: ToldService | null
  /** How many services are past their limit, and how many inside their tolerance before it. */
  past: number
  soon: number
  /** The open visit that comes first. */
  next: (Pick<VisitLine, 'id' | 'number' | 'day' | 'lead' | 'late'> & { onBench: boolean }) | null
  /** Open signs, the most pressing first. */
  signs: { id: string; name: string; pump: string | null; by: Day }[]
}

type Due = Pick<ClockView, 'state' | 'share' | 'lastResponsibleDay'>

/**
 * Worst first across pumps: by state, then by the last day on which acting is in time, then by used share.
 * Shares alone would put a pump that is hardly used, and years from its limit, before one that has a week.
 */
export function worseDue(a: Due, b: Due): number {
  return (
    stateRank[b.state] - stateRank[a.state] ||
    compareDays(a.lastResponsibleDay, b.lastResponsibleDay) ||
    b.share - a.share
  )
}

/**
 * How a machine, or a single pump, stands. A sign counts as due soon, and as past once its day has gone.
 *
 * @param views the wear of every assembly on it whose clocks run
 * @param visits open visits to it
 * @param signs its signs that nobody has settled
 */
export function dueStanding(
  views: WearView[],
  visits: VisitLine[],
  signs: SignView[],
  today: Day,
): DueStanding {
  const services = views.flatMap((view) => view.clocks.map((clock) => ({ view, clock })))
  const [first] = services.sort((a, b) => worseDue(a.clock, b.clock))
  const worst = first?.clock.state ?? 'none'
  const seen: ClockState | 'none' =
    signs.length === 0 ? 'none' : signs.some(({ by }) => by < today) ? 'over' : 'dueSoon'
  const days = [first?.clock.lastResponsibleDay ?? null, ...signs.map(({ by }) => by)].sort(compareDays)
  const [next] = [...visits].sort((a, b) => compareDays(a.day, b.day))
  return {
    state: rankOf(seen) > rankOf(worst) ? seen : worst,
    actBy: days[0] ?? null,
    worst: first ? told(first.view, first.clock, visits) : null,
    past: services.filter(({ clock }) => stateRank[clock.state] >= stateRank.over).length,
    soon: services.filter(({ clock }) => clock.state === 'dueSoon').length,
    next: next
      ? {
          id: next.id,
          number: next.number,
          day: next.day,
          lead: next.lead,
          late: next.late,
          onBench: next.sheet?.state === 'open',
        }
      : null,
    signs: [...signs]
      .sort((a, b) => compareDays(a.by, b.by))
      .map(({ id, name, pump, by }) => ({ id, name, pump, by })),
  }
}

/** Worst first, what has no clock and no sign at the end; of two alike the one with more signs. */
export function worseStanding(a: DueStanding | null, b: DueStanding | null): number {
  return (
    rankOf(b?.state ?? 'none') - rankOf(a?.state ?? 'none') ||
    compareDays(a?.actBy ?? null, b?.actBy ?? null) ||
    (b?.worst?.share ?? 0) - (a?.worst?.share ?? 0) ||
    (b?.signs.length ?? 0) - (a?.signs.length ?? 0)
  )
}

const rankOf = (state: DueStanding['state']) => (state === 'none' ? -1 : stateRank[state])

function compareDays(a: Day | null, b: Day | null): number {
  if (a === b) return 0
  if (a === null) return 1
  return b === null || a < b ? -1 : 1
}

function told(view: WearView, clock: ClockView, visits: VisitLine[]): ToldService {
  const { task, name, where, state, share, early, by, hoursUsed, hoursLimit, daysUsed, daysLimit } = clock
  const { firstBy, aboutDay, perDay, lastResponsibleDay, assumed } = clock
  return {
    task,
    name,
    where,
    state,
    share,
    early,
    by,
    hoursUsed,
    hoursLimit,
    daysUsed,
    daysLimit,
    firstBy,
    aboutDay,
    perDay,
    lastResponsibleDay,
    assumed,
    pump: view.number,
    unit: view.unit,
    bookedOn: visitFor(view.assemblyId, clock, visits)?.day ?? null,
  }
}

/** What the list of machines tells of one. */
export type MachineStanding = MachineLine & { standing: DueStanding | null }

/** What the list of pumps and drives tells of one; the rest of it stays behind. */
export type AssemblyStanding = Pick<
  AssemblyView,
  | 'id'
  | 'number'
  | 'title'
  | 'kind'
  | 'serial'
  | 'retiredOn'
  | 'usage'
  | 'usedSinceTakeOver'
  | 'usageScale'
  | 'openingKind'
> & {
  place: Pick<Stay, 'machineId' | 'machineNumber' | 'machineName' | 'yardName' | 'slot'>
  standing: DueStanding | null
}
