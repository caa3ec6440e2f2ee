import 'server-only'
import { v7 as uuid } from 'uuid'
import { changesBetween } from '@/core/house'
import type { ChangeLine } from '@/core/fleet'
import { auditEvents, type AuditRow } from '@/db/house'
import { machines, yards } from '@/db/fleet'
import { pumpModels } from '@/db/models'
import type { Actor } from './actor'
import { now } from './clock'
import { dayOf, timeOf } from './days'

export type Change = {
  entity: string
  entityId: string
  entityVersion?: number
  machineId?: string | null
  assemblyId?: string | null
  action: string
  summary: string
  reason?: string
  before?: Record<string, unknown> | null
  after?: Record<string, unknown> | null
}

const counter = globalThis as unknown as { atelierAuditSequence?: number }

/** Writes one line of the audit trail. Called inside the `write()` of the change it records. */
export async function recordChange(actor: Actor | null, change: Change): Promise<void> {
  counter.atelierAuditSequence = (counter.atelierAuditSequence ?? 0) + 1
  await auditEvents.insert({
    id: uuid(),
    at: now(),
    actorId: actor?.id ?? null,
    actorName: actor?.name ?? 'Atelier',
    entity: change.entity,
    entityId: change.entityId,
    entityVersion: change.entityVersion ?? null,
    machineId: change.machineId ?? null,
    assemblyId: change.assemblyId ?? null,
    action: change.action,
    summary: change.summary.slice(0, 300),
    reason: change.reason ?? '',
    before: withoutSecrets(change.before),
    after: withoutSecrets(change.after),
    sequence: counter.atelierAuditSequence,
  })
}

const secrets = new Set(['passwordHash', 'tokenHash'])

/** A row as it may leave the services: what proves who somebody is stays there. */
export function withoutSecrets(record: object | null | undefined): Record<string, unknown> | null {
  if (!record) return null
  return Object.fromEntries(Object.entries(record).filter(([column]) => !secrets.has(column)))
}

const newestFirst: [string, 'ASC' | 'DESC'][] = [
  ['at', 'DESC'],
  ['sequence', 'DESC'],
]

/** So many changes come with a page; the rest when somebody asks for them. */
const newestChanges = 20

/** The newest changes around a machine or an assembly. */
export async function changesAround(
  subject: { machineId: string } | { assemblyId: string },
  timeZone: string,
  limit = newestChanges,
): Promise<ChangeLine[]> {
  const [rows, names] = await Promise.all([auditEvents.all(subject, newestFirst, limit), namesOfReferences()])
  return rows.map((row) => asLine(row, names, timeZone))
}

/** What the ids in a record stand for: a reader wants the yard's name, not its key. */
async function namesOfReferences(): Promise<Map<string, string>> {
  const [yardRows, modelRows, machineRows] = await Promise.all([
    yards.every(),
    pumpModels.every(),
    machines.every(),
  ])
  return new Map([
    ...yardRows.map((row) => [row.id, row.name] as const),
    ...modelRows.map((row) => [row.id, `${row.maker} ${row.name}`] as const),
    ...machineRows.map((row) => [row.id, row.number] as const),
  ])
}

export async function changesOf(entity: string, entityId: string): Promise<AuditRow[]> {
  return auditEvents.all({ entity, entityId }, newestFirst)
}

function asLine(row: AuditRow, names: Map<string, string>, timeZone: string): ChangeLine {
  const named = (value: unknown) => (typeof value === 'string' ? (names.get(value) ?? value) : value)
  // For something new the whole record would repeat what the page shows anyway.
  const changes = row.before && row.after ? changesBetween(row.before, row.after) : []
  return {
    id: row.id,
    at: row.at,
    day: dayOf(row.at, timeZone),
    time: timeOf(row.at, timeZone),
    by: row.actorName,
    summary: row.summary,
    reason: row.reason,
    changes: changes.map(({ field, before, after }) => ({
      field,
      before: named(before),
      after: named(after),
    })),
  }
}
