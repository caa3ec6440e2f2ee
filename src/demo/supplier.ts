import { addDays, type Day } from '@/core/calendar'
import { readCsv, toCsv } from '@/core/interchange'

/** How the stand-in of a supplier behaves. */
export const supplierScenarios = {
  confirms: 'confirms everything for the day after a week, and sends it',
  delays: 'confirms everything, three weeks late',
  short: 'confirms and sends half of the first line, rounded down, and all of the others',
  substitutes: 'has not the first line, and offers another number instead',
  cut: 'sends a confirmation that was cut off in the middle',
} as const
export type SupplierScenario = keyof typeof supplierScenarios

export type SupplierAnswer = {
  /** The confirmation, as `readConfirmation` takes it in. */
  confirmation: string
  /** What it sends: for whoever counts it. */
  deliveryNote: string
  /** A price list with everything ordered: 4 % dearer, and with one price ten times too high. */
  priceList: string
}

/**
 * Answers an order file as a supplier would. Invented, for trying the whole way without one.
 *
 * @param order the CSV that Atelier hands out
 * @throws RangeError for a file that is no order
 */
export function answerOrder(order: string, scenario: SupplierScenario, today: Day): SupplierAnswer {
  const read = readCsv(order, ['order', 'line', 'supplier number', 'quantity', 'unit price'])
  if (!read.ok) throw new RangeError(read.reason)
  const lines = read.rows
    .filter(({ cells }) => cells.order !== 'END')
    .map(({ cells }, at) => {
      const ordered = Number(cells.quantity)
      const isFirst = at === 0
      const sent =
        scenario === 'short' && isFirst
          ? Math.floor(ordered / 2)
          : scenario === 'substitutes' && isFirst
            ? 0
            : ordered
      return {
        order: cells.order!,
        line: cells.line!,
        number: cells['supplier number']!,
        sent,
        ordered,
        price: Number(cells['unit price']),
        substitute: scenario === 'substitutes' && isFirst ? `${cells['supplier number']}-B` : '',
      }
    })
  const promised = addDays(today, scenario === 'delays' ? 21 : 8)
  const confirmation = toCsv(
    ['order', 'line', 'quantity', 'promised', 'substitute', 'note'],
    [
      ...lines.map(({ order: number, line, sent, ordered, substitute }) => [
        number,
        line,
        sent,
        sent > 0 ? promised : null,
        substitute,
        sent < ordered ? 'not more in stock' : '',
      ]),
      ['END', lines.length, null, null, null, null],
    ],
  )
  return {
    confirmation:
      scenario === 'cut' ? confirmation.slice(0, Math.floor(confirmation.length * 0.6)) : confirmation,
    deliveryNote: toCsv(
      ['note', 'order', 'line', 'number', 'quantity'],
      lines
        .filter(({ sent }) => sent > 0)
        .map(({ order: number, line, number: own, sent }) => [`DN-${number}-1`, number, line, own, sent]),
    ),
    priceList: toCsv(
      ['number', 'price'],
      lines.map(({ number, price }, at) => [number, (price * (at === 0 ? 10.4 : 1.04)).toFixed(2)]),
    ),
  }
}
