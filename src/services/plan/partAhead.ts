import 'server-only'
import { projectStock, type PartAhead } from '@/core/stores'
import { visitNumber } from '@/core/plan'
import { notFound } from '@/core/problem'
import { inSentence } from '@/core/units'
import { ourCompany, present, type Actor } from '../house'
import {
  adviceOn,
  aheadOf,
  likelyServices,
  listStock,
  loadBook,
  loadOffers,
  type Advised,
  risk,
  usesByPart,
  weeksAhead,
} from '../stores'
import { listWear } from '../wear'
import { listOpenVisits } from './visits'

/**
 * What will be wanted of a part in half a year, by visits surely and by services with the chance that they
 * fall due, how its stock then stands, and whether to order.
 *
 * @throws a problem of kind `notFound`
 */
export async function partAhead(actor: Actor, partId: string): Promise<PartAhead> {
  const { today } = present(await ourCompany())
  const [book, wear, open, stock, offersOf] = await Promise.all([
    loadBook(),
    listWear(actor),
    listOpenVisits(actor),
    listStock(actor),
    loadOffers(),
  ])
  const line = stock.find((each) => each.id === partId)
  if (!line) throw notFound('This part')
  const likely = await likelyServices(wear, open, book, today, weeksAhead * 7)
  const services = usesByPart(likely).get(partId) ?? []
  const ahead = aheadOf(book, partId, services)
  const weeks = projectStock(ahead, today, weeksAhead)
  const last = weeks.at(-1)!.day
  const visitOf = new Map(open.map((visit) => [visit.id, visit]))
  return {
    weeks,
    ...said(adviceOn(ahead, services, line, offersOf.get(partId) ?? [], today)),
    risk,
    uses: [
      ...(book.reserved.get(partId) ?? []).map(({ visitId, day, quantity }) => ({
        key: visitId,
        words: `Visit ${visitNumber(visitOf.get(visitId)?.number ?? 0)}`,
        visitId,
        assemblyId: null,
        day,
        quantity,
        chance: 1,
      })),
      ...services.map(({ service, quantity }) => ({
        key: `${service.assemblyId} ${service.name} ${service.where}`,
        words: [`${service.at}: ${inSentence(service.name)}`, service.where].filter(Boolean).join(', '),
        visitId: null,
        assemblyId: service.assemblyId,
        day: service.day,
        quantity,
        chance: service.chanceBy(last),
      })),
    ].sort((a, b) => ((a.day ?? '9999') < (b.day ?? '9999') ? -1 : 1)),
  }
}

/** The advice with the name of whoever to order from, and how long it takes from there. */
const said = (advised: Advised | null): Pick<PartAhead, 'advice' | 'supplier' | 'lead'> => ({
  advice: advised?.advice ?? null,
  supplier: advised?.offer?.supplier ?? null,
  lead: advised?.offer?.lead ?? null,
})
