import { daysBetween, type Day } from '../calendar'
import type { ClockView, WearView } from '../wear'
import type { PlanTerms } from './crewTerms'
import type { FleetService } from './fleet'
import { givenUp, workOf } from './fleetProblem'
import { nextVisit } from './nextVisit'

/** A due service of a machine that is on no visit, with what planning counts of it where it has a day. */
export type Bundling = {
  pump: Pick<WearView, 'assemblyId' | 'number' | 'title' | 'unit'>
  clock: ClockView
  plan: FleetService | null
}

/** A service that need not be done yet, and what taking it along would mean. */
export type GoesAlong = {
  service: Bundling
  /** What it adds to the visit, and what a visit of its own would take. */
  addsMinutes: number
  aloneMinutes: number
  /** The share of its life that is given up. */
  givesUp: number
  /** What taking it along saves, less what it gives up, in cents. */
  gain: number
}

/** What is decided together: services of one machine that share a day and a strip-down. */
export type Bundle<Service extends Bundling = Bundling> = {
  /** The day that its leading service asks for; null where none has a day in sight. */
  day: Day | null
  /** What leads first: it asks for the day. */
  services: Service[]
  /** What may be taken along; the best first. Those that pay are among the services already. */
  more: GoesAlong[]
  minutes: number
  minutesAlone: number
}

/**
 * What waits on one machine as visits to decide: each on the day of what has to be decided first, or on which its
 * parts are there, with everything whose window is open and whose parts are there by then. What need not be decided yet goes along where sharing the way in, and sparing a
 * visit, saves more than the life that it gives up.
 *
 * @param wanted what has to be decided
 * @param others what else is due some day; each on no visit
 */
export function bundlesOf<Service extends Bundling>(
  wanted: readonly Service[],
  others: readonly Service[],
  { today, terms }: { today: Day; terms: PlanTerms },
): Bundle<Service>[] {
  const bundles: Bundle<Service>[] = []
  const undated = wanted.filter(({ clock }) => clock.aboutDay === null)
  let left = wanted.filter(({ clock }) => clock.aboutDay !== null)
  let along = [...others]
  while (left.length > 0 || (undated.length > 0 && bundles.length === 0)) {
    const of = new Map(left.map((service) => [service.clock, service]))
    const next = nextVisit([...of.keys()], today)
    const leading = next ? of.get(next.leading)! : null
    const day = next && later(next.day, leading!.plan?.partsFrom ?? null)
    const services = [
      ...(leading ? [leading] : []),
      ...(next?.items ?? [])
        .map((clock) => of.get(clock)!)
        // What waits longer for its parts does not hold up what leads.
        .filter((each) => each !== leading && (each.plan?.partsFrom ?? day!) <= day!),
      // What has no day is done whenever the machine is open.
      ...(bundles.length === 0 ? undated : []),
    ]
    const offers = (day === null ? [] : along)
      .filter(
        ({ clock, plan }) =>
          clock.window !== null && clock.window.from <= day! && (plan?.partsFrom ?? day!) <= day!,
      )
      .flatMap((service) => goesAlong(service, services, day!, terms) ?? [])
      .sort((a, b) => b.gain - a.gain)
    const paying = offers.filter(({ gain }) => gain > 0).map(({ service }) => service as Service)
    const all = [...services, ...paying]
    along = along.filter((service) => !paying.includes(service))
    left = left.filter((service) => !services.includes(service))
    const { together, alone } = workOf(all.flatMap(({ plan }) => plan ?? []))
    bundles.push({
      day,
      services: all,
      more: offers.filter(({ gain }) => gain <= 0),
      minutes: together,
      minutesAlone: alone,
    })
  }
  return bundles
}

const later = (day: Day, other: Day | null) => (other !== null && other > day ? other : day)

function goesAlong(
  service: Bundling,
  services: readonly Bundling[],
  day: Day,
  terms: PlanTerms,
): GoesAlong | null {
  const { plan } = service
  if (plan === null) return null
  const before = workOf(services.flatMap((each) => each.plan ?? [])).together
  const adds = workOf([...services.flatMap((each) => each.plan ?? []), plan]).together - before
  const { alone } = workOf([plan])
  const early = Math.max(0, daysBetween(day, plan.due))
  const spared = (terms.hourCents / 60) * (alone - adds) + terms.visitCents + terms.downtimeCents
  return {
    service,
    addsMinutes: adds,
    aloneMinutes: alone,
    givesUp: Math.min(1, early / Math.max(1, plan.lifeDays)),
    gain: Math.round(spared - givenUp(plan, early, terms)),
  }
}
