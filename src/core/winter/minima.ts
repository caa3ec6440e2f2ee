import { isDay, type Day } from '../calendar'
import { readCsv } from '../interchange'
import { parseNumber } from '../units'

export type DailyMinimum = { day: Day; minC: number }
type Read<T> = { ok: true; value: T } | { ok: false; reason: string }

/** What the column of minima may be called, in small letters, and in which unit it is then. */
const minimumColumns: Readonly<Record<string, 'C' | 'F' | null>> = {
  'min c': 'C',
  'min °c': 'C',
  'minimum °c': 'C',
  min_c: 'C',
  minc: 'C',
  'min f': 'F',
  'min °f': 'F',
  'minimum °f': 'F',
  min_f: 'F',
  minf: 'F',
  min: null,
  minimum: null,
  tmin: null,
}

/**
 * Reads a file of daily minima: a column `day` (2019-11-07) and one of `min °C`, `min °F` or plain `min`.
 *
 * Plain figures are taken as °C unless they cannot be: a place whose coldest night is above freezing and whose
 * warmest is above 35 was written down in °F, and that is asked, never guessed. Blank cells are gaps.
 *
 * @param asked in which unit plain figures are, once somebody has said
 * @returns all days, or a sentence that says what is wrong and on which line; nothing of a faulty file is taken
 */
export function readMinima(text: string, asked: 'C' | 'F' | null = null): Read<DailyMinimum[]> {
  const read = readCsv(text, ['day'])
  if (!read.ok) return read
  const columns = Object.keys(read.rows[0]!.cells)
  const column = columns.find((name) => name in minimumColumns)
  if (column === undefined) return fault('There is no column of minima: call it “min °C” or “min °F”.')
  const known = new Map<Day, { minC: number; line: number }>()
  const figures: { day: Day; value: number; line: number }[] = []
  for (const { line, cells } of read.rows) {
    const day = cells.day!
    if (!isDay(day)) return fault(`“${day.slice(0, 20)}” on line ${line} is no day: write 2019-11-07.`)
    if (cells[column] === '') continue
    const parsed = parseNumber(cells[column]!, 1)
    if (!parsed.ok) return fault(`Line ${line}: ${parsed.reason}`)
    figures.push({ day, value: parsed.value, line })
  }
  if (figures.length === 0) return fault('There is not one minimum in this file.')
  const unit = minimumColumns[column] ?? asked ?? (looksLikeFahrenheit(figures) ? null : 'C')
  if (unit === null)
    return fault(
      'These figures look like °F: no night at or below 0, and some above 35. Say in which unit they are.',
    )
  for (const { day, value, line } of figures) {
    const minC = unit === 'C' ? value : Math.round(((value - 32) / 1.8) * 100) / 100
    if (minC < -75 || minC > 50) return fault(`Line ${line}: ${value} °${unit} is no minimum of a yard.`)
    const before = known.get(day)
    if (before && before.minC !== minC)
      return fault(`${day} stands on line ${before.line} and on line ${line}, with two different minima.`)
    known.set(day, { minC, line })
  }
  return {
    ok: true,
    value: [...known].map(([day, { minC }]) => ({ day, minC })).sort((a, b) => (a.day < b.day ? -1 : 1)),
  }
}

const looksLikeFahrenheit = (figures: { value: number }[]) =>
  figures.every(({ value }) => value > 0) && figures.some(({ value }) => value > 35)

const fault = (reason: string) => ({ ok: false as const, reason })
