import 'server-only'
import { composedService, type ComposedService, type UnitFacts } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import type { CompanyPractices } from '@/core/practices'
import { derived } from '@/db/house'

/**
 * One service of a model apart: its parts, and its minutes as planning counts them. Composing depends on nothing but
 * what was chosen, published models, which never change, and the practices: pumps of one model that are due for the
 * same share the answer, and it is kept until the practices are other ones.
 */
export function composedServiceOf(
  version: { id: string; data: PumpModel },
  task: string,
  positions: string[],
  practices: CompanyPractices,
  facts: UnitFacts = {},
): ComposedService {
  const known = derived('composed services', [practices], () => new Map<string, ComposedService>())
  const own = version.data.facts.map(({ key: fact }) => facts[fact] ?? '').join('|')
  const key = `${version.id} ${task} ${positions.join(' ')} ${own}`
  const before = known.get(key)
  if (before) return before
  const composed = composedService(
    { id: 'any', model: version.data, tasks: [{ task, positions }], facts },
    practices,
  )
  known.set(key, composed)
  return composed
}
