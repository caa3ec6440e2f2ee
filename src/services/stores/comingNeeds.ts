import 'server-only'
import { addDays } from '@/core/calendar'
import {
  availability,
  comingNeed,
  stockedFor,
  type Book,
  type ComingDemand,
  type ComingNeed,
  type StockLine,
} from '@/core/stores'
import { notOnVisit, type VisitLine } from '@/core/plan'
import { chanceBy, type ClockView, type WearView } from '@/core/wear'
import { derived } from '@/db/house'
import { pumpModelVersions } from '@/db/models'
import { unitFacts } from '../composing'
import { companyPractices } from '../practices'
import { needsOfService } from './partNeeds'

/** How far ahead parts are looked after, in days: eight weeks, twice the longest usual delivery. */
const lookAhead = 56
/** A service less likely than this within the look-ahead takes nothing. */
const leastChance = 0.1

/**
 * Parts that the coming weeks eat below their minimum. Each service that may fall due within eight weeks
 * takes its parts with the chance that it does; what is on a visit has its parts reserved already.
 */
export async function comingNeeds(
  wear: WearView[],
  open: VisitLine[],
  stock: StockLine[],
  book: Book,
  today: string,
): Promise<ComingNeed[]> {
  const [versions, practices, facts] = await Promise.all([
    pumpModelVersions.every(),
    companyPractices(),
    unitFacts(),
  ])
  return derived('coming needs', [wear, open, stock, book, today, versions, practices, facts], () => {
    const until = addDays(today, lookAhead)
    const chanceOf = (clock: ClockView) =>
      clock.share > 1 ? 1 : chanceBy({ dueDay: clock.aboutDay, band: clock.band }, until)
    const coming = wear.flatMap((view) =>
      view.clocks
        .filter(
          (clock) => chanceOf(clock) >= leastChance && notOnVisit(view.assemblyId, clock, open).length > 0,
        )
        .map((clock) => ({ view, clock, chance: chanceOf(clock) })),
    )
    const versionOf = new Map(versions.map((version) => [version.id, version]))
    const partsOf = (assemblyId: string, versionId: string, task: string, positions: string[]) => {
      const version = versionOf.get(versionId)!
      return needsOfService(version, task, positions, practices, facts.get(assemblyId)).flatMap((need) => {
        const part = stockedFor(book.parts.values(), { modelId: version.modelId, part: need.part })
        return part ? [{ partId: part.id, quantity: need.quantity }] : []
      })
    }
    const demands = coming.flatMap(({ view, clock, chance }) => {
      const day = clock.aboutDay === null || clock.aboutDay < today ? today : clock.aboutDay
      return partsOf(
        view.assemblyId,
        view.modelVersionId,
        clock.task,
        notOnVisit(view.assemblyId, clock, open),
      ).map(({ partId, quantity }): ComingDemand => ({
        partId,
        day: day > until ? until : day,
        quantity,
        chance,
        for: view.machineNumber ?? view.number,
      }))
    })
    return comingNeed(demands, (partId) => {
      const part = stock.find((each) => each.id === partId)!
      return {
        free: availability(book, { part: partId, quantity: 0, day: until }).free,
        minimum: part.minimum,
        leadDays: part.leadDays,
        packSize: part.packSize,
      }
    })
  })
}
