import type { Zone } from './circuit'

/** What happened to a machine or to one zone of it, as records tell it. Instants are UTC ISO texts. */
export type WinterEvent =
  | {
      kind: 'protected'
      at: string
      zone: Zone
      method: string
      /** It holds down to so many °C; null where nothing is left that could freeze. */
      downToC: number | null
      product?: string
      lot?: string
      litres?: number
      by?: string
      /** Meters of this zone as they stood at the end of the work: what rises above these voids it. */
      closing?: { meterId: string; hours: number }[]
    }
  | {
      kind: 'proof'
      at: string
      zone: Zone
      passed: boolean
      says: string
      measuredC?: number | null
      by?: string
    }
  | { kind: 'reading'; at: string; meterId: string; hours: number; accepted: boolean }
  | { kind: 'job'; at: string; says: string }
  | { kind: 'service'; at: string; says: string; ran: boolean }
  | { kind: 'water'; at: string; says: string; zone?: Zone }
  /** From one storage to another; each as what freezes there, null never. */
  | { kind: 'moved'; at: string; says: string; fromC: number | null; toC: number | null }
  /** A night so cold where it stood, in what freezes there. */
  | { kind: 'frost'; at: string; minC: number; standsC: number | null }
  /** Thawed in a heated place, looked at, and tight under pressure. */
  | { kind: 'thawed'; at: string; by?: string }
  /** Left open by name and signature. */
  | { kind: 'left'; at: string; zone: Zone; by: string }
  | { kind: 'returned'; at: string; zone?: Zone; by?: string }

/** An evening's routine of a machine that works on, confirmed. */
export type EveningEvent = { kind: 'evening'; at: string; by: string }
/** Damage that frost did, beside the method that was to keep it off. */
export type DamageEvent = {
  kind: 'damage'
  at: string
  zone: string
  says: string
  by: string
  method: string
}
/** All that is told of a machine in winter. */
export type ToldEvent = WinterEvent | EveningEvent | DamageEvent

export type ZoneState =
  'inUse' | 'protected' | 'unproved' | 'failed' | 'void' | 'exposed' | 'left' | 'returned'

export type ZoneStanding = {
  state: ZoneState
  since: string | null
  /** Why it stands so, in words of the event. */
  says: string
  protection: Extract<WinterEvent, { kind: 'protected' }> | null
  proof: Extract<WinterEvent, { kind: 'proof' }> | null
}

/** A meter that rose by no more than this was only read again. Hours. */
const sameHours = 0.1

const colder = (fromC: number | null, toC: number | null): boolean =>
  toC !== null && (fromC === null || toC > fromC)

/**
 * How the zones of a machine stand, from what happened, in the order in which it happened.
 *
 * Protection is void once an accepted reading of one of its meters is more than 0.1 h above its closing one,
 * once a job or a service ran the machine, once water is connected, or once it moves to colder storage; nothing
 * else voids it. Frost on a zone that is neither protected down to it nor empty exposes it until it was thawed
 * and looked at.
 *
 * @param events in any order; those of one instant in the order given
 * @param zones those that the machine has; those that the events name where it is not given
 */
export function winterState(
  events: readonly WinterEvent[],
  zones: readonly Zone[] = named(events),
): Partial<Record<Zone, ZoneStanding>> {
  const fresh = (): ZoneStanding => ({ state: 'inUse', since: null, says: '', protection: null, proof: null })
  const standing = Object.fromEntries(zones.map((zone) => [zone, fresh()])) as Record<Zone, ZoneStanding>
  const ordered = events
    .map((event, at) => ({ event, at }))
    .sort((a, b) => (a.event.at < b.event.at ? -1 : a.event.at > b.event.at ? 1 : a.at - b.at))
  for (const { event } of ordered) {
    const touched = 'zone' in event && event.zone ? [event.zone] : zones
    for (const zone of touched) {
      const before = standing[zone]
      if (before) standing[zone] = after(before, event)
    }
  }
  return standing
}

