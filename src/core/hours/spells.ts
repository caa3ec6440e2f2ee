import { showDay } from '../calendar'
import type { KnownAhead } from './forecast'

export const spellKinds = { layUp: 'Lay-up', job: 'Booked job' } as const

/**
 * A stretch of days known beforehand on which a machine stands (lay-up) or works (booked job). Both ends
 * belong to it; a lay-up without an end goes on until further notice.
 */
export type SpellInput = {
  id: string
  version?: number
  kind: keyof typeof spellKinds
  fromDay: string
  toDay: string | null
  /** Hours a day its meter will run on a job; null: as it usually does. */
  hoursPerDay: number | null
  what: string
}

/** Whether two stretches of days share one. @example overlap({fromDay:'2026-11-01',toDay:null}, ...) */
export function overlap(
  a: { fromDay: string; toDay: string | null },
  b: { fromDay: string; toDay: string | null },
): boolean {
  return (b.toDay === null || a.fromDay <= b.toDay) && (a.toDay === null || b.fromDay <= a.toDay)
}

type Spell = Omit<SpellInput, 'id' | 'version'>

/** The lay-up a machine is in on a day, if any. */
export function laidUpOn<Row extends Spell>(spells: Row[], onDay: string): Row | undefined {
  return spells.find(
    (spell) =>
      spell.kind === 'layUp' && spell.fromDay <= onDay && (spell.toDay === null || onDay <= spell.toDay),
  )
}

/** "laid up until 1 Mar", "laid up until further notice", "on the silo job until 12 Nov" */
export function spellWords(spell: Spell, today: string): string {
  const until = spell.toDay === null ? 'until further notice' : `until ${showDay(spell.toDay, today)}`
  return spell.kind === 'layUp' ? `laid up ${until}` : `${spell.what}, ${until}`
}

/**
 * What a machine's spells mean for the use of one of its meters.
 * @param scale what this meter runs for each hour of the meter that booked hours are told in
 */
export function knownAhead(spells: Spell[], scale: number, offsetDays: number): KnownAhead {
  return {
    layUps: spells.flatMap(({ kind, fromDay, toDay }) =>
      kind === 'layUp' ? [{ from: fromDay, to: toDay }] : [],
    ),
    bookings: spells.flatMap(({ kind, fromDay, toDay, hoursPerDay }) =>
      kind === 'job' && toDay !== null && hoursPerDay !== null
        ? [{ from: fromDay, to: toDay, hoursPerDay: hoursPerDay * scale }]
        : [],
    ),
    offsetDays,
  }
}
