import { daysBetweenInstants } from '../calendar'
import { showNumber } from '../units/quantity'
import { cumulativeHours, type CumulativeLine, type CumulativePoint } from './cumulative'
import { possibleSlips } from './slips'
import type { MeterEvent, MeterFace, Reading } from './types'
import { dailyUse, plausibleUse } from './usage'

export type VerdictKind = 'first' | 'fits' | 'high' | 'low' | 'impossible' | 'slip' | 'newMeter' | 'rollOver'

/** What the judge makes of a reading. Values are what the counter shows, in the meter's unit. */
export type Verdict = {
  kind: VerdictKind
  /** Nothing contradicts it: a person who has looked again may vouch for it. */
  possible: boolean
  /** One sentence in plain words, without a date. */
  reason: string
  /** What the counter would plausibly show at that instant; null before anything is known. */
  band: { expected: number; low: number; high: number } | null
  /** The value that would fit, where what was typed looks like a slip. */
  suggestion: number | null
  /** The accepted readings around it, as the counter showed them. */
  previous: { at: string; value: number } | null
  next: { at: string; value: number } | null
  /** Use since the previous reading, where that makes sense. */
  used: number | null
}

export type History = { face: MeterFace; readings: Reading[]; events: MeterEvent[] }

/** Whether a reading with this verdict drives clocks at once, without anybody looking. */
export function isAcceptedAtOnce(kind: VerdictKind): boolean {
  return kind === 'first' || kind === 'fits'
}

/**
 * Judges a reading against the accepted readings around it.
 *
 * Impossible is what contradicts them: less than the one before, more than the one after, or, for an
 * hour meter, more than 24 h a day (with slack for rounding when readings are minutes apart).
 * High and low are outside the 99 % band of this machine's own use, scaled by the gap in days.
 * What does not fit is then tried for an explanation: a slip of the hand that would fit the band, a
 * roll-over (only where the meter's digits are known and the use is possible), a new meter near zero.
 * What contradicts its neighbours cannot be vouched for, only corrected, withdrawn or explained.
 *
 * @param history accepted readings and meter events of one meter, any order; the candidate left out
 * @param candidate instant (ISO UTC) and value in the meter's unit
 * @returns a verdict; nothing is thrown
 * @example
 * judgeReading(
 *   { face: { unit: 'h', digits: 5, decimals: 1 }, events: [], readings: [
 *     { id: 'a', at: '2026-10-01T08:00:00.000Z', value: 4790.2 },
 *     { id: 'b', at: '2026-10-08T08:00:00.000Z', value: 4812.6 } ] },
 *   { at: '2026-10-14T08:00:00.000Z', value: 48351 },
 * ) // { kind: 'slip', suggestion: 4835.1, … }
 */
export function judgeReading(history: History, candidate: { at: string; value: number }): Verdict {
  const { face, events } = history
  const line = cumulativeHours(history.readings, events)
  const { previous, next } = neighbours(line, events, candidate.at)
  const band = bandAt(line, previous, next, candidate.at, face)
  const against = contradiction(face, previous, next, candidate)
  const facts = {
    possible: against === undefined,
    band,
    suggestion: null,
    previous: previous && { at: previous.at, value: previous.shown },
    next: next && { at: next.at, value: next.shown },
    used: previous ? candidate.value - previous.shown : null,
  }
  const verdict = (kind: VerdictKind, reason: string, more: Partial<Verdict> = {}): Verdict => ({
    kind,
    reason,
    ...facts,
    ...more,
  })
  const show = (value: number) => `${showNumber(value, face.decimals)}\u00a0${face.unit}`

  if (!against) {
    if (!band) return verdict('first', 'The first reading of this meter.')
    const rounding = 10 ** -face.decimals
    if (candidate.value > band.high + rounding) {
      const slip = fittingSlip(candidate.value, face, band, false)
      if (slip)
        return verdict('slip', `${show(slip.value)} would fit: ${slip.how}.`, { suggestion: slip.value })
      return verdict('high', `High for this machine: ${show(band.low)} to ${show(band.high)} would be usual.`)
    }
    if (candidate.value < band.low - rounding) {
      const slip = fittingSlip(candidate.value, face, band, false)
      if (slip)
        return verdict('slip', `${show(slip.value)} would fit: ${slip.how}.`, { suggestion: slip.value })
      return verdict('low', `Low for this machine: ${show(band.low)} to ${show(band.high)} would be usual.`)
    }
    return verdict('fits', 'Fits this machine’s use.')
  }

  const slip = band && fittingSlip(candidate.value, face, band, true)
  if (slip && slip.sure) {
    return verdict('slip', `${against} ${show(slip.value)} would fit: ${slip.how}.`, {
      suggestion: slip.value,
    })
  }
  if (previous && !next && candidate.value < previous.shown) {
    const days = daysBetweenInstants(previous.at, candidate.at)
    const possible = face.unit === 'h' ? 24 * days + 1 : Infinity
    if (face.digits !== null) {
      const used = candidate.value + 10 ** face.digits - previous.shown
      if (used <= possible && used <= 0.1 * 10 ** face.digits) {
        return verdict(
          'rollOver',
          `Fits if the counter went through zero: ${show(used)} since the previous reading.`,
          { used },
        )
      }
    }
    const nearZero = candidate.value <= Math.min(possible, 0.25 * previous.shown)
    if (nearZero) {
      return verdict(
        'newMeter',
        `Far below the previous ${show(previous.shown)}: a new meter would show about this.`,
        { used: null },
      )
    }
  }
  if (slip) {
    return verdict('slip', `${against} ${show(slip.value)} would fit: ${slip.how}.`, {
      suggestion: slip.value,
    })
  }
  return verdict('impossible', against)
}

