/** What became of typed text: a number, or a sentence that says why not. */
export type ParsedNumber = { ok: true; value: number } | { ok: false; reason: string }

/** No number that anybody types is longer; a longer text is not looked at, since looking takes its time squared. */
const longestNumber = 60

/**
 * Reads a number the way people write it: blanks, apostrophes or separators between thousands,
 * a decimal point or comma, and the unit left behind it (`5 246,8 h`, `1,234.5`, `1.234,5 hrs`).
 *
 * With one separator followed by exactly three digits the text could mean two things (`1,234`).
 * It is read as thousands where at most `decimals` decimals are possible and that is fewer than
 * three, as it is for every meter; otherwise it is read as a decimal.
 *
 * @param text what was typed or pasted
 * @param decimals the most decimals that make sense, when known
 * @returns the number, or the reason why it could not be read
 */
export function parseNumber(text: string, decimals?: number): ParsedNumber {
  if (text.length > longestNumber) {
    return { ok: false, reason: `“${text.trim().slice(0, 20)}…” is longer than any number here.` }
  }
  const bare = text
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .replace(/\u2212/g, '-')
    .trim()
    .replace(/\s*(h|hr|hrs|hours?|std|strokes?)\.?$/i, '')
  if (bare === '') return { ok: false, reason: 'Enter a number.' }
  if (!/^[-+]?[\d ',.’]*\d[\d ',.’]*$/.test(bare)) {
    return { ok: false, reason: `“${text.trim().slice(0, 40)}” is not a number.` }
  }
  const grouped = bare.replace(/[ '’]/g, '')
  const commas = (grouped.match(/,/g) ?? []).length
  const points = (grouped.match(/\./g) ?? []).length
  const plain = withDecimalPoint(grouped, commas, points, decimals)
  if (plain === undefined) {
    return { ok: false, reason: `“${text.trim().slice(0, 40)}” has separators that do not fit together.` }
  }
  const value = Number(plain)
  return Number.isFinite(value) ? { ok: true, value } : { ok: false, reason: 'Enter a number.' }
}

function withDecimalPoint(text: string, commas: number, points: number, decimals?: number) {
  if (commas > 0 && points > 0) {
    const decimalMark = text.lastIndexOf(',') > text.lastIndexOf('.') ? ',' : '.'
    const groupMark = decimalMark === ',' ? '.' : ','
    const [whole = '', fraction, ...more] = text.split(decimalMark)
    return more.length === 0 && isGrouped(whole, groupMark)
      ? `${join(whole, groupMark)}.${fraction}`
      : undefined
  }
  const mark = commas > 0 ? ',' : '.'
  const count = commas + points
  if (count === 0) return text
  if (count > 1) return isGrouped(text, mark) ? join(text, mark) : undefined
  const threeBehind = /^[-+]?[1-9]\d{0,2}[.,]\d{3}$/.test(text)
  if (threeBehind && decimals !== undefined && decimals < 3) return join(text, mark)
  return text.replace(mark, '.')
}

const join = (text: string, mark: string) => text.split(mark).join('')

function isGrouped(text: string, mark: string): boolean {
  const [first = '', ...rest] = text.replace(/^[-+]/, '').split(mark)
  return /^\d{1,3}$/.test(first) && rest.every((group) => /^\d{3}$/.test(group))
}
