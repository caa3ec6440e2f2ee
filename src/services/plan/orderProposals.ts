import 'server-only'
import {
  coverNeed,
  proposeOrders,
  sellable,
  type OrderProposal,
  type Proposal,
  type Unsold,
} from '@/core/stores'
import { addDays, showDay } from '@/core/calendar'
import { derived } from '@/db/house'
import { suppliers } from '@/db/stores'
import { ourCompany, present, type Actor } from '../house'
import {
  adviceOn,
  aheadOf,
  likelyServices,
  listStock,
  loadBook,
  loadOffers,
  usesByPart,
  weeksAhead,
} from '../stores'
import { listWear } from '../wear'
import { listOpenVisits } from './visits'

/** The orders that want a signature now, by supplier, and what nobody is known to sell. */
export async function orderProposals(
  actor: Actor,
): Promise<{ proposals: OrderProposal[]; unsold: Unsold[] }> {
  const { today } = present(await ourCompany())
  const [book, wear, open, stock, offersOf, supplierRows] = await Promise.all([
    loadBook(),
    listWear(actor),
    listOpenVisits(actor),
    listStock(actor),
    loadOffers(),
    suppliers.every(),
  ])
  const likely = await likelyServices(wear, open, book, today, weeksAhead * 7)
  return derived('order proposals', [book, likely, stock, offersOf, supplierRows, today], () => {
    const usesOf = usesByPart(likely)
    const lineOf = new Map(stock.map((line) => [line.id, line]))
    const whyOf = new Map<string, string>()
    const neededOf = new Map<string, string>()
    const unsold: Unsold[] = []
    const wanted: Proposal[] = []
    for (const line of stock) {
      if (line.contents.length > 0) continue
      const uses = usesOf.get(line.id) ?? []
      const advised = adviceOn(aheadOf(book, line.id, uses), uses, line, offersOf.get(line.id) ?? [], today)
      if (!advised) continue
      const { advice, offer } = advised
      const wantedFor = uses.length > 0 || (book.reserved.get(line.id)?.length ?? 0) > 0
      const chance = Math.round(advice.chanceShort * 100)
      whyOf.set(
        line.id,
        !wantedFor
          ? 'below its least'
          : chance >= 100
            ? `short on ${showDay(advice.shortFrom, today)}`
            : `short by ${showDay(advice.shortFrom, today)} with a chance of ${chance}\u00a0%`,
      )
      neededOf.set(line.id, advice.shortFrom)
      if (!offer) {
        const { id: partId, number, name, unit } = line
        unsold.push({ partId, number, name, unit, quantity: advice.quantity, orderBy: advice.orderBy })
        continue
      }
      wanted.push({
        partId: line.id,
        supplierId: offer.supplierId,
        quantity: sellable(offer, advice.quantity),
        unitCents: offer.unitCents,
        orderBy: advice.orderBy,
        late: advice.late && wantedFor,
      })
    }
    // A kit of unlike pieces may cost less than its pieces: what is ordered at about the same time is covered at least cost.
    const proposals = withKits(wanted)
    const leastOf = new Map(supplierRows.map((supplier) => [supplier.id, supplier.leastCents]))
    const nameOf = new Map(supplierRows.map((supplier) => [supplier.id, supplier.name]))
    return {
      unsold,
      proposals: proposeOrders(proposals, leastOf, today).map((order): OrderProposal => ({
        supplierId: order.supplierId,
        supplier: nameOf.get(order.supplierId) ?? '',
        cents: order.cents,
        belowLeast: order.belowLeast,
        lines: order.lines.map(({ partId, quantity, unitCents, orderBy, late, along }) => {
          const { number, name, unit } = lineOf.get(partId)!
          return {
            ...{ partId, quantity, unitCents, orderBy, late, along, number, name, unit },
            supplierNumber:
              (offersOf.get(partId) ?? []).find((offer) => offer.supplierId === order.supplierId)
                ?.supplierNumber ?? '',
            neededBy: neededOf.get(partId) ?? orderBy,
            why: whyOf.get(partId) ?? '',
          }
        }),
      })),
    }

    function withKits(loose: Proposal[]): Proposal[] {
      const soon = loose.filter(({ orderBy }) => orderBy <= addDays(today, 28))
      const kits = stock.flatMap((line) => {
        const [offer] = [...(offersOf.get(line.id) ?? [])].sort((a, b) => a.unitCents - b.unitCents)
        const holds = line.contents.some((piece) => soon.some(({ partId }) => partId === piece.partId))
        return line.retiredOn === null && offer && holds && offer.packSize === 1 ? [{ line, offer }] : []
      })
      if (kits.length === 0) return loose
      const inKits = new Set(kits.flatMap(({ line }) => line.contents.map(({ partId }) => partId)))
      const pieces = soon.filter(({ partId }) => inKits.has(partId))
      const packOf = (partId: string, supplierId: string) =>
        (offersOf.get(partId) ?? []).find((offer) => offer.supplierId === supplierId)?.packSize ?? 1
      const cover = coverNeed({
        need: pieces.map(({ partId, quantity }) => ({ part: partId, quantity })),
        stock: [],
        kits: kits.map(({ line }) => ({
          kit: line.id,
          pieces: line.contents.map((piece) => ({ part: piece.partId, quantity: piece.quantity })),
          lots: [],
        })),
        prices: {
          parts: Object.fromEntries(
            pieces.map(({ partId, unitCents, supplierId }) => [
              partId,
              { cents: unitCents, pack: packOf(partId, supplierId) },
            ]),
          ),
          kits: Object.fromEntries(kits.map(({ line, offer }) => [line.id, offer.unitCents])),
        },
        onDay: today,
      })
      const bought = cover.buy.flatMap((each): Proposal[] => {
        if ('part' in each) {
          const own = pieces.find(({ partId }) => partId === each.part)!
          return [{ ...own, quantity: each.quantity }]
        }
        const { line, offer } = kits.find((kit) => kit.line.id === each.kit)!
        const covered = pieces.filter(({ partId }) => line.contents.some((piece) => piece.partId === partId))
        const orderBy = covered.map((piece) => piece.orderBy).sort()[0]!
        whyOf.set(
          line.id,
          `for ${covered.map(({ partId }) => lineOf.get(partId)!.number).join(', ')}: less than loose`,
        )
        neededOf.set(line.id, covered.map(({ partId }) => neededOf.get(partId)!).sort()[0]!)
        return [
          {
            partId: line.id,
            supplierId: offer.supplierId,
            quantity: sellable(offer, each.quantity),
            unitCents: offer.unitCents,
            orderBy,
            late: covered.some(({ late }) => late),
          },
        ]
      })
      return [...loose.filter((each) => !pieces.includes(each)), ...bought]
    }
  })
}
