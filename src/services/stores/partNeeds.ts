import 'server-only'
import type { VisitItem } from '@/core/plan'
import { composeSheet, type ComposedSheet } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import type { CompanyPractices } from '@/core/practices'
import { derived } from '@/db/house'
import { composeItems, modelsOf } from '../composing'
import { companyPractices } from '../practices'

type Needs = ComposedSheet['parts']

/**
 * Composing depends on nothing but what was chosen, published models, which never change, and the
 * practices: what came of it is kept until these are other ones.
 */
function composedNeeds(practices: CompanyPractices): Map<string, Needs> {
  return derived('part needs', [practices], () => new Map<string, Needs>())
}

/** The parts of one service of a model; pumps of one model that are due for the same share the answer. */
export function needsOfService(
  version: { id: string; data: PumpModel },
  task: string,
  positions: string[],
  practices: CompanyPractices,
): Needs {
  const known = composedNeeds(practices)
  const key = `${version.id} ${task} ${positions.join(' ')}`
  const before = known.get(key)
  if (before) return before
  const { parts } = composeSheet(
    { assemblies: [{ id: 'any', model: version.data, tasks: [{ task, positions }] }] },
    practices,
  )
  known.set(key, parts)
  return parts
}

/** The parts that some lists of services use up, each list for itself; models are loaded once for all. */
export async function partNeedsOf(lists: VisitItem[][]): Promise<Needs[]> {
  const practices = await companyPractices()
  const known = composedNeeds(practices)
  const keys = lists.map((items) => JSON.stringify(items))
  const unknown = lists.filter((_, index) => !known.has(keys[index]!))
  const models = unknown.length > 0 ? await modelsOf(unknown.flat()) : new Map<string, PumpModel>()
  return lists.map((items, index) => {
    const before = known.get(keys[index]!)
    if (before) return before
    const { parts } = composeItems(items, models, practices)
    known.set(keys[index]!, parts)
    return parts
  })
}
