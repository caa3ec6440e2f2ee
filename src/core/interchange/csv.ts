import Papa from 'papaparse'

/**
 * Rows as CSV after RFC 4180: commas, CRLF between records, quotes where they are needed. Text that a
 * spreadsheet would run as a formula (it begins with =, +, -, @, a tab or a line break) gets an
 * apostrophe in front; numbers stay numbers.
 *
 * @param columns the heads, in order
 * @param rows one value for each column; null is an empty cell
 * @example toCsv(['part', 'on hand'], [['=cmd()', -2]]) // 'part,on hand\r\n\'=cmd(),-2\r\n'
 */
export function toCsv(columns: string[], rows: (string | number | null)[][]): string {
  return `${Papa.unparse({ fields: columns, data: rows }, { newline: '\r\n', escapeFormulae: true })}\r\n`
}
