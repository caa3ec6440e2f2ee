/** Level memories that are tried, in weeks; the one that missed least in the meter's own past is taken. */
const halfLives = [2, 4, 8, 16, 52, 300] as const
/** How much the last year as a whole says beside the recent weeks. */
const yearShare = 0.1

/** How the level of a meter's weeks is remembered; `levels[n]` is what the weeks before week n say of those to come. */
export type Memory = { levels: number[]; halfLife: number; miss: number }

/** The memory whose level missed the next four and twelve weeks least, in this meter's own past; eight weeks at first. */
export function bestMemory(weeks: number[]): Memory {
  const sums = sumsOf(weeks)
  const starts = changesIn(weeks, sums)
  const tried = halfLives.map((halfLife) => {
    const levels = levelsOf(weeks, sums, starts, halfLife)
    let miss = 0
    let looks = 0
    for (const horizon of [4, 12])
      for (let at = 6; at + horizon <= weeks.length; at += 1) {
        miss += Math.abs((sums[at + horizon]! - sums[at]!) / horizon - levels[at]!)
        looks += 1
      }
    return { levels, halfLife, miss: looks < 8 ? Infinity : miss / looks }
  })
  const least = Math.min(...tried.map(({ miss }) => miss))
  if (least === Infinity) return tried.find(({ halfLife }) => halfLife === 8)!
  // Of memories that missed about alike the longest is the calmest.
  return { ...tried.findLast(({ miss }) => miss <= least * 1.05 + 1e-6)!, miss: least }
}

/** `sums[n]` is the sum of the first n of a list. */
export function sumsOf(list: number[]): number[] {
  const sums = [0]
  for (const each of list) sums.push(sums.at(-1)! + each)
  return sums
}

/**
 * For each week the week from which on the machine is used at another level than before it: the split
 * of its last 60 weeks whose means differ most for their scatter (Student's t), where that is past 4;
 * else 0.
 */
function changesIn(weeks: number[], sums: number[]): number[] {
  const squares = sumsOf(weeks.map((each) => each ** 2))
  return Array.from({ length: weeks.length + 1 }, (_, until) => {
    const oldest = Math.max(0, until - 60)
    let best = { at: 0, t: 4 }
    for (let at = until - 3; at >= oldest + 4; at -= 1) {
      const from = Math.max(oldest, at - 26)
      const [before, after] = [at - from, until - at]
      const [was, is] = [(sums[at]! - sums[from]!) / before, (sums[until]! - sums[at]!) / after]
      const scatter = squares[until]! - squares[from]! - before * was ** 2 - after * is ** 2
      // Weeks that are all alike would make any difference look certain.
      const variance = Math.max(0, scatter) / (before + after - 2) + (0.05 * (was + is)) ** 2
      const t = Math.abs(is - was) / Math.sqrt(variance * (1 / before + 1 / after))
      if (t > best.t) best = { at, t }
    }
    return best.at
  })
}

/** The level before each week: exponentially weighted, recent weeks more, none before a change of level. */
function levelsOf(weeks: number[], sums: number[], starts: number[], halfLife: number): number[] {
  const weights = weeks.map((_, index) => 2 ** (-index / halfLife))
  return Array.from({ length: weeks.length + 1 }, (_, until) => {
    if (until === 0) return 0
    const start = starts[until]!
    let sum = 0
    let all = 0
    for (let index = start; index < until; index += 1) {
      const weight = weights[until - 1 - index]!
      sum += weight * weeks[index]!
      all += weight
    }
    // What stands still today is not laid up for ever: the year as a whole keeps a say.
    const from = Math.max(start, until - 52)
    const year = (sums[until]! - sums[from]!) / (until - from)
    return (1 - yearShare) * (sum / all) + yearShare * year
  })
}
