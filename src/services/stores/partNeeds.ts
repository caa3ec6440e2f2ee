import 'server-only'
import type { VisitItem } from '@/core/plan'
import type { ComposedSheet } from '@/core/composing'
import { composeItems, modelsOf } from '../composing'
import { companyPractices } from '../practices'

type Needs = ComposedSheet['parts']

/**
 * Composing depends on nothing but what was chosen, published models, which never change, and the
 * practices: what came of it is kept for as long as the process runs. A Next server loads several copies
 * of this module, so it lives on `globalThis`.
 */
const key = Symbol.for('atelier.partNeeds')
const mostKept = 5000

function known(): Map<string, Needs> {
  const globals = globalThis as unknown as Record<symbol, Map<string, Needs> | undefined>
  return (globals[key] ??= new Map())
}

/** The parts that some lists of services use up, each list for itself; models are loaded once for all. */
export async function partNeedsOf(lists: VisitItem[][]): Promise<Needs[]> {
  const practices = await companyPractices()
  const way = JSON.stringify(practices)
  const kept = known()
  const keys = lists.map((items) => `${JSON.stringify(items)} ${way}`)
  const unknown = lists.filter((_, index) => !kept.has(keys[index]!))
  const models = unknown.length > 0 ? await modelsOf(unknown.flat()) : new Map()
  if (kept.size + unknown.length > mostKept) kept.clear()
  return lists.map((items, index) => {
    const before = kept.get(keys[index]!)
    if (before) return before
    const { parts } = composeItems(items, models, practices)
    kept.set(keys[index]!, parts)
    return parts
  })
}
