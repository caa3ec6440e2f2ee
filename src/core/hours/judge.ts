import { daysBetweenInstants } from '../calendar'
import { showNumber } from '../units'
import { cumulativeHours, offsetAt, type CumulativeLine } from './cumulative'
import { possibleSlips } from './slips'
import type { MeterEvent, MeterFace, Reading, Standing } from './types'
import { dailyUse, plausibleUse, standingDays, workingDays } from './usage'

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

export type History = {
  face: MeterFace
  readings: Reading[]
  events: MeterEvent[]
  /** When its machine was or is laid up; left out, it never was. */
  standing?: Standing[]
}

/**
 * A reading or event next to the one that is judged. `value` is what the counter would have shown had it
 * not been turned in between, so that it can be compared; `shown` is what it did show.
 */
type Neighbour = { at: string; value: number; shown: number; event: boolean }

/** Whether a reading with this verdict drives clocks at once, without anybody looking. */
export function isAcceptedAtOnce(kind: VerdictKind): boolean {
  return kind === 'first' || kind === 'fits'
}

/**
 * Judges a reading against the accepted readings around it.
 *
 * Impossible is what contradicts them: less than the one before, more than the one after, or, for an
 * hour meter, more than 24 h a day (with slack for rounding when readings are minutes apart).
 * High and low are outside the 99 % band of this machine's own use, scaled by the gap in days; days on
 * which it was laid up count next to nothing.
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
  const { face, events, standing = [] } = history
  const line = cumulativeHours(history.readings, events)
  const { previous, next } = neighbours(line, events, candidate.at)
  const band = bandAt(line, previous, next, candidate.at, face, standing)
  const against = contradiction(face, previous, next, candidate)
  const facts = {
    possible: against === undefined,
    band,
    suggestion: null,
    previous: previous && { at: previous.at, value: previous.shown },
    next: next && { at: next.at, value: next.shown },
    used: previous ? candidate.value - previous.value : null,
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
      const stands = previous && standingDays(previous.at, candidate.at, standing) > 0
      return verdict(
        'high',
        `High for ${stands ? 'a machine that was laid up' : 'this machine'}: ${show(band.low)} to ${show(band.high)} would be usual.`,
      )
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
  if (previous && !next && candidate.value < previous.value) {
    const days = daysBetweenInstants(previous.at, candidate.at)
    const possible = face.unit === 'h' ? 24 * days + 1 : Infinity
    if (face.digits !== null) {
      const used = candidate.value + 10 ** face.digits - previous.value
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
 * @param vouched ids of those that a person has vouched for: they count as soon as nothing contradicts them
 * @returns the verdict of each doubted reading, and whether it may drive clocks again
 */
export function judgeAgain(
  history: History,
  doubted: Reading[],
  vouched: ReadonlySet<string> = new Set(),
): { id: string; verdict: Verdict; counts: boolean }[] {
  const accepted = [...history.readings]
  const judged = [...doubted]
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .map((reading) => {
      const verdict = judgeReading({ ...history, readings: accepted }, reading)
      const counts = isAcceptedAtOnce(verdict.kind)
      if (counts) accepted.push(reading)
      return { reading, verdict, counts }
    })
  // What somebody vouched for comes after what needs nobody's word: it must not push that out.
  return judged.map(({ reading, ...first }) => {
    if (first.counts || !vouched.has(reading.id)) return { id: reading.id, ...first }
    const verdict = judgeReading({ ...history, readings: accepted }, reading)
    if (verdict.possible) accepted.push(reading)
    return { id: reading.id, verdict, counts: verdict.possible }
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

/** What stands before and after an instant, on the counter's scale of that instant. */
function neighbours(line: CumulativeLine, events: MeterEvent[], at: string) {
  const offset = offsetAt(line, at)
  const index = line.points.findLastIndex((point) => point.at <= at)
  const [before, after] = [line.points[index], line.points[index + 1]]
  const previous: Neighbour | null = before
    ? { at: before.at, value: before.hours - offset, shown: before.shown, event: before.source === 'event' }
    : null
  return { previous, next: after ? nextOf(after, events, offset) : null }
}

function nextOf(
  point: CumulativeLine['points'][number],
  events: MeterEvent[],
  offset: number,
): Neighbour | null {
  const event = point.source === 'event' ? events.find(({ id }) => id === point.id) : undefined
  if (!event) return { at: point.at, value: point.hours - offset, shown: point.shown, event: false }
  // What the old meter showed last stands against a reading only if somebody read it.
  if (event.kind !== 'change' || event.lastValue === null || event.assumed) return null
  return { at: point.at, value: event.lastValue, shown: event.lastValue, event: true }
}

function bandAt(
  line: CumulativeLine,
  previous: Neighbour | null,
  next: Neighbour | null,
  at: string,
  face: MeterFace,
  standing: Standing[],
) {
  if (!previous) return null
  const days = workingDays(previous.at, at, standing)
  const use = plausibleUse(dailyUse(line, at, standing), days, face.unit)
  const cap = next ? next.value : Infinity
  const from = (used: number) => Math.max(0, Math.min(previous.value + used, cap))
  return {
    expected: from(use.expected),
    low: next ? Math.max(0, previous.value) : from(use.low),
    high: from(use.high),
  }
}

/** Why a value cannot be, in one sentence, or undefined where nothing contradicts it. */
function contradiction(
  face: MeterFace,
  previous: Neighbour | null,
  next: Neighbour | null,
  { at, value }: { at: string; value: number },
): string | undefined {
  const show = (amount: number) => `${showNumber(amount, face.decimals)}\u00a0${face.unit}`
  // Both readings may be rounded, and a clock may be a few minutes out.
  const slack = 10 ** -face.decimals + 0.1
  if (face.digits !== null && value >= 10 ** face.digits) {
    return `This meter has only ${face.digits} digits before the point.`
  }
  if (previous && value < previous.value) {
    return previous.event
      ? `Runs backwards: the new meter started at ${show(previous.shown)}.`
      : `Runs backwards: the previous reading was ${show(previous.shown)}.`
  }
  if (next && value > next.value) {
    return next.event
      ? `Above what the old meter showed last, ${show(next.shown)}.`
      : `Above the reading after it, ${show(next.shown)}.`
  }
  if (face.unit !== 'h') return undefined
  const daysSince = previous ? daysBetweenInstants(previous.at, at) : 0
  if (previous && value - previous.value > 24 * daysSince + slack) {
    return previous.event
      ? `More than 24 hours a day since the new meter was fitted at ${show(previous.shown)}.`
      : `More than 24 hours a day since the previous reading, ${show(previous.shown)}.`
  }
  const daysUntil = next ? daysBetweenInstants(at, next.at) : 0
  if (next && next.value - value > 24 * daysUntil + slack) {
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
