import 'server-only'
import { addDays } from '@/core/calendar'
import {
  keepsDays,
  orderAdvice,
  stockedFor,
  stockOn,
  tidy,
  type Book,
  type ComingNeed,
  type OrderAdvice,
  type StockAhead,
  type StockLine,
} from '@/core/stores'
import { notOnVisit, type VisitLine } from '@/core/plan'
import { chanceBy, type ClockView, type WearView } from '@/core/wear'
import { derived } from '@/db/house'
import { pumpModelVersions } from '@/db/models'
import { unitFacts } from '../composing'
import { groupBy } from '../house'
import { companyPractices } from '../practices'
import { needsOfService } from './partNeeds'
import { loadOffers, type PricedOffer } from './placedOrders'

/** A service less likely than this within the time looked at takes nothing. */
const leastChance = 0.1

/** A service that no visit does yet, and what it would take out of the stores. */
export type LikelyService = {
  assemblyId: string
  /** Where it is done: the machine, or the pump on the shelf. */
  at: string
  name: string
  where: string
  /** The median day on which it falls due. */
  day: string | null
  chanceBy: (day: string) => number
  /** All that the chance follows from, in words. */
  due: string
  parts: { partId: string; quantity: number }[]
}

/** Services that may fall due within so many days and are on no visit, with the parts each would take. */
export async function likelyServices(
  wear: WearView[],
  open: VisitLine[],
  book: Book,
  today: string,
  days: number,
): Promise<LikelyService[]> {
  const [versions, practices, facts] = await Promise.all([
    pumpModelVersions.every(),
    companyPractices(),
    unitFacts(),
  ])
  const rest = [open, book, today, versions, practices, facts]
  return derived(`likely services ${days}`, [wear, ...rest], () => {
    const versionOf = new Map(versions.map((version) => [version.id, version]))
    const servicesOf = (view: WearView) =>
      view.clocks.flatMap((clock): LikelyService[] => {
        const chanceOf = chanceFor(clock)
        const positions = notOnVisit(view.assemblyId, clock, open)
        const version = versionOf.get(view.modelVersionId)
        if (!version || positions.length === 0 || chanceOf(addDays(today, days)) < leastChance) return []
        const needs = needsOfService(version, clock.task, positions, practices, facts.get(view.assemblyId))
        return [
          {
            assemblyId: view.assemblyId,
            at: view.machineNumber ?? view.number,
            name: clock.name,
            where: clock.where,
            day: clock.aboutDay,
            chanceBy: chanceOf,
            due: [clock.share > 1, clock.aboutDay, clock.band?.early, clock.band?.late].join(),
            parts: needs.flatMap((need) => {
              const part = stockedFor(book.parts.values(), { modelId: version.modelId, part: need.part })
              return part ? [{ partId: part.id, quantity: need.quantity }] : []
            }),
          },
        ]
      })
    // A reading makes the wear of one machine anew, and only its services.
    return wear.flatMap((view) =>
      derived(`likely services ${days} of ${view.assemblyId}`, [view, ...rest], () => servicesOf(view)),
    )
  })
}

/** The chance that a service has fallen due by a day; what is past its limit is due. */
const chanceFor = (clock: ClockView) => (day: string) =>
  clock.share > 1 ? 1 : chanceBy({ dueDay: clock.aboutDay, band: clock.band }, day)

/** How far ahead a part is looked after: half a year. */
export const weeksAhead = 26
/** How often one may stand without a part, and how long an order is to last, in days: a quarter. */
export const risk = 0.05
const lasts = 91

export type PartUse = { service: LikelyService; quantity: number }

/** What likely services would take of each part. */
export function usesByPart(services: LikelyService[]): Map<string, PartUse[]> {
  return derived('uses to come', [services], () => {
    const uses = new Map<string, PartUse[]>()
    for (const service of services)
      for (const [partId, needs] of groupBy(service.parts, (need) => need.partId)) {
        const quantity = tidy(needs.reduce((sum, need) => sum + need.quantity, 0))
        const own = uses.get(partId)
        if (own) own.push({ service, quantity })
        else uses.set(partId, [{ service, quantity }])
      }
    return uses
  })
}

