import 'server-only'
import type { VisitItem } from '@/core/plan'
import { composeSheet, type ComposedSheet, type UnitFacts } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import type { CompanyPractices } from '@/core/practices'
import { derived } from '@/db/house'
import { composeItems, modelsOf, unitFacts } from '../composing'
import { companyPractices } from '../practices'

type Needs = ComposedSheet['parts']

/**
 * Composing depends on nothing but what was chosen, published models, which never change, and the
 * practices: what came of it is kept until these are other ones.
 */
function composedNeeds(of: 'service' | 'visit', from: unknown[]): Map<string, Needs> {
  return derived(`part needs of a ${of}`, from, () => new Map<string, Needs>())
}

/** The parts of one service of a model; pumps of one model that are due for the same share the answer. */
export function needsOfService(
  version: { id: string; data: PumpModel },
  task: string,
  positions: string[],
  practices: CompanyPractices,
  facts: UnitFacts = {},
): Needs {
  const known = composedNeeds('service', [practices])
  const own = version.data.facts.map(({ key: fact }) => facts[fact] ?? '').join('|')
  const key = `${version.id} ${task} ${positions.join(' ')} ${own}`
  const before = known.get(key)
  if (before) return before
  const { parts } = composeSheet(
    { assemblies: [{ id: 'any', model: version.data, tasks: [{ task, positions }], facts }] },
    practices,
  )
  known.set(key, parts)
  return parts
}

/** The parts that some lists of services use up, each list for itself; models are loaded once for all. */
export async function partNeedsOf(lists: VisitItem[][]): Promise<Needs[]> {
  const [practices, facts] = await Promise.all([companyPractices(), unitFacts()])
  const known = composedNeeds('visit', [practices, facts])
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
