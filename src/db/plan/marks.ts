import type { MarkedAs } from '@/core/plan'
import { day, id, json, text, table } from '../house'

/** A row of Today that was put off until a day, or handed to somebody. */
export type MarkRow = {
  id: string
  subject: string
  label: string
  /** What the row was like then; null on marks from before that was kept. */
  about: MarkedAs | null
  kind: 'snooze' | 'hand'
  until: string | null
  reason: string
  toId: string | null
  status: 'active' | 'superseded'
  recordedAt: string
  recordedById: string
}

export const marks = table<MarkRow>(
  'marks',
  {
    id,
    subject: text,
    label: text,
    about: json,
    kind: text,
    until: day,
    reason: text,
    toId: text,
    status: text,
    recordedAt: text,
    recordedById: text,
  },
  ['about'],
)
