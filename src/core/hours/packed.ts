import type { Reading } from './types'

/**
 * Readings in one short string, for a page that carries half a year of every meter: what each lies after
 * the one before in milliseconds (base 36) and its value. Their ids stay behind; their order is kept.
 *
 * @example
 * packReadings([{ id: 'a', at: '2026-10-01T08:00:00.000Z', value: 4790.2 },
 *   { id: 'b', at: '2026-10-01T08:00:01.000Z', value: 4790.3 }]) // 'mu7pv2io:4790.2 rs:4790.3'
 */
export function packReadings(readings: Reading[]): string {
  let before = 0
  return [...readings]
    .sort((a, b) => (a.at < b.at || (a.at === b.at && a.id < b.id) ? -1 : 1))
    .map(({ at, value }) => {
      const ms = Date.parse(at)
      const after = (ms - before).toString(36)
      before = ms
      return `${after}:${value}`
    })
    .join(' ')
}

/** The readings again, oldest first, numbered instead of their ids. */
export function unpackReadings(packed: string): Reading[] {
  if (packed === '') return []
  let ms = 0
  return packed.split(' ').map((each, index) => {
    const [after = '', value = ''] = each.split(':')
    ms += parseInt(after, 36)
    return { id: String(index).padStart(6, '0'), at: new Date(ms).toISOString(), value: Number(value) }
  })
}
