import type { MarkedAs } from '@/core/plan'
import { day, id, json, text, table, type RowOf, orNull, recorded } from '../house'

export const marks = table('marks', {
  id,
  subject: text(),
  label: text(),
  /** What the row was like then; null on marks from before that was kept. */
  about: orNull(json<MarkedAs>()),
  kind: text<'snooze' | 'hand'>(),
  until: orNull(day()),
  reason: text(),
  toId: orNull(text()),
  status: text<'active' | 'superseded'>(),
  ...recorded,
})
/** A row of Today that was put off until a day, or handed to somebody. */
export type MarkRow = RowOf<typeof marks>
