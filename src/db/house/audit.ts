import { id, json, text, whole, orNull } from './columns'
import { table, type RowOf } from './table'

export const auditEvents = table('audit_events', {
  id,
  at: text(),
  actorId: orNull(text()),
  actorName: text(),
  entity: text(),
  entityId: text(),
  /** The version the entity had after the change, where it has versions. */
  entityVersion: orNull(whole()),
  machineId: orNull(text()),
  assemblyId: orNull(text()),
  action: text(),
  summary: text(),
  reason: text(),
  before: orNull(json<Record<string, unknown>>()),
  after: orNull(json<Record<string, unknown>>()),
  /** Order within one instant. */
  sequence: whole(),
})
export type AuditRow = RowOf<typeof auditEvents>
