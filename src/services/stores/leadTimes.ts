import 'server-only'
import { daysBetween } from '@/core/calendar'
import type { VisitItem } from '@/core/plan'
import type { PumpModel } from '@/core/models'
import type { PartsLeadTime } from '@/core/wear'
import { derived } from '@/db/house'
import type { VisitRow } from '@/db/plan'
import { unitFacts } from '../composing'
import { companyPractices } from '../practices'
import { needsOfService } from './partNeeds'
import { loadBook, missingFor, openVisits } from './stock'

/** How long the parts of a service take to come that are missing for it on a day. */
export type LeadTimeOf = (task: string, positions: string[], day: string) => PartsLeadTime

type Version = { id: string; modelId: string; data: PumpModel }

/**
 * Tells for any service how long what is missing of its parts takes to come: missing is what the bins do
 * not hold by its day, or what visits before it take. Parts that the stores do not know cannot be dated
 * and are left out.
 *
 * @returns `of` a pump and its model; and what the answers are `from`: they stand as long as none of
 *   these is another one
 */
export async function loadLeadTimes(): Promise<{
  of: (version: Version, assemblyId: string) => LeadTimeOf
  from: unknown[]
}> {
  const [book, practices, visitRows, facts] = await Promise.all([
    loadBook(),
    companyPractices(),
    openVisits(),
    unitFacts(),
  ])
  const visitsOf = derived('open visits by pump', [visitRows], () => {
    const byPump = new Map<string, { visit: VisitRow; item: VisitItem }[]>()
    for (const visit of visitRows)
      for (const item of visit.items)
        byPump.set(item.assemblyId, [...(byPump.get(item.assemblyId) ?? []), { visit, item }])
    return byPump
  })
  const of = (version: Version, assemblyId: string): LeadTimeOf => {
    const own = visitsOf.get(assemblyId) ?? []
    return (task, positions, day) => {
      // What is on a visit has its parts reserved there, for that day.
      const visit = own.find(
        ({ item }) => item.task === task && item.positions.some((position) => positions.includes(position)),
      )?.visit
      const missing = needsOfService(version, task, positions, practices, facts.get(assemblyId)).flatMap(
        ({ part, quantity }) => {
          const need = { modelId: version.modelId, part, quantity }
          const found = missingFor(book, need, visit?.day ?? day, visit?.id)
          return found && found.missing > 0 ? [found] : []
        },
      )
      return {
        days: Math.max(0, ...missing.map(({ earliestDay }) => daysBetween(book.today, earliestDay))),
        parts: missing.map(({ part }) => `${part.number} ${part.name}`),
      }
    }
  }
  return { of, from: [book, practices, visitRows, facts] }
}
