import type { SheetEntry } from './types'

/** A silence longer than this, in minutes, is taken for time away from the sheet. Ours. */
export const longestSilence = 90

/**
 * Minutes of work that a sheet took so far: the time between entries, from the first that somebody wrote
 * to the last. What lies between leaving the sheet and taking it up again does not count, nor does a
 * silence of more than 90 minutes; a cure left overnight is no work.
 *
 * @param entries that stand, in order
 */
export function workedMinutes(entries: SheetEntry[]): number {
  const told = entries
    .filter(({ kind }) => kind !== 'composed' && kind !== 'correction')
    .sort((a, b) => instantOf(a) - instantOf(b) || a.sequence - b.sequence)
  let minutes = 0
  told.slice(1).forEach((entry, index) => {
    const before = told[index]!
    const gap = (instantOf(entry) - instantOf(before)) / 60_000
    if (before.kind !== 'left' && gap <= longestSilence) minutes += gap
  })
  return Math.round(minutes)
}

/** When entries were written, in milliseconds: a sheet is folded with every entry, and none ever changes. */
const instants = new WeakMap<SheetEntry, number>()

function instantOf(entry: SheetEntry): number {
  const before = instants.get(entry)
  if (before !== undefined) return before
  const instant = Date.parse(entry.at)
  instants.set(entry, instant)
  return instant
}
