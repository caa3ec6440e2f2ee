import { addDays, type Day } from '../calendar'
import type { ServiceShape } from '../composing'
import type { PlanTerms, Span } from './crewTerms'
import { minutesOn, runsOver, type Running } from './runsOver'
import type { VisitState } from './visits'

/** A service that is due, or stands on a visit. */
export type FleetService = {
  assemblyId: string
  pump: string
  task: string
  name: string
  where: string
  positions: string[]
  machineId: string
  due: Day
  /** The days by which it has fallen due with 10 and with 90 %; no end where it may never. */
  band: { early: Day; late: Day | null } | null
  window: Span | null
  isOver: boolean
  /** How long it lasts between two times, in days. */
  lifeDays: number
  /** Whether it comes again by itself. */
  comesAgain: boolean
  partsCents: number
  /** What it uses of parts that the fleet's stock tells of. */
  parts?: { part: string; quantity: number }[]
  /** The first day on which its parts are there, where some are missing today. */
  partsFrom: Day | null
  shape: ServiceShape
  /** The visit that it stands on. */
  visitId: string | null
}

export type FleetVisit = {
  id: string
  version: number
  number: number
  machineId: string
  day: Day
  leadId: string
  state: VisitState
  winter: '' | 'lay' | 'return'
  helpers: string[]
  /** Held where it is by hand. */
  pinned: boolean
  /** Of winter, and its machine waits to be made safe: it moves with the chance of frost. */
  movesWithFrost: boolean
  /** Its sheet is opened: it is being worked on. */
  hasSheet: boolean
  /** All of its services are among the fleet's; one that is not would be lost on the way. */
  isWhole: boolean
  minutes: number
}

/** A machine that has to be made safe before the frost. */
export type FleetWinter = {
  machineId: string
  minutes: number
  /** What freezing it would cost. */
  valueCents: number
  /** Which of the fleet's frosts reaches it. */
  frost: string
  /** The first day that it is there. */
  from: Day | null
  /** The visit that makes it safe, where one is booked. */
  visitId: string | null
}

/** Days on which a machine is at a job, or laid up; `isHeld` where it is made safe for winter and must not be run. */
export type Away = Span & { kind: 'job' | 'layUp'; isHeld?: boolean }

/** A machine that only stands is at hand, and nobody misses it: it can be worked on best then. */
export const isShut = ({ kind, isHeld = false }: Away) => kind === 'job' || isHeld

export type Fleet = {
  today: Day
  weeks: number
  terms: PlanTerms
  /** Days that a crew is to know beforehand that their machine is wanted. */
  noticeDays: number
  crew: {
    id: string
    name: string
    yardId: string | null
    days: number[]
    minutes: number
    /** Null where nobody has said: any. */
    skills: string[] | null
    leave: Span[]
  }[]
  machines: {
    id: string
    number: string
    name: string
    yardId: string
    away: Away[]
    /** What work on it has to mind while it must not be started. */
    held?: string
  }[]
  /** Parts of which there are too few for everything that is due: free by each day from today on. */
  stock: { part: string; name?: string; byDay: number[] }[]
  winters: FleetWinter[]
  /** Chance that frost has come by each day from today on, by yard and by what stands it. */
  frosts: Record<string, number[]>
  /** Chance of frost before a machine is safe that is still accepted. */
  frostRisk: number
  /** Special tools of the register. */
  tools: { id: string; name: string; serves: string[]; count: number }[]
  services: FleetService[]
  visits: FleetVisit[]
}

/** The days over which a visit runs, and the day its machine is back. */
export function runningOf(
  fleet: Fleet,
  visit: Pick<FleetVisit, 'id' | 'day' | 'leadId' | 'minutes'>,
): Running {
  const member = fleet.crew.find(({ id }) => id === visit.leadId)
  const cureMinutes = fleet.services
    .filter(({ visitId }) => visitId === visit.id)
    .reduce((most, { shape }) => Math.max(most, shape.cureMinutes), 0)
  return runsOver({ ...visit, cureMinutes }, (day) => minutesOn(member, fleet.terms.closed, day))
}

export const serviceId = ({
  assemblyId,
  task,
  positions,
}: Pick<FleetService, 'assemblyId' | 'task' | 'positions'>) => [assemblyId, task, ...positions].join(' ')

/** Whether a visit stays where it is: worked on, approved, held by hand, of winter, or of the next days. */
export function isPinned(
  { state, winter, day, pinned, movesWithFrost, hasSheet, isWhole }: FleetVisit,
  { today, terms }: Pick<Fleet, 'today' | 'terms'>,
): boolean {
  if (state !== 'booked' || pinned || hasSheet || !isWhole) return true
  if (winter !== '' && !movesWithFrost) return true
  // One whose day has passed did not happen: it is to be planned anew.
  return day >= today && day < addDays(today, terms.frozenDays)
}

/** Whether a plan leaves a visit where it is: as above, or longer than its technician's day, of which it has one each. */
export const stays = (visit: FleetVisit, fleet: Fleet) =>
  isPinned(visit, fleet) || runningOf(fleet, visit).days.length > 1

/**
 * The first day, from today on, on which a new visit can be, or to which a booked one can be moved: a crew wants its
 * notice, and nothing is moved into the next days. Whoever comes in these days anyway may do so on any of them; a
 * machine that is laid up has no crew to tell.
 *
 * @param away when its machine is at a job, or laid up
 * @param day of the visit; null where it is new, or did not happen
 */
export function firstDayFor(
  { noticeDays, terms, today }: Pick<Fleet, 'noticeDays' | 'terms' | 'today'>,
  away: readonly Away[],
  day: number | null,
): number {
  const stands = away.some(({ kind, from, to }) => kind === 'layUp' && from <= today && today <= to)
  const notice = stands ? 0 : noticeDays
  if (day === null || day < 0) return notice
  const first = Math.max(notice, terms.frozenDays)
  return day < first ? 0 : first
}

/** When a machine of the fleet is at a job, or laid up. */
export const awayOf = ({ machines }: Pick<Fleet, 'machines'>, machineId: string): readonly Away[] =>
  machines.find(({ id }) => id === machineId)?.away ?? []
