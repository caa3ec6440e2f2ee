import { id, json, text, whole } from './columns'
import { table } from './table'

export type AuditRow = {
  id: string
  at: string
  actorId: string | null
  actorName: string
  entity: string
  entityId: string
  /** The version the entity had after the change, where it has versions. */
  entityVersion: number | null
  machineId: string | null
  assemblyId: string | null
  action: string
  summary: string
  reason: string
  before: Record<string, unknown> | null
  after: Record<string, unknown> | null
  /** Order within one instant. */
  sequence: number
}

export const auditEvents = table<AuditRow>(
  'audit_events',
  {
    id,
    at: text,
    actorId: text,
    actorName: text,
    entity: text,
    entityId: text,
    entityVersion: whole,
    machineId: text,
    assemblyId: text,
    action: text,
    summary: text,
    reason: text,
    before: json,
    after: json,
    sequence: whole,
  },
  ['before', 'after'],
)
