import { judgeReading, type History } from './judge'

/** A change of meter as it will have been, where nobody was there to tell. */
export type PresumedChange = { at: string; lastValue: number; firstValue: number }

/**
 * When a meter that was found replaced will have been changed, and what the old one will have shown: the
 * usual use since the last reading, less what the new one has counted, was still the old one's; and the
 * time is shared as the hours are.
 *
 * @param history accepted readings and events of the meter
 * @param found the reading that shows the new meter
 * @param firstValue what the new meter started at, in the meter's unit
 * @returns the change, its `lastValue` rounded to the meter's smallest digit; null where nothing was
 *   read before, or where the new one would have counted more than the clock had since
 * @example
 * // 22 h a week; a week ago 4 854 h, now 12 h: about 10 h were still the old one's
 * presumedChange(history, { at: aWeekLater, value: 12 }, 0) // { lastValue: 4863.9, firstValue: 0, at: about three days later }
 */
export function presumedChange(
  history: History,
  found: { at: string; value: number },
  firstValue: number,
): PresumedChange | null {
  const counted = found.value - firstValue
  const { band, previous } = judgeReading(history, found)
  if (!previous || !band || counted < 0) return null
  const gap = Date.parse(found.at) - Date.parse(previous.at)
  if (history.face.unit === 'h' && counted > gap / 3_600_000 + 10 ** -history.face.decimals) return null
  const used = Math.max(0, band.expected - previous.value)
  const before = Math.max(0, used - counted)
  const share = before + counted > 0 ? before / (before + counted) : 1
  const scale = 10 ** history.face.decimals
  return {
    // The last reading was still the old one's.
    at: new Date(Date.parse(previous.at) + Math.max(Math.min(1, gap), gap * share)).toISOString(),
    lastValue: Math.round((previous.value + before) * scale) / scale,
    firstValue,
  }
}
