import 'server-only'
import { daysBetween } from '@/core/calendar'
import { isOpen } from '@/core/plan'
import { composeSheet, type PartNeed } from '@/core/composing'
import type { PumpModel } from '@/core/models'
import type { PartsLeadTime } from '@/core/wear'
import { visits } from '@/db/plan'
import { companyPractices } from '../practices'
import { loadBook, missingFor } from './stock'

/** How long the parts of a service take to come, and which are missing; nothing where the stores have them. */
/** A service of one assembly, wanted on a day. */
export type WantedService = { assemblyId: string; task: string; positions: string[]; day: string }

/**
 * Tells for any service how long what is missing of its parts takes to come: missing is what the bins do
 * not hold by its day, or what visits before it take. Pumps of one model that are due for the same share
 * its list of parts. Parts that the stores do not know cannot be dated and are left out.
 */
export async function loadLeadTimes(): Promise<
  (version: { id: string; modelId: string; data: PumpModel }, wanted: WantedService) => PartsLeadTime
> {
  const [book, visitRows, practices] = await Promise.all([loadBook(), visits.all(), companyPractices()])
  const open = visitRows.filter((visit) => isOpen(visit.state))
  const known = new Map<string, PartNeed[]>()
  const needsOf = (version: { id: string; data: PumpModel }, task: string, positions: string[]) => {
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
  return (version, { assemblyId, task, positions, day }) => {
    // What is on a visit has its parts reserved there, for that day.
    const visit = open.find(({ items }) =>
      items.some(
        (item) =>
          item.assemblyId === assemblyId &&
          item.task === task &&
          item.positions.some((position) => positions.includes(position)),
      ),
    )
    const missing = needsOf(version, task, positions).flatMap(({ part, quantity }) => {
      const need = { modelId: version.modelId, part, quantity }
      const found = missingFor(book, need, visit?.day ?? day, visit?.id)
      return found && found.missing > 0 ? [found] : []
    })
    return {
      days: Math.max(0, ...missing.map(({ earliestDay }) => daysBetween(book.today, earliestDay))),
      parts: missing.map(({ part }) => `${part.number} ${part.name}`),
    }
  }
}
