import type { Role } from '@/core/access'
import { day, id, text, whole, table, type RowOf, orNull } from '../house'

export const people = table('people', {
  id,
  name: text(),
  signInName: text(),
  role: text<Role>(),
  passwordHash: text(),
  /** Grows when the person's sessions are revoked; a session of an older epoch no longer counts. */
  sessionEpoch: whole(),
  retiredOn: orNull(day()),
  createdAt: text(),
  version: whole(),
})
export type PersonRow = RowOf<typeof people>

export const endedSessions = table('ended_sessions', {
  id,
  personId: text(),
  endedAt: text(),
})
/** A session that somebody signed out of; kept as long as its cookie could still be shown. */
export type EndedSessionRow = RowOf<typeof endedSessions>