const named = (events: readonly WinterEvent[]): Zone[] => [
  ...new Set(events.flatMap((event) => ('zone' in event && event.zone ? [event.zone] : []))),
]

/** Whether a zone is held against frost at all, whatever its proof. */
const holds = (state: ZoneState) => state === 'protected' || state === 'unproved' || state === 'failed'

function after(before: ZoneStanding, event: WinterEvent): ZoneStanding {
  const turned = (state: ZoneState, says: string): ZoneStanding => ({
    ...before,
    state,
    says,
    since: event.at,
  })
  const voided = (says: string) =>
    holds(before.state) || before.state === 'left' ? turned('void', says) : before
  switch (event.kind) {
    case 'protected':
      // What froze is not made whole by pouring something in.
      if (before.state === 'exposed') return before
      return { state: 'unproved', since: event.at, says: event.method, protection: event, proof: null }
    case 'proof':
      if (!holds(before.state)) return before
      return { ...turned(event.passed ? 'protected' : 'failed', event.says), proof: event }
    case 'reading': {
      const closing = before.protection?.closing?.find(({ meterId }) => meterId === event.meterId)
      if (!event.accepted || !closing || event.hours <= closing.hours + sameHours + 1e-9) return before
      const more = Math.round((event.hours - closing.hours) * 10) / 10
      return voided(`It ran ${more} h after it was protected.`)
    }
    case 'service':
      return event.ran ? voided(event.says) : before
    case 'job':
    case 'water':
      return voided(event.says)
    case 'moved':
      return colder(event.fromC, event.toC) ? voided(event.says) : before
    case 'frost': {
      if (event.standsC === null || event.minC > event.standsC) return before
      const downToC = before.protection?.downToC
      const safe = before.state === 'protected' && (downToC == null || event.minC >= downToC)
      return safe || before.state === 'exposed'
        ? before
        : turned('exposed', `Frost of ${String(event.minC).replace('-', '−')} °C met it like this.`)
    }
    case 'thawed':
      return before.state === 'exposed'
        ? { ...before, state: 'inUse', since: event.at, says: '', protection: null, proof: null }
        : before
    case 'left':
      return {
        state: 'left',
        since: event.at,
        says: `Left as it is by ${event.by}.`,
        protection: null,
        proof: null,
      }
    case 'returned':
      return before.state === 'exposed'
        ? before
        : { state: 'returned', since: event.at, says: '', protection: null, proof: null }
  }
}

const worstFirst: readonly ZoneState[] = [
  'exposed',
  'void',
  'failed',
  'inUse',
  'unproved',
  'left',
  'protected',
  'returned',
]

/** How a whole machine stands: as its worst zone does. */
export function worstState(standings: Partial<Record<Zone, ZoneStanding>>): ZoneState {
  const states = Object.values(standings).map(({ state }) => state)
  return worstFirst.find((state) => states.includes(state)) ?? 'inUse'
}

/**
 * A new winter begins with nothing done: what stands since before its July counts no more, but for a machine
 * that frost met and nobody looked at since.
 * @param since the instant at which this winter began
 */
export function inThisWinter(
  standings: Partial<Record<Zone, ZoneStanding>>,
  since: string,
): Partial<Record<Zone, ZoneStanding>> {
  return Object.fromEntries(
    Object.entries(standings).map(([zone, standing]) => [
      zone,
      standing.since !== null && standing.since < since && standing.state !== 'exposed'
        ? { state: 'inUse', since: null, says: '', protection: null, proof: null }
        : standing,
    ]),
  )
}

/** What stands on a machine that must not be started, wherever it is shown. */
export function laidUpWords(state: ZoneState): string {
  return state === 'exposed' ? 'Exposed to frost: do not start' : 'Laid up: do not start'
}

/** What work on a machine that must not be started has to mind. */
export function workOnHeldWords(state: ZoneState): string {
  return state === 'exposed'
    ? 'It was exposed to frost: nothing of it is run before it has been looked through.'
    : 'It is made safe for winter: running it, also to prove this work, undoes that. Protect it anew afterwards, or bring it back first.'
}
