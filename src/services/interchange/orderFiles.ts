import 'server-only'
import { orderColumns, orderCsv, orderRows } from '@/core/stores'
import type { Actor } from '../house'
import { orderFile } from '../stores'

/** An order as it goes to the supplier: the same columns in CSV and in a spreadsheet. */
export async function exportOrder(
  actor: Actor,
  reference: string,
  format: 'csv' | 'xlsx',
): Promise<{ name: string; type: string; body: Uint8Array }> {
  const { order, number, lines } = await orderFile(actor, reference)
  if (format === 'csv')
    return {
      name: `order-${number}.csv`,
      type: 'text/csv; charset=utf-8; header=present',
      body: new TextEncoder().encode(orderCsv(number, order.currency, lines)),
    }
  // Large, and seldom asked for: it is loaded then.
  const { default: ExcelJS } = await import('exceljs')
  const book = new ExcelJS.Workbook()
  book.creator = 'Atelier'
  const sheet = book.addWorksheet(`Order ${number}`)
  sheet.addRow(orderColumns).font = { bold: true }
  for (const row of orderRows(number, order.currency, lines)) {
    const added = sheet.addRow(row)
    // Numbers are numbers there: a spreadsheet adds them up.
    added.getCell(9).value = Number(row[8])
    added.getCell(9).numFmt = '0.00'
  }
  sheet.columns.forEach((column, at) => {
    column.width = [8, 6, 18, 14, 16, 34, 10, 8, 11, 9, 12][at] ?? 12
  })
  sheet.views = [{ state: 'frozen', ySplit: 1 }]
  return {
    name: `order-${number}.xlsx`,
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    body: new Uint8Array(await book.xlsx.writeBuffer()),
  }
}
