import { isDay, type Day } from '../calendar'
import { readCsv, toCsv, type CsvRow } from '../interchange'
import { parseNumber, readMoney } from '../units'
import { tidy } from './stock'

/** One line of an order as it goes to the supplier. */
export type OrderFileLine = {
  line: number
  supplierNumber: string
  ourNumber: string
  makersNumber: string
  name: string
  quantity: number
  unit: string
  unitCents: number
  neededBy: Day | null
}

export const orderColumns = [
  ...['order', 'line', 'supplier number', 'our number', 'maker’s number', 'name'],
  ...['quantity', 'unit', 'unit price', 'currency', 'needed by'],
]

/** The rows of an order's file, the same for CSV and spreadsheet. */
export function orderRows(
  order: string,
  currency: string,
  lines: OrderFileLine[],
): (string | number | null)[][] {
  return lines.map((each) => [
    ...[order, each.line, each.supplierNumber, each.ourNumber, each.makersNumber, each.name],
    ...[each.quantity, each.unit, (each.unitCents / 100).toFixed(2), currency, each.neededBy],
  ])
}

/** An order as CSV. It ends with a row `END` and how many lines there were, by which a cut file shows. */
export function orderCsv(order: string, currency: string, lines: OrderFileLine[]): string {
  return toCsv(orderColumns, [
    ...orderRows(order, currency, lines),
    ['END', lines.length, ...orderColumns.slice(2).map(() => null)],
  ])
}

/** What the supplier says to one line of an order. */
export type ConfirmedLine = {
  line: number
  quantity: number
  promisedOn: Day | null
  /** Another number that the supplier would send instead. */
  substitute: string
  note: string
}

type Read<T> = { ok: true; value: T } | { ok: false; reason: string }

/**
 * Reads a supplier's confirmation: `order`, `line`, `quantity`, and if it likes `promised`, `substitute`,
 * `note`. A line that it leaves out says nothing about it.
 *
 * @param order the number of the order that is answered
 * @param lines the lines it has
 */
export function readConfirmation(text: string, order: string, lines: number[]): Read<ConfirmedLine[]> {
  const read = rowsOf(text, ['order', 'line', 'quantity'])
  if (!read.ok) return read
  const seen = new Set<number>()
  const confirmed: ConfirmedLine[] = []
  for (const { line: at, cells } of read.value) {
    if (cells.order !== order)
      return fault(`Line ${at} answers order “${shown(cells.order)}”; this is order ${order}.`)
    const line = Number(cells.line)
    if (!lines.includes(line))
      return fault(`Line ${at} answers line “${shown(cells.line)}”, which the order has not.`)
    if (seen.has(line)) return fault(`Line ${line} of the order is answered twice.`)
    seen.add(line)
    const quantity = amountIn(cells.quantity)
    if (!quantity.ok) return fault(`Line ${at}: ${quantity.reason}`)
    const promised = cells.promised ?? ''
    if (promised !== '' && !isDay(promised))
      return fault(`Line ${at}: “${shown(promised)}” is no day. It has to be like 2026-10-14.`)
    confirmed.push({
      line,
      quantity: quantity.value,
      promisedOn: promised === '' ? null : promised,
      substitute: (cells.substitute ?? '').slice(0, 40),
      note: (cells.note ?? '').slice(0, 300),
    })
  }
  return { ok: true, value: confirmed }
}

/** A price that a supplier asks for, of something that we have under its number. */
export type PriceChange = {
  supplierNumber: string
  unitCents: number
  packSize: number | null
  leadDays: number | null
}

export type PriceList = {
  changes: PriceChange[]
  /** Numbers that we do not buy there: they are left. */
  foreign: string[]
  /** Prices that are more than three times, or less than a third of, what we paid so far: likely a mistake. */
  doubtful: { supplierNumber: string; beforeCents: number; unitCents: number }[]
}

/** A price that changes by more than this is asked about; ours. */
export const doubtfulFactor = 3

