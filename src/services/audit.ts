import 'server-only'
import { v7 as uuid } from 'uuid'
import { changesBetween, type FieldChange } from '@/core/audit'
import { auditEvents, type AuditRow } from '@/db/audit'
import type { Actor } from './actor'
import { now } from './clock'

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

function withoutSecrets(record: Record<string, unknown> | null | undefined) {
  if (!record) return null
  const { passwordHash: _passwordHash, ...rest } = record
  return rest
}

/** A line of the trail as a page shows it. */
export type AuditLine = {
  id: string
  at: string
  by: string
  summary: string
  reason: string
  changes: FieldChange[]
}

const newestFirst: [string, 'ASC' | 'DESC'][] = [
  ['at', 'DESC'],
  ['sequence', 'DESC'],
]

/** The newest changes around a machine or an assembly. */
export async function changesAround(
  subject: { machineId: string } | { assemblyId: string },
  limit = 200,
): Promise<AuditLine[]> {
  return (await auditEvents.all(subject, newestFirst, limit)).map(asLine)
}

export async function changesOf(entity: string, entityId: string): Promise<AuditRow[]> {
  return auditEvents.all({ entity, entityId }, newestFirst)
}

function asLine(row: AuditRow): AuditLine {
  // For something new the whole record would repeat what the page shows anyway.
  const changes = row.before && row.after ? changesBetween(row.before, row.after) : []
  return { id: row.id, at: row.at, by: row.actorName, summary: row.summary, reason: row.reason, changes }
}
