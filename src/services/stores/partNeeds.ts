import 'server-only'
import type { VisitItem } from '@/core/plan'
import type { ComposedSheet, UnitFacts } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import type { CompanyPractices } from '@/core/practices'
import { derived } from '@/db/house'
import { composedServiceOf, composeItems, modelsOf, unitFacts } from '../composing'
import { companyPractices } from '../practices'

type Needs = ComposedSheet['parts']

/** The parts of one service of a model. */
export function needsOfService(
  version: { id: string; data: PumpModel },
  task: string,
  positions: string[],
  practices: CompanyPractices,
  facts: UnitFacts = {},
): Needs {
  return composedServiceOf(version, task, positions, practices, facts).parts
}

/** The parts that some lists of services use up, each list for itself; models are loaded once for all. */
export async function partNeedsOf(lists: VisitItem[][]): Promise<Needs[]> {
  const [practices, facts] = await Promise.all([companyPractices(), unitFacts()])
  const known = derived('part needs of a visit', [practices, facts], () => new Map<string, Needs>())
  const keys = lists.map((items) => JSON.stringify(items))
  const unknown = lists.filter((_, index) => !known.has(keys[index]!))
  const models = unknown.length > 0 ? await modelsOf(unknown.flat()) : new Map<string, PumpModel>()
  return lists.map((items, index) => {
    const before = known.get(keys[index]!)
    if (before) return before
    const { parts } = composeItems(items, { models, facts }, practices)
    known.set(keys[index]!, parts)
    return parts
  })
}
