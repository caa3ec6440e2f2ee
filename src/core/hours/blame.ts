import { judgeAgain, judgeReading, type History, type Verdict } from './judge'
import type { Reading } from './types'

/** A reading that counted and turns out to be the wrong one, and those that count instead of it. */
export type Blame = { blamed: string; verdict: Verdict; cleared: { id: string; verdict: Verdict }[] }

/**
 * Who is wrong where readings contradict each other: one reading that counted keeps others in doubt,
 * and they agree with each other and with everything else. Two against one, and the one is in doubt.
 * With one against one nobody knows, and the later one waits.
 *
 * What looks like a new meter or a roll-over blames nobody: it wants to be explained, not outvoted.
 *
 * @param history accepted readings and events
 * @param doubted readings in doubt
 * @returns the accepted reading to put in doubt, its verdict without it, and the doubted ones that then
 *   count; null where no single reading explains two doubts or more
 * @example
 * // 4 895 counted on day 56; 4 885 on day 60 and 4 893 on day 63 are in doubt because of it
 * settleBlame(history, doubted) // { blamed: 'day 56', cleared: [{ id: 'day 60' }, { id: 'day 63' }], … }
 */
export function settleBlame(history: History, doubted: Reading[]): Blame | null {
  if (doubted.length < 2) return null
  const asItStands = judgeAgain(history, doubted)
  const open = asItStands.filter(
    ({ verdict, counts }) => !counts && !['newMeter', 'rollOver'].includes(verdict.kind),
  )
  const against = doubted.filter(({ id }) => open.some((each) => each.id === id))
  if (against.length < 2) return null
  const found = suspects(history.readings, against).flatMap((suspect): Blame[] => {
    const without = { ...history, readings: history.readings.filter(({ id }) => id !== suspect.id) }
    const cleared = judgeAgain(without, against).filter(({ counts }) => counts)
    if (cleared.length < 2) return []
    const counting = against.filter(({ id }) => cleared.some((each) => each.id === id))
    const verdict = judgeReading({ ...without, readings: [...without.readings, ...counting] }, suspect)
    // One that still does not contradict them is not what keeps them in doubt.
    return verdict.possible ? [] : [{ blamed: suspect.id, verdict, cleared }]
  })
  return found.sort((a, b) => b.cleared.length - a.cleared.length)[0] ?? null
}

/**
 * The readings that count and keep one in doubt: without it they are possible, beside it they are not.
 * Fewer than two of them no longer outvote it.
 *
 * @param history accepted readings and events, without the one in doubt
 */
export function outvotedBy(history: History, reading: Reading): string[] {
  const beside = { ...history, readings: [...history.readings, reading] }
  const possibleIn = ({ readings, ...rest }: History, each: Reading) =>
    judgeReading({ ...rest, readings: readings.filter(({ id }) => id !== each.id) }, each).possible
  return history.readings
    .filter((each) => possibleIn(history, each) && !possibleIn(beside, each))
    .map(({ id }) => id)
}

/** The accepted readings next to one in doubt, each once. */
function suspects(accepted: Reading[], doubted: Reading[]): Reading[] {
  const inOrder = [...accepted].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
  const next = doubted.flatMap(({ at }) => {
    const after = inOrder.findIndex((each) => each.at > at)
    return after < 0 ? [inOrder.at(-1)] : [inOrder[after - 1], inOrder[after]]
  })
  return [...new Set(next)].filter((each) => each !== undefined)
}
