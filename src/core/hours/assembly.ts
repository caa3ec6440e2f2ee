import { hoursAt, type CumulativeLine } from './cumulative'

/** What an assembly had on it when it was taken over. */
export type Opening = { kind: 'new' | 'known' | 'assumed' | 'unknown'; usage: number }

/** A stretch of an assembly's life counted by one meter, loaded for a share of what the meter counts. */
export type CountedStretch = {
  line: CumulativeLine
  /** 0 to 1: the part of the meter's time the assembly is loaded. */
  share: number
  from: string
  /** Null: still going on. */
  to: string | null
}

/**
 * Usage of an assembly (hours or strokes) at an instant: what it was taken over with, and its share of
 * what each meter counted while it was fitted. Nothing is added while it lies on the shelf.
 *
 * @returns usage, or null where the opening is unknown (see `usageSinceTakeOver` for what is certain)
 * @example
 * // taken over with 120 h; 10 h counted at full share, 20 h at a half share: 140 h
 * assemblyUsage({ kind: 'known', usage: 120 }, stretches, at) // 140
 */
export function assemblyUsage(opening: Opening, stretches: CountedStretch[], at: string): number | null {
  if (opening.kind === 'unknown') return null
  return opening.usage + usageSinceTakeOver(stretches, at)
}

/** Usage since the assembly was taken over, whatever it had before. */
export function usageSinceTakeOver(stretches: CountedStretch[], at: string): number {
  return stretches.reduce((sum, stretch) => {
    const end = stretch.to !== null && stretch.to < at ? stretch.to : at
    if (end <= stretch.from) return sum
    const before = hoursAt(stretch.line, stretch.from)
    const after = hoursAt(stretch.line, end)
    return before === null || after === null ? sum : sum + stretch.share * (after - before)
  }, 0)
}

/**
 * Which meter counts an assembly when, and at what share: each duty share holds from its own instant
 * until the next one, or until the assembly moves. On the shelf nothing counts.
 *
 * @param fittings where the assembly is from when on, any order; `machineId` null means on the shelf
 * @param shares which meter counts it from when on, any order
 * @returns stretches in time order; the last one's `to` is null while it is still going on
 * @example
 * countedStretches(
 *   [{ at: '2026-01-01', machineId: 'm1' }, { at: '2026-06-01', machineId: null }],
 *   [{ at: '2026-01-01', meterId: 'a', share: 0.8 }],
 * ) // [{ meterId: 'a', share: 0.8, from: '2026-01-01', to: '2026-06-01' }]
 */
export function countedStretches(
  fittings: { at: string; machineId: string | null }[],
  shares: { at: string; meterId: string; share: number }[],
): { meterId: string; share: number; from: string; to: string | null }[] {
  const byTime = <T extends { at: string }>(rows: T[]) =>
    [...rows].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
  const moves = byTime(fittings)
  const counted = byTime(shares)
  return counted.flatMap((share, index) => {
    const place = moves.filter((move) => move.at <= share.at).at(-1)
    if (!place?.machineId) return []
    const ends = [counted[index + 1]?.at, moves.find((move) => move.at > share.at)?.at].filter(
      (at) => at !== undefined,
    )
    const to = ends.length > 0 ? ends.sort()[0]! : null
    return to === share.at ? [] : [{ meterId: share.meterId, share: share.share, from: share.at, to }]
  })
}

/**
 * The line of an assembly's own usage: what it was taken over with, and every known point of the meters
 * that counted it while they did, at its share. On the shelf the line is flat.
 *
 * @param opening usage at the take-over; an unknown one starts at 0
 * @param stretches as from `countedStretches`, oldest first, with their meters' lines
 * @param until where the line ends, as an instant
 */
export function assemblyLine(
  opening: Opening,
  stretches: CountedStretch[],
  until: string,
): { at: string; hours: number; source: 'reading' | 'event' }[] {
  let base = opening.kind === 'unknown' ? 0 : opening.usage
  return stretches.flatMap((stretch) => {
    const end = stretch.to !== null && stretch.to < until ? stretch.to : until
    const start = hoursAt(stretch.line, stretch.from)
    if (start === null || end <= stretch.from) return []
    const before = base
    const on = (hours: number) => before + stretch.share * (hours - start)
    const inside = stretch.line.points
      .filter((point) => point.at > stretch.from && point.at < end)
      .map(({ at, hours, source }) => ({ at, hours: on(hours), source }))
    const last = stretch.line.points.at(-1)
    base = on(hoursAt(stretch.line, end) ?? start)
    const ends = { at: end, hours: base, source: 'event' as const }
    return [
      { at: stretch.from, hours: before, source: 'event' as const },
      ...inside,
      // Nothing is known past the newest reading: the line ends there, unless the assembly left later.
      ...(stretch.to !== null || (last && last.at >= end) ? [ends] : []),
    ]
  })
}