/** All that the stock of a part to come follows from. */
export function aheadOf(book: Book, partId: string, uses: PartUse[]): StockAhead {
  return {
    lots: book.parts
      .get(partId)!
      .lots.map(({ onHand, expiresOn }) => ({ quantity: Math.max(0, onHand), expiresOn })),
    reserved: (book.reserved.get(partId) ?? []).map(({ day, quantity }) => ({ day, quantity })),
    orders: (book.dueIn.get(partId) ?? []).map(({ day, quantity }) => ({ day, quantity })),
    likely: uses.map(({ service, quantity }) => ({ quantity, chanceBy: service.chanceBy })),
  }
}

export type Advised = { advice: OrderAdvice; offer: PricedOffer | null }

/**
 * Whether to order a part, by when, how much and from whom: from whoever asks least, unless it would come
 * too late from there and another is in time; where nobody is in time, from the soonest. Where nobody sells
 * it, on the part's own terms. What is retired is not ordered.
 */
export function adviceOn(
  ahead: StockAhead,
  uses: PartUse[],
  line: StockLine,
  offersOfPart: PricedOffer[],
  today: string,
): Advised | null {
  if (line.retiredOn !== null) return null
  const { id, minimum } = line
  const common = { minimum, risk, lasts }
  const keeps = keepsDays({ group: line.shelfGroup, months: line.keepsMonths }, today)
  // In words, so that a reading of one machine makes only the parts of its pumps anew.
  const words = JSON.stringify([
    ...[ahead.lots, ahead.reserved, ahead.orders, common, keeps, line.leadDays, line.packSize, today],
    uses.map(({ service, quantity }) => [service.due, quantity]),
    offersOfPart.map(({ id: offer, version, lead }) => [offer, version, lead.days]),
  ])
  return derived(`advice ${id}`, [words], () => {
    const on = (offer: PricedOffer | null): Advised | null => {
      const terms = {
        ...common,
        leadDays: offer?.lead.days ?? line.leadDays,
        packSize: offer?.packSize ?? line.packSize,
        minimumOrder: offer?.minimumOrder ?? 0,
        keepsDays: keeps,
      }
      const advice = orderAdvice(ahead, today, terms, weeksAhead * 7)
      return advice && { advice, offer }
    }
    if (offersOfPart.length === 0) return on(null)
    const cheapestFirst = [...offersOfPart].sort(
      (a, b) => a.unitCents - b.unitCents || a.lead.days - b.lead.days,
    )
    const first = on(cheapestFirst[0]!)
    if (!first?.advice.late) return first
    for (const offer of cheapestFirst.slice(1)) {
      const advised = on(offer)
      if (advised && !advised.advice.late) return advised
    }
    return on([...cheapestFirst].sort((a, b) => a.lead.days - b.lead.days)[0]!)
  })
}

/** Parts that want to be ordered for booked visits and for services that may fall due, by the day to order. */
export async function comingNeeds(
  wear: WearView[],
  open: VisitLine[],
  stock: StockLine[],
  book: Book,
  today: string,
): Promise<ComingNeed[]> {
  const [likely, offersOf] = await Promise.all([
    likelyServices(wear, open, book, today, weeksAhead * 7),
    loadOffers(),
  ])
  return derived('coming needs', [likely, open, stock, book, offersOf, today], () => {
    const usesOf = usesByPart(likely)
    const machineOf = new Map(open.map((visit) => [visit.id, visit.machineNumber ?? '']))
    return stock
      .flatMap((line): ComingNeed[] => {
        const uses = usesOf.get(line.id) ?? []
        // What nothing takes is only below its least: the list of the stores says that.
        if (uses.length === 0) return []
        const ahead = aheadOf(book, line.id, uses)
        const advised = adviceOn(ahead, uses, line, offersOf.get(line.id) ?? [], today)
        if (!advised) return []
        const until = addDays(today, lasts)
        const reserved = book.reserved.get(line.id) ?? []
        return [
          {
            ...advised.advice,
            partId: line.id,
            expected: tidy(stockOn(ahead, today, until).used),
            minimum: line.minimum,
            for: [
              ...new Set([
                ...reserved.map(({ visitId }) => machineOf.get(visitId) ?? ''),
                ...uses.filter(({ service }) => service.chanceBy(until) > 0).map(({ service }) => service.at),
              ]),
            ].filter(Boolean),
          },
        ]
      })
      .sort((a, b) => (a.orderBy < b.orderBy ? -1 : a.orderBy > b.orderBy ? 1 : 0))
  })
}