/**
 * Reads a price list: `number`, `price`, and if it likes `pack` and `lead days`. All or nothing: a number
 * that stands twice with different prices, a price that is none, or a file that was cut off is refused
 * with its line. Numbers that we do not know are left out and named.
 *
 * @param known by the supplier's number, what we pay so far
 */
export function readPriceList(text: string, known: Map<string, { unitCents: number }>): Read<PriceList> {
  const read = rowsOf(text, ['number', 'price'])
  if (!read.ok) return read
  const changes = new Map<string, PriceChange>()
  const seen = new Map<string, PriceChange & { at: number }>()
  const foreign: string[] = []
  const doubtful: PriceList['doubtful'] = []
  for (const { line: at, cells } of read.value) {
    const number = cells.number!
    if (number === '') return fault(`Line ${at} names no number.`)
    const money = readMoney(cells.price!)
    if (!money.ok) return fault(`Line ${at}, ${shown(number)}: ${money.reason}`)
    if (money.cents === 0) return fault(`Line ${at}, ${shown(number)}: the price is nothing.`)
    const pack = wholeIn(cells.pack, 1, 1000)
    const lead = wholeIn(cells['lead days'], 0, 730)
    if (pack === undefined) return fault(`Line ${at}, ${shown(number)}: “${shown(cells.pack)}” is no pack.`)
    if (lead === undefined)
      return fault(`Line ${at}, ${shown(number)}: “${shown(cells['lead days'])}” are no days.`)
    const before = seen.get(number)
    if (before && (before.unitCents !== money.cents || before.packSize !== pack))
      return fault(`${shown(number)} stands on line ${before.at} and on line ${at} with different terms.`)
    const change = { supplierNumber: number, unitCents: money.cents, packSize: pack, leadDays: lead }
    seen.set(number, { ...change, at })
    const ours = known.get(number)
    if (!ours) {
      if (!foreign.includes(number)) foreign.push(number)
      continue
    }
    if (
      !before &&
      ours.unitCents > 0 &&
      (money.cents > ours.unitCents * doubtfulFactor || money.cents * doubtfulFactor < ours.unitCents)
    )
      doubtful.push({ supplierNumber: number, beforeCents: ours.unitCents, unitCents: money.cents })
    changes.set(number, change)
  }
  return {
    ok: true,
    value: { changes: [...changes.values()], foreign, doubtful },
  }
}

/** The rows, without the one that says how many there are; it has to say so rightly. */
function rowsOf(text: string, needed: string[]): Read<CsvRow[]> {
  const read = readCsv(text, needed)
  if (!read.ok) return read
  const [first, second] = needed as [string, string]
  const end = read.rows.findIndex(({ cells }) => cells[first] === 'END')
  if (end === -1) return { ok: true, value: read.rows }
  const rows = read.rows.slice(0, end)
  if (end !== read.rows.length - 1)
    return fault(`There is more below the last line, ${read.rows[end]!.line}.`)
  if (Number(read.rows[end]!.cells[second]) !== rows.length)
    return fault(
      `The file says that it has ${shown(read.rows[end]!.cells[second])} lines, and ${rows.length} are there: it was cut.`,
    )
  return rows.length === 0 ? fault('There is nothing below the head.') : { ok: true, value: rows }
}

const fault = (reason: string) => ({ ok: false as const, reason })
const shown = (text: string | undefined) => (text ?? '').slice(0, 40)

function amountIn(text: string | undefined): Read<number> {
  const parsed = parseNumber(text ?? '', 3)
  if (!parsed.ok) return parsed
  if (parsed.value < 0) return fault('A quantity is not less than 0.')
  return parsed.value > 1_000_000
    ? fault('That is more than anybody sends.')
    : { ok: true, value: tidy(parsed.value) }
}

/** Null for a blank, undefined for what is none. */
function wholeIn(text: string | undefined, min: number, max: number): number | null | undefined {
  if (text === undefined || text === '') return null
  const value = Number(text)
  return Number.isInteger(value) && value >= min && value <= max ? value : undefined
}
