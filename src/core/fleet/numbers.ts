/**
 * The next free number of a series, as wide as the widest one in use.
 * @example nextNumber('P', ['P-01', 'P-09', 'T-30']) // 'P-10'
 */
export function nextNumber(prefix: string, taken: string[]): string {
  const pattern = new RegExp(`^${prefix}-(\\d+)$`, 'i')
  const digits = taken.map((number) => pattern.exec(number)?.[1]).filter((found) => found !== undefined)
  const next = Math.max(0, ...digits.map(Number)) + 1
  const width = Math.max(2, ...digits.map((found) => found.length))
  return `${prefix}-${String(next).padStart(width, '0')}`
}
