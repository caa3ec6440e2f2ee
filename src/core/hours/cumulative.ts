import type { MeterEvent, Reading } from './types'

/** One known point of a cumulative line; `segment` counts meter changes and roll-overs before it. */
export type CumulativePoint = {
  at: string
  hours: number
  source: 'reading' | 'event'
  id: string
  segment: number
  /** What the counter itself showed at that instant. */
  shown: number
}

/** From an instant on, what has to be added to what the counter shows to get cumulative hours. */
export type Segment = { from: string; offset: number }

/** A meter's cumulative line: points in time order whose hours never fall. */
export type CumulativeLine = {
  points: CumulativePoint[]
  ignoredReadingIds: string[]
  /** One for each change or roll-over, oldest first; before the first of them the offset is 0. */
  segments: Segment[]
}

/**
 * The cumulative line of one meter, going on across meter changes and roll-overs.
 *
 * Each event starts a new segment with an offset, so that hours go on: after a change the offset is
 * what the old meter had reached less what the new one started at; after a roll-over it grows by one
 * turn of the counter. A change is a point of the line, since what was on the old meter then is known; a
 * roll-over is none: nobody saw it happen, and hours run straight on from the reading before it to the
 * one after. The line is in the meter's unit (hours or strokes) and starts at the first reading's own
 * value. The order of the arguments does not matter.
 *
 * @param readings accepted readings only, any order
 * @param events meter changes and roll-overs, any order
 * @returns the line; a reading that would make it fall is left out and named in `ignoredReadingIds`
 * @example
 * cumulativeHours(
 *   [{ id: 'a', at: '2026-01-05T08:00:00.000Z', value: 900 }, { id: 'b', at: '2026-02-02T08:00:00.000Z', value: 30 }],
 *   [{ kind: 'change', id: 'c', at: '2026-01-12T08:00:00.000Z', lastValue: 920, firstValue: 0 }],
 * ).points.map((point) => point.hours) // [900, 920, 950]
 */
export function cumulativeHours(readings: Reading[], events: MeterEvent[]): CumulativeLine {
  const steps = [
    ...readings.map((reading) => ({ at: reading.at, order: 1, id: reading.id, reading, event: undefined })),
    ...events.map((event) => ({ at: event.at, order: 0, id: event.id, reading: undefined, event })),
  ].sort(
    (a, b) =>
      compare(a.at, b.at) ||
      a.order - b.order ||
      (a.reading && b.reading ? a.reading.value - b.reading.value : 0) ||
      compare(a.id, b.id),
  )

  const points: CumulativePoint[] = []
  const ignoredReadingIds: string[] = []
  const segments: Segment[] = []
  let offset = 0
  let segment = 0
  for (const step of steps) {
    const last = points.at(-1)
    if (step.event?.kind === 'change') {
      const { lastValue, firstValue } = step.event
      const reached = Math.max(lastValue === null ? 0 : offset + lastValue, last?.hours ?? 0)
      segment += 1
      offset = reached - firstValue
      segments.push({ from: step.at, offset })
      points.push({ at: step.at, hours: reached, source: 'event', id: step.id, segment, shown: firstValue })
    } else if (step.event?.kind === 'rollOver') {
      segment += 1
      offset += step.event.span
      segments.push({ from: step.at, offset })
    } else if (step.reading) {
      const hours = offset + step.reading.value
      if (last && hours < last.hours - 1e-9) {
        ignoredReadingIds.push(step.id)
      } else {
        points.push({
          at: step.at,
          hours,
          source: 'reading',
          id: step.id,
          segment,
          shown: step.reading.value,
        })
      }
    }
  }
  return { points, ignoredReadingIds, segments }
}

/** What has to be added to what the counter shows at an instant to get cumulative hours. */
export function offsetAt(line: CumulativeLine, at: string): number {
  return line.segments.findLast((segment) => segment.from <= at)?.offset ?? 0
}

/**
 * Cumulative hours at an instant, straight-lined between the known points.
 * Before the first point and after the last one the line is flat: what is not read is not guessed.
 * @returns hours (or strokes), or null when nothing has been read yet
 */
export function hoursAt(line: CumulativeLine, at: string): number | null {
  const { points } = line
  const first = points[0]
  const last = points.at(-1)
  if (!first || !last) return null
  if (at <= first.at) return first.hours
  if (at >= last.at) return last.hours
  let low = 0
  let high = points.length - 1
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if ((points[middle] as CumulativePoint).at <= at) low = middle
    else high = middle
  }
  const before = points[low] as CumulativePoint
  const after = points[high] as CumulativePoint
  const span = Date.parse(after.at) - Date.parse(before.at)
  const share = span === 0 ? 1 : (Date.parse(at) - Date.parse(before.at)) / span
  return before.hours + share * (after.hours - before.hours)
}

function compare(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0
}
