import type { PracticeKey, Product } from '@/core/practices'
import { id, json, text, whole, table, type RowOf, orNull } from '../house'

export const practiceChoices = table('practice_choices', {
  id,
  practice: text<PracticeKey>(),
  /** Null: for all models. */
  modelId: orNull(text()),
  choice: text(),
  reason: text(),
  /** What stands on the product's label; null: the usual figures. */
  product: orNull(json<Product>()),
  decidedAt: text(),
  decidedById: text(),
  version: whole(),
})
export type PracticeChoiceRow = RowOf<typeof practiceChoices>
