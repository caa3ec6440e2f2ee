import type { PracticeKey } from '@/core/practices'
import { id, text, whole, table, type RowOf, orNull } from '../house'

export const practiceChoices = table('practice_choices', {
  id,
  practice: text<PracticeKey>(),
  /** Null: for all models. */
  modelId: orNull(text()),
  choice: text(),
  reason: text(),
  decidedAt: text(),
  decidedById: text(),
  version: whole(),
})
export type PracticeChoiceRow = RowOf<typeof practiceChoices>
