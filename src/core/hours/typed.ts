import { parseNumber, showNumber } from '../units'
import { judgeReading, type History, type Verdict } from './judge'
import { meterValue, readMeterValue } from './meterValue'
import { misplacedPoint } from './slips'

/** What becomes of a typed meter value before it is saved. */
export type TypedReading = {
  /** In the meter's unit; null while it is blank or cannot be read. */
  value: number | null
  /** Why it cannot be read, in one sentence; blank where it can, or nothing is typed. */
  refusal: string
  /** The value that would fit, where it looks like a slip or has more decimals than the meter shows. */
  suggestion: number | null
  /** Of the value; of 0 while there is none: its band and neighbours are right all the same. */
  verdict: Verdict
}

/**
 * Reads and judges a meter value as it is typed: one rule for the dialog, the round, the message that is
 * pasted and the bench. More decimals than the meter shows are refused, and named is the value that
 * fits this machine's use if only the point is misplaced.
 *
 * @param text as typed
 * @param history of the meter; the reading itself left out
 * @param at the instant it was read
 */
export function judgeTyped(text: string, history: History, at: string): TypedReading {
  const { face } = history
  const blank = text.trim() === ''
  const read = blank ? null : readMeterValue(text, face)
  const value = read?.ok ? meterValue(read.raw, face.decimals) : null
  const verdict = judgeReading(history, { at, value: value ?? 0 })
  if (value !== null) return { value, refusal: '', suggestion: verdict.suggestion, verdict }
  if (blank || !read || read.ok) return { value, refusal: '', suggestion: null, verdict }
  const parsed = parseNumber(text)
  const { band } = verdict
  const suggestion =
    parsed.ok && band && parsed.value > 0 && !Number.isInteger(parsed.value)
      ? misplacedPoint(parsed.value, face).find((each) => each >= band.low && each <= band.high)
      : undefined
  if (suggestion === undefined) return { value, refusal: read.reason, suggestion: null, verdict }
  const show = `${showNumber(suggestion, face.decimals)}\u00a0${face.unit}`
  return {
    value,
    refusal: `${read.reason} ${show} would fit: the decimal point is misplaced.`,
    suggestion,
    verdict,
  }
}
