/** One field of a record that differs between two versions of it. */
export type FieldChange = { field: string; before: unknown; after: unknown }

// Bookkeeping that says nothing to a reader.
const silent = new Set(['id', 'version', 'createdAt', 'updatedAt', 'passwordHash', 'sessionEpoch'])

/**
 * The fields in which two versions of a record differ, in the order of the newer one.
 * Values are compared by content; bookkeeping fields and fields empty on both sides are left out.
 *
 * @param before the record as it was, or null where it did not exist
 * @param after the record as it became, or null where it went
 * @example changesBetween({ bay: '4', version: 1 }, { bay: '6', version: 2 }) // [{ field: 'bay', before: '4', after: '6' }]
 */
export function changesBetween(
  before: Record<string, unknown> | null,
  after: Record<string, unknown> | null,
): FieldChange[] {
  const fields = new Set([...Object.keys(after ?? {}), ...Object.keys(before ?? {})])
  const changes: FieldChange[] = []
  for (const field of fields) {
    if (silent.has(field)) continue
    const was = before?.[field] ?? null
    const is = after?.[field] ?? null
    const empty = (value: unknown) => value === null || value === ''
    if (JSON.stringify(was) === JSON.stringify(is) || (empty(was) && empty(is))) continue
    changes.push({ field, before: was, after: is })
  }
  return changes
}
