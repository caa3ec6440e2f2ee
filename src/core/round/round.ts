import { unpackReadings, type History } from '../hours'
import { parseNumber } from '../units'
import type { RoundRow } from './views'

/** Where a machine stands on the way through the yards. */
export type RoundStop = { number: string; yardName: string; bay: string; crew: string }

/**
 * The order in which a round is walked: yard by yard, bay by bay as people number them (2 before 11),
 * then by machine number. Machines without a bay come last in their yard. By crew, each crew's machines
 * come together, in the same order among themselves; those that are nobody's own come last.
 */
export function inWalkingOrder<Stop extends RoundStop>(stops: Stop[], by: 'yard' | 'crew' = 'yard'): Stop[] {
  const natural = (a: string, b: string) => a.localeCompare(b, 'en', { numeric: true })
  const crewFirst = (a: Stop, b: Stop) =>
    by === 'crew' ? Number(a.crew === '') - Number(b.crew === '') || natural(a.crew, b.crew) : 0
  return [...stops].sort(
    (a, b) =>
      crewFirst(a, b) ||
      natural(a.yardName, b.yardName) ||
      Number(a.bay === '') - Number(b.bay === '') ||
      natural(a.bay, b.bay) ||
      natural(a.number, b.number),
  )
}

/** One line of a pasted message, matched to a machine as far as it can be. */
export type PastedLine = {
  text: string
  /** The machine it names; null where it names none, or more than one would do. */
  number: string | null
  /** The value as typed, without the machine; blank where there is none. */
  typed: string
  /** Why it cannot be taken as it stands, or blank. */
  doubt: string
}

const bare = (text: string) => text.toLowerCase().replace(/[^a-z0-9]/g, '')

/**
 * Reads a message with several "machine reading" lines, or a bare column of values.
 *
 * A machine is named by its number, written with or without dash and blanks (`T-04`, `t4` is not enough,
 * `T 04:`), at the start or the end of a line, or by its name. A column of bare values is matched to
 * `expected` in its order. A machine named twice, a line without a value and a value without a machine
 * are kept with the sentence that says so; nothing is guessed.
 *
 * @param text what was pasted: lines, or one line with commas or semicolons between machines
 * @param machines every machine that could be meant
 * @param expected the numbers a bare column is for, in order
 * @example readMessage('T04 5246.8\nhull trailer: 4835,1 h', machines, []) // two lines, T-04 and T-09
 */
export function readMessage(
  text: string,
  machines: { number: string; name: string }[],
  expected: string[],
): PastedLine[] {
  const lines = text
    .split(/\r?\n|;|\t*\n/)
    .map((line) => line.replace(/\t/g, ' ').trim())
    .filter((line) => line !== '')
  const column = lines.length > 0 && lines.every((line) => parseNumber(line).ok)
  if (column)
    return lines.map((line, index) => ({
      text: line,
      number: expected[index] ?? null,
      typed: line,
      doubt: expected[index] === undefined ? 'There are more values than machines to read.' : '',
    }))
  const read = lines.map((line) => readLine(line, machines))
  return read.map((line, index) =>
    line.number !== null && read.some((other, at) => at !== index && other.number === line.number)
      ? { ...line, doubt: `${line.number} is named twice.` }
      : line,
  )
}

function readLine(text: string, machines: { number: string; name: string }[]): PastedLine {
  const found = machines
    .flatMap((machine) => {
      const rest = without(text, machine.number) ?? without(text, machine.name)
      return rest === null ? [] : [{ number: machine.number, rest }]
    })
    // "T-1" is also found in "T-12": what leaves the least behind names it best.
    .sort((a, b) => a.rest.length - b.rest.length)
  const [best, second] = found
  if (!best) return { text, number: null, typed: '', doubt: 'Names no machine.' }
  if (second && second.rest.length === best.rest.length)
    return { text, number: null, typed: '', doubt: `Could be ${best.number} or ${second.number}.` }
  // Blanks stand between thousands only: "5 246.8" is one number, "5246 5250" are two.
  const values = (best.rest.match(/\d{1,3}(?:[ ’']\d{3})+(?!\d)(?:[.,]\d+)?|\d[\d.,]*/g) ?? []).map((value) =>
    value.replace(/[.,]+$/, ''),
  )
  if (values.length === 0) return { text, number: best.number, typed: '', doubt: 'Has no value.' }
  if (values.length > 1)
    return { text, number: best.number, typed: values[0]!, doubt: 'Has more than one number.' }
  return { text, number: best.number, typed: values[0]!, doubt: '' }
}

/** A line with a name taken off it, wherever it stood as words of its own; null where it is not there. */
function without(text: string, name: string): string | null {
  const wanted = bare(name)
  if (wanted === '') return null
  const pattern = [...wanted].join('[^a-z0-9]*')
  const match = new RegExp(`(^|[^a-z0-9])(${pattern})(?![a-z0-9])`, 'i').exec(text)
  if (!match) return null
  return `${text.slice(0, match.index)} ${text.slice(match.index + match[0].length)}`.trim()
}

/** The use of the last weeks up to an instant, oldest first; null for weeks before the first point. */
export function usePerWeek(
  line: { at: string; hours: number }[],
  until: string,
  weeks: number,
  hoursAt: (at: string) => number | null,
): (number | null)[] {
  const first = line[0]?.at
  return Array.from({ length: weeks }, (_, index) => {
    const to = new Date(Date.parse(until) - (weeks - 1 - index) * 7 * 86_400_000).toISOString()
    const from = new Date(Date.parse(to) - 7 * 86_400_000).toISOString()
    if (!first || from < first) return null
    return Math.max(0, (hoursAt(to) ?? 0) - (hoursAt(from) ?? 0))
  })
}

const histories = new WeakMap<RoundRow['history'], History>()

/** What a row's reading is judged by; unpacked once, when it is first asked for. */
export function historyOf({ face, history }: Pick<RoundRow, 'face' | 'history'>): History {
  const known = histories.get(history)
  if (known) return known
  const made = { ...history, face, readings: unpackReadings(history.readings) }
  histories.set(history, made)
  return made
}
