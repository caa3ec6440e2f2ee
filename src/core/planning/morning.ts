import type { Day } from '../calendar'

/** What a row of Today can be about, in the order rows of one day are told. */
export const morningKinds = {
  service: 'Services',
  sign: 'Signs',
  visit: 'Visits',
  doubt: 'Readings in doubt',
  reading: 'Readings',
  earlyCheck: 'Early checks',
  part: 'Parts',
} as const
export type MorningKind = keyof typeof morningKinds

/** What every row of Today has, whatever it is about. */
export type MorningItem = {
  /** Names it for putting off and handing on. */
  subject: string
  kind: MorningKind
  /** In words, for what is said about it elsewhere. */
  label: string
  /** The last day on which acting is in time; null where nothing runs against it. */
  actBy: Day | null
  /** Among rows of one day and kind the greater comes first. */
  weight: number
  yardId: string | null
  /** Who has it anyway: a visit's technician. */
  lead: string | null
}

const kindOrder = Object.keys(morningKinds)

/**
 * The morning list's one order: by last responsible day, what has none at the end; on the same day by
 * kind and then by weight, so that the list reads the same each time.
 */
export function inMorningOrder<Item extends MorningItem>(items: Item[]): Item[] {
  return [...items].sort(
    (a, b) =>
      compare(a.actBy ?? '9999', b.actBy ?? '9999') ||
      kindOrder.indexOf(a.kind) - kindOrder.indexOf(b.kind) ||
      b.weight - a.weight ||
      compare(a.subject, b.subject),
  )
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0
}
