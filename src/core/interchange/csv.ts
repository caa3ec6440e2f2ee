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

/** A file of somebody else's is read up to this size; nobody's price list is longer. */
const longestFile = 4_000_000

/** One row of a file: its line, and its cells by the head of their column, in small letters. */
export type CsvRow = { line: number; cells: { [column: string]: string } }

/**
 * Reads a CSV of somebody else: separated by commas, semicolons or tabs, with a head.
 *
 * All or nothing: a quote that is never closed, or a row with fewer or more cells than the head, is a file
 * that was cut off or is not what it seems, and nothing of it is taken.
 *
 * @param needed the columns that have to be there, in small letters
 * @returns the rows, or a sentence that says what is wrong and on which line
 * @example readCsv('Number;Price\r\nA-1;2,50\r\n', ['number']) // { ok: true, rows: [{ line: 2, cells: { number: 'A-1', price: '2,50' } }] }
 */
export function readCsv(
  text: string,
  needed: string[],
): { ok: true; rows: CsvRow[] } | { ok: false; reason: string } {
  if (text.length > longestFile) return fault('The file is longer than any list of parts.')
  const bare = text.replace(/^\uFEFF/, '')
  if (bare.trim() === '') return fault('The file is empty.')
  if (bare.includes('\0')) return fault('This is no text file.')
  const [head = ''] = bare.split(/\r\n|\r|\n/, 1)
  const delimiter = [',', ';', '\t'].sort((a, b) => head.split(b).length - head.split(a).length)[0]!
  const { data, errors } = Papa.parse<string[]>(bare, { delimiter, skipEmptyLines: false })
  const broken = errors.find(({ type }) => type === 'Quotes')
  if (broken)
    return fault(
      `A quotation mark is opened on line ${(broken.row ?? 0) + 1} and never closed: the file was cut off.`,
    )
  const columns = (data[0] ?? []).map((name) => name.trim().toLowerCase())
  const lacking = needed.filter((name) => !columns.includes(name))
  if (lacking.length > 0)
    return fault(
      `The column ${lacking.map((name) => `“${name}”`).join(', ')} is missing. The first line has to name the columns.`,
    )
  if (new Set(columns).size < columns.length) return fault('Two columns have the same name.')
  const rows: CsvRow[] = []
  for (const [index, cells] of data.entries()) {
    if (index === 0 || cells.every((cell) => cell.trim() === '')) continue
    if (cells.length !== columns.length)
      return fault(
        `Line ${index + 1} has ${cells.length} cells and the head ${columns.length}${
          index >= data.length - 2 ? ': the file was cut off' : ''
        }.`,
      )
    rows.push({
      line: index + 1,
      cells: Object.fromEntries(columns.map((name, at) => [name, unquoted(cells[at]!)])),
    })
  }
  return rows.length === 0 ? fault('There is nothing below the head.') : { ok: true, rows }
}

const fault = (reason: string) => ({ ok: false as const, reason })

/** What we put before a text that looks like a formula is none of it. */
const unquoted = (cell: string) => cell.trim().replace(/^'(?=[=+\-@])/, '')
