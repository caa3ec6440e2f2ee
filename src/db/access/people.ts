import type { Role } from '@/core/access'
import { day, id, text, whole, table } from '../house'

export type PersonRow = {
  id: string
  name: string
  signInName: string
  role: Role
  passwordHash: string
  /** Grows when the person's sessions are revoked; a session of an older epoch no longer counts. */
  sessionEpoch: number
  retiredOn: string | null
  createdAt: string
  version: number
}

export const people = table<PersonRow>('people', {
  id,
  name: text,
  signInName: text,
  role: text,
  passwordHash: text,
  sessionEpoch: whole,
  retiredOn: day,
  createdAt: text,
  version: whole,
})

/** A session that somebody signed out of; kept as long as its cookie could still be shown. */
export type EndedSessionRow = { id: string; personId: string; endedAt: string }

export const endedSessions = table<EndedSessionRow>('ended_sessions', { id, personId: text, endedAt: text })
