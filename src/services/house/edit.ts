import 'server-only'
import { changesBetween } from '@/core/house'
import { conflict, invalid, notFound } from '@/core/problem'
import type { Table } from '@/db/house'
import type { Actor } from './actor'
import { changesOf, recordChange, withoutSecrets, type Change } from './audit'

type Versioned = { id: string; version: number }

/**
 * Changes a row that people edit: refuses a stale edit, writes, and leaves a line in the audit trail.
 * Called inside `write()`.
 *
 * @param read the id and the version that the editor had read
 * @throws `notFound`, or `conflict` with what others changed meanwhile and the row as it is now
 */
export async function editRow<Row extends Versioned>(
  actor: Actor,
  table: Table<Row>,
  what: { entity: string; name: string },
  read: { id: string; version: number },
  values: Partial<Row>,
  change: Omit<Change, 'entity' | 'entityId' | 'entityVersion' | 'before' | 'after'>,
): Promise<Row> {
  const before = await requireFresh(table, what, read)
  const after = { ...before, ...values, version: before.version + 1 }
  if (changesBetween(before, after).length === 0) return before
  await table.update({ id: read.id, version: read.version }, { ...values, version: after.version })
  await recordChange(actor, {
    ...change,
    entity: what.entity,
    entityId: read.id,
    entityVersion: after.version,
    before,
    after,
  })
  return after
}

/** The row, if nobody has changed it since the editor read it. @throws `notFound`, `conflict` */
export async function requireFresh<Row extends Versioned>(
  table: Table<Row>,
  what: { entity: string; name: string },
  read: { id: string; version: number },
): Promise<Row> {
  const row = await table.byId(read.id)
  if (!row) throw notFound(what.name)
  if (row.version !== read.version) throw await staleEdit(what, read, row)
  return row
}

async function staleEdit(
  what: { entity: string; name: string },
  read: { id: string; version: number },
  current: Versioned,
) {
  const since = (await changesOf(what.entity, read.id)).filter(
    (event) => (event.entityVersion ?? 0) > read.version,
  )
  const newest = since[0]
  const by = newest?.actorName ?? 'Somebody'
  const fields = since.flatMap((event) =>
    changesBetween(event.before, event.after).map((change) => change.field),
  )
  return conflict(`${by} changed ${what.name} while you were editing. Nothing of yours is saved yet.`, {
    version: current.version,
    by,
    at: newest?.at ?? '',
    current: withoutSecrets(current)!,
    changed: [...new Set(fields)],
  })
}

/** Refuses a value that must be unique and belongs to another row already. */
export async function requireUnique<Row extends { id: string }>(
  table: Table<Row>,
  where: Partial<Row>,
  ownId: string,
  field: string,
  message: string,
): Promise<void> {
  const other = await table.find(where as never)
  if (other && other.id !== ownId) throw invalid({ [field]: message })
}
