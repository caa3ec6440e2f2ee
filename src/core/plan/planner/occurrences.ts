/** @example occurrenceId('oil', 0) // 'oil'; occurrenceId('oil', 1) // 'oil~2' */
export const occurrenceId = (id: string, at: number) => (at === 0 ? id : `${id}~${at + 1}`)

/**
 * Which task and which of its times an id means. An id that is a task of its own is that, whatever it looks like.
 *
 * @returns null where there is no such task
 * @example readOccurrence('oil~3', (id) => id === 'oil') // { id: 'oil', at: 2 }
 */
export function readOccurrence(
  id: string,
  isTask: (id: string) => boolean,
): { id: string; at: number } | null {
  if (isTask(id)) return { id, at: 0 }
  const cut = id.lastIndexOf('~')
  const count = cut < 1 ? NaN : Number(id.slice(cut + 1))
  const base = id.slice(0, cut)
  return Number.isInteger(count) && count >= 2 && isTask(base) ? { id: base, at: count - 1 } : null
}
