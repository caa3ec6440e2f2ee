import type { Day } from '../calendar'
import type { MarkedAs } from '../plan'

/** What a row of Today can be about, in the order rows of one day are told. */
export const morningKinds = {
  bundle: 'Visits to decide',
  sign: 'Signs',
  slip: 'Visits that no longer fit',
  visit: 'Visits of today and before',
  doubt: 'Readings in doubt',
  reading: 'Readings',
  earlyCheck: 'Early checks',
  part: 'Parts',
} as const
export type MorningKind = keyof typeof morningKinds

/** What every row of Today has, whatever it is about. */
export type MorningItem = MarkedAs & {
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

/** Of one kind in one yard the list shows so many rows at once. */
export const mostAtOnce = 40

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

/**
 * The rows a list shows at once: of each kind in each yard the first so many, in the order they come. A
 * fleet left alone for a year has thousands; nobody reads them, and a page of them takes half a minute.
 *
 * @returns those rows, and how many are left out
 */
export function firstOfEach<Item extends Pick<MorningItem, 'kind' | 'yardId'>>(
  items: Item[],
  most: number,
): { shown: Item[]; left: number } {
  const counts = new Map<string, number>()
  const shown = items.filter(({ kind, yardId }) => {
    const key = `${kind} ${yardId}`
    const count = (counts.get(key) ?? 0) + 1
    counts.set(key, count)
    return count <= most
  })
  return { shown, left: items.length - shown.length }
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0
}
