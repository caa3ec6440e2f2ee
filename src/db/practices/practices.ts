import type { PracticeKey } from '@/core/practices'
import { id, text, whole, table } from '../house'

export type PracticeChoiceRow = {
  id: string
  practice: PracticeKey
  /** Null: for all models. */
  modelId: string | null
  choice: string
  reason: string
  decidedAt: string
  decidedById: string
  version: number
}

export const practiceChoices = table<PracticeChoiceRow>('practice_choices', {
  id,
  practice: text,
  modelId: text,
  choice: text,
  reason: text,
  decidedAt: text,
  decidedById: text,
  version: whole,
})