/**
 * Judges again the readings that are in doubt, after something around them was corrected or explained.
 * They are taken in time order, and one that now fits helps to judge the next.
 *
 * @param history accepted readings and events
 * @param doubted readings in doubt
 * @returns the verdict of each doubted reading; those for which `isAcceptedAtOnce` may drive clocks again
 */
export function judgeAgain(history: History, doubted: Reading[]): { id: string; verdict: Verdict }[] {
  const accepted = [...history.readings]
  return [...doubted]
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .map((reading) => {
      const verdict = judgeReading({ ...history, readings: accepted }, reading)
      if (isAcceptedAtOnce(verdict.kind)) accepted.push(reading)
      return { id: reading.id, verdict }
    })
}

/**
 * Judges the accepted readings after an instant again, when what stood before them was corrected or
 * withdrawn. Those that now contradict what stands before them fall into doubt; the first one after the
 * instant also where it merely does not fit any more, unless a person vouched for it.
 *
 * @param history accepted readings as they now stand, and events
 * @param since the instant of the reading that was settled otherwise
 * @param vouched ids of readings that a person has vouched for
 * @returns the readings that no longer count, with their new verdicts, in time order
 * @example
 * // 100 h corrected to 180 h; the next reading, 112 h, now runs backwards
 * judgeLater(history, at, new Set()) // [{ id: 'next', verdict: { kind: 'impossible', … } }]
 */
export function judgeLater(
  history: History,
  since: string,
  vouched: ReadonlySet<string>,
): { id: string; verdict: Verdict }[] {
  const inOrder = [...history.readings].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
  const standing = inOrder.filter((reading) => reading.at <= since)
  const fallen: { id: string; verdict: Verdict }[] = []
  for (const [index, reading] of inOrder.filter((each) => each.at > since).entries()) {
    const verdict = judgeReading({ ...history, readings: standing }, reading)
    const stays =
      isAcceptedAtOnce(verdict.kind) || (verdict.possible && (index > 0 || vouched.has(reading.id)))
    if (stays) standing.push(reading)
    else fallen.push({ id: reading.id, verdict })
  }
  return fallen
}

/** The points before and after an instant that the counter's own face can be compared with. */
function neighbours(line: CumulativeLine, events: MeterEvent[], at: string) {
  const segment = events.filter((event) => event.at <= at).length
  let previous: CumulativePoint | null = null
  let next: CumulativePoint | null = null
  for (const point of line.points) {
    if (point.segment !== segment) continue
    if (point.at <= at) previous = point
    else if (!next) next = point
  }
  return { previous, next }
}

function bandAt(
  line: CumulativeLine,
  previous: CumulativePoint | null,
  next: CumulativePoint | null,
  at: string,
  face: MeterFace,
) {
  if (!previous) return null
  const days = daysBetweenInstants(previous.at, at)
  const use = plausibleUse(dailyUse(line, at), days, face.unit)
  const cap = next ? next.shown : Infinity
  const from = (used: number) => Math.min(previous.shown + used, cap)
  return { expected: from(use.expected), low: next ? previous.shown : from(use.low), high: from(use.high) }
}

/** Why a value cannot be, in one sentence, or undefined where nothing contradicts it. */
function contradiction(
  face: MeterFace,
  previous: CumulativePoint | null,
  next: CumulativePoint | null,
  { at, value }: { at: string; value: number },
): string | undefined {
  const show = (amount: number) => `${showNumber(amount, face.decimals)}\u00a0${face.unit}`
  // Both readings may be rounded, and a clock may be a few minutes out.
  const slack = 10 ** -face.decimals + 0.1
  if (face.digits !== null && value >= 10 ** face.digits) {
    return `This meter has only ${face.digits} digits before the point.`
  }
  if (previous && value < previous.shown) {
    return `Runs backwards: the previous reading was ${show(previous.shown)}.`
  }
  if (next && value > next.shown) return `Above the reading after it, ${show(next.shown)}.`
  if (face.unit !== 'h') return undefined
  const daysSince = previous ? daysBetweenInstants(previous.at, at) : 0
  if (previous && value - previous.shown > 24 * daysSince + slack) {
    return `More than 24 hours a day since the previous reading, ${show(previous.shown)}.`
  }
  const daysUntil = next ? daysBetweenInstants(at, next.at) : 0
  if (next && next.shown - value > 24 * daysUntil + slack) {
    return `Would leave more than 24 hours a day to the reading after it, ${show(next.shown)}.`
  }
  return undefined
}

/**
 * The likeliest slip whose value fits the band. What is impossible may be explained by a value up to twice
 * as far out as the band: a misplaced point after a busy week is still a misplaced point. A missing
 * digit fits almost anything in a wide band, so it must lie inside it, and is never `sure`.
 */
function fittingSlip(
  value: number,
  face: MeterFace,
  band: { expected: number; low: number; high: number },
  impossible: boolean,
) {
  const further = impossible ? band.high + (band.high - band.low) : band.high
  const fitting = possibleSlips(value, face)
    .map((slip) => ({
      ...slip,
      sure: slip.how !== 'a digit is missing',
      off: Math.abs(slip.value - band.expected),
    }))
    .filter((slip) => slip.value >= band.low && slip.value <= (slip.sure ? further : band.high))
    .filter((slip) => impossible || slip.sure)
  const inside = fitting.filter((slip) => slip.value <= band.high)
  const candidates = inside.length > 0 ? inside : fitting
  // They come with the likeliest kind of slip first; of one kind the value nearest to what is expected.
  return candidates.filter((slip) => slip.how === candidates[0]?.how).sort((a, b) => a.off - b.off)[0]
}
