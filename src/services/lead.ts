import 'server-only'
import { composeSheet } from '@/core/procedure'
import type { PumpModel } from '@/core/pump'
import type { PartsLead } from '@/core/wear'
import { companyPractices } from './practices'
import { loadStock } from './stores'

/** How long the parts of a service take to come, and which are missing; nothing where the stores have them. */
export type Lead = PartsLead

/**
 * Tells for any service of any model how long its missing parts take to come, from the stores as they
 * stand. Pumps of one model that are due for the same share the answer. Parts that the stores do not
 * know cannot be dated and are left out.
 */
export async function loadLead(): Promise<
  (version: { id: string; modelId: string; data: PumpModel }, task: string, positions: string[]) => Lead
> {
  const stocked = (await loadStock()).filter(({ row }) => !row.retiredOn)
  const practices = await companyPractices()
  const known = new Map<string, Lead>()
  return (version, task, positions) => {
    const key = `${version.id} ${task} ${positions.join(' ')}`
    const before = known.get(key)
    if (before) return before
    const { parts } = composeSheet(
      { assemblies: [{ id: 'any', model: version.data, tasks: [{ task, positions }] }] },
      practices,
    )
    const missing = parts.flatMap((need) => {
      const part = stocked.find(({ row }) =>
        row.fits.some((fit) => fit.modelId === version.modelId && fit.part === need.part),
      )
      return part && part.stock.onHand < need.quantity ? [part.row] : []
    })
    const lead = {
      days: Math.max(0, ...missing.map((part) => part.leadDays)),
      parts: missing.map((part) => `${part.number} ${part.name}`),
    }
    known.set(key, lead)
    return lead
  }
}
