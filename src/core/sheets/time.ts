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
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.sequence - b.sequence))
  let minutes = 0
  told.slice(1).forEach((entry, index) => {
    const before = told[index]!
    const gap = (Date.parse(entry.at) - Date.parse(before.at)) / 60_000
    if (before.kind !== 'left' && gap <= longestSilence) minutes += gap
  })
  return Math.round(minutes)
}
