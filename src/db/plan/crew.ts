import type { CrewInput, PlanTerms } from '@/core/plan'
import { id, json, table, text, whole } from '../house'

/** When a technician works and what for, under the person's id. */
export const crewTerms = table('crew_terms', {
  id,
  values: json<Omit<CrewInput, 'personId' | 'version'>>(),
  recordedAt: text(),
  version: whole(),
})

/** One row: what planning goes by. */
export const planTerms = table('plan_terms', {
  id,
  values: json<PlanTerms>(),
  recordedAt: text(),
  version: whole(),
})
