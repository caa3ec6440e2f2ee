import 'server-only'
import {
  availability,
  heldInKits,
  pickPlans,
  showAmount,
  stockedFor,
  stockStates,
  tidy,
  type PickLine,
  type PickPage,
  type ShelfLot,
} from '@/core/stores'
import { isOpen, visitNumber, type VisitPage } from '@/core/plan'
import { showDay } from '@/core/calendar'
import { stockLots } from '@/db/stores'
import { visits, type VisitRow } from '@/db/plan'
import { type Actor } from '../house'
import { loadBook, loadOffers, loadPlaces, loadStock, modelsOfVersions, yardsOfWork } from '../stores'
import { getVisit, visitAt } from './visits'

/** The pick list of one visit. @throws a problem of kind `notFound` */
export async function pickListOfVisit(actor: Actor, reference: string): Promise<PickPage> {
  const [page] = await pickLists(actor, [await visitAt(reference)])
  return page!
}

/** The pick lists of all visits of a day, in the order in which they are served. */
export async function pickListsOfDay(actor: Actor, day: string): Promise<PickPage[]> {
  const rows = (await visits.all({ day })).filter((row) => isOpen(row.state))
  return pickLists(actor, rows)
}

/**
 * What to pick for some visits, with what is short and who else holds it, what goes along, and what is laid
 * ready already. Visits before them on the same shelves are served first.
 */
async function pickLists(actor: Actor, asked: VisitRow[]): Promise<PickPage[]> {
  const [book, stocked, offersOf, places, yardOf, lotRows] = await Promise.all([
    loadBook(),
    loadStock(),
    loadOffers(),
    loadPlaces(),
    yardsOfWork(),
    stockLots.every(),
  ])
  const visitRows = new Map(
    (
      await visits.all({ id: [...new Set([...book.reserved.values()].flat().map(({ visitId }) => visitId))] })
    ).map((row) => [row.id, row]),
  )
  for (const row of asked) visitRows.set(row.id, row)
  // Everyone who is served before the last of them, and later ones as what left-over pieces are good for.
  const served = [...visitRows.values()]
    .filter((row) => isOpen(row.state))
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.id < b.id ? -1 : 1))
  const wants = served.map((row) => ({
    visitId: row.id,
    day: row.day < book.today ? book.today : row.day,
    yardId: yardOf(row),
    needs: [...book.reserved.values()]
      .flat()
      .filter((demand) => demand.visitId === row.id)
      .map(({ partId, quantity }) => ({ partId, quantity })),
  }))
  const lotOf = new Map(lotRows.map((lot) => [lot.id, lot]))
  const partOf = new Map(stocked.map((each) => [each.row.id, each.row]))
  const shelf = stocked.flatMap(({ row, stock, buckets }) =>
    buckets.flatMap((bucket): ShelfLot[] => {
      const lot = stock.lots.find((each) => each.id === bucket.lotId)
      if (!lot || bucket.state !== 'shelf' || bucket.quantity <= 0) return []
      return [
        {
          lotId: lot.id,
          partId: row.id,
          placeId: bucket.placeId,
          quantity: bucket.quantity,
          expiresOn: lot.expiresOn,
          leftOver: lot.opened === true || lot.openPack > 0,
        },
      ]
    }),
  )
  const kits = stocked
    .filter(({ row }) => row.contents.length > 0 && row.retiredOn === null)
    .map(({ row }) => ({ partId: row.id, contents: row.contents }))
  const priceOf = (partId: string) =>
    Math.min(
      ...(offersOf.get(partId) ?? []).map(({ unitCents }) => unitCents),
      ...((offersOf.get(partId)?.length ?? 0) > 0 ? [] : [partOf.get(partId)?.priceCents ?? 0]),
    )
  const plans = pickPlans(wants, shelf, kits, {
    parts: Object.fromEntries(stocked.map(({ row }) => [row.id, { cents: priceOf(row.id) }])),
    kits: Object.fromEntries(kits.map(({ partId }) => [partId, priceOf(partId)])),
  })
  const asLine = (lotId: string, partId: string, placeId: string, quantity: number): PickLine => {
    const part = partOf.get(partId)!
    const lot = lotOf.get(lotId)!
    const { number, name, unit, bin } = part
    return {
      key: `${lotId} ${placeId} ${partId}`,
      ...{ partId, number, name, unit, bin, lotId, placeId, quantity },
      place: places.nameOf(placeId),
      lot: [`lot ${lot.number}`, lot.code].filter(Boolean).join(', '),
      expiresOn: lot.expiresOn,
      leftOver: lot.kitLotId !== null || lot.openedOn !== null,
    }
  }
  return Promise.all(
    asked.map(async (row): Promise<PickPage> => {
      const visit = await getVisit(actor, row.id)
      const plan = plans.find((each) => each.visitId === row.id)
      const yardId = yardOf(row)
      return {
        visitId: row.id,
        number: row.number,
        version: row.version,
        day: row.day,
        startTime: row.startTime,
        where: visit.machineNumber
          ? `${visit.machineNumber} ${visit.machineName}`
          : (visit.services[0]?.pump ?? ''),
        yard: places.nameOf(yardId),
        lead: visit.lead,
        take: (plan?.take ?? [])
          .filter(({ lotId }) => lotOf.has(lotId))
          .map(({ lotId, partId, placeId, quantity }) => asLine(lotId, partId, placeId, quantity))
          .sort(byBin),
        afterOpening: (plan?.take ?? [])
          .filter(({ lotId }) => !lotOf.has(lotId))
          .map(({ partId, quantity }) => {
            const { number, name, unit } = partOf.get(partId)!
            return { number, name, unit, quantity }
          }),
        open: (plan?.open ?? [])
          .filter(({ lotId }) => lotOf.has(lotId))
          .map(({ kitPartId, lotId, placeId, pieces }, at) => ({
            ...asLine(lotId, kitPartId, placeId, 1),
            key: `${lotId} ${at}`,
            pieces: pieces.map(({ partId, quantity }) => {
              const { number, name } = partOf.get(partId)!
              return { partId, number, name, quantity }
            }),
          }))
          .sort(byBin),
        short: (plan?.short ?? []).map(({ partId, quantity }) => {
          const part = partOf.get(partId)!
          const whole = wants
            .find((want) => want.visitId === row.id)!
            .needs.find((need) => need.partId === partId)!
          const { earliestDay, fromOthers } = availability(book, {
            part: partId,
            quantity: whole.quantity,
            day: row.day,
            yardId,
            forVisit: row.id,
          })
          return {
            ...{ partId, quantity, number: part.number, name: part.name, unit: part.unit },
            earliestDay,
            inTime: earliestDay <= row.day,
            transfers: transfersOf(partId, quantity, row.day, fromOthers),
            toPlaceId: yardId,
            elsewhere: elsewhereOf(partId, row.id, yardId),
          }
        }),
        unknown: visit.parts
          .filter((part) => part.stock === null)
          .map(({ name, quantity, unit }) => ({ name, quantity, unit })),
        picked: stocked.flatMap(({ row: part, buckets }) =>
          buckets
            .filter((bucket) => bucket.visitId === row.id && bucket.quantity > 0)
            .map((bucket) => ({
              ...{ partId: part.id, number: part.number, name: part.name, unit: part.unit },
              lotId: bucket.lotId!,
              lot: lotOf.get(bucket.lotId!)?.number ?? 0,
              code: lotOf.get(bucket.lotId!)?.code ?? '',
              placeId: bucket.placeId,
              place: places.nameOf(bucket.placeId),
              state: bucket.state,
              visitId: row.id,
              visit: row.number,
              quantity: bucket.quantity,
            })),
        ),
        spares: await sparesOf(visit, row),
        consumables: visit.consumables.map(({ name, quantity, unit }) => ({
          name,
          amount: `about ${showAmount(quantity, unit)}`,
          ...bottleOf(name, quantity, unit, row.day, yardId),
        })),
        tools: visit.tools.map((tool) => tool.name),
      }
    }),
  )

  /** Which bottle or tube of the yard serves, the opened one first, and whether enough of it is good that day. */
  function bottleOf(name: string, quantity: number, unit: string, day: string, yardId: string) {
    const same = (text: string) => text.trim().toLowerCase()
    const own = stocked.filter(
      ({ row }) => row.means !== '' && same(row.means) === same(name) && !row.retiredOn,
    )
    if (own.length === 0) return { there: '', short: false }
    const lots = own.flatMap(({ row, stock, buckets }) =>
      stock.lots
        .filter((lot) => lot.expiresOn === null || lot.expiresOn >= day)
        .map((lot) => ({
          words: `lot ${lot.number}${lot.opened ? ', open' : ''}${row.bin ? `, ${row.bin}` : ''}`,
          number: row.number,
          unit: row.unit,
          left: tidy(
            buckets
              .filter(
                ({ lotId, placeId, state }) => lotId === lot.id && placeId === yardId && state === 'shelf',
              )
              .reduce((sum, bucket) => sum + Math.max(0, bucket.quantity), 0),
          ),
        }))
        .filter(({ left }) => left > 0),
    )
    const [first] = lots
    const sum = tidy(lots.filter((lot) => lot.unit === unit).reduce((total, { left }) => total + left, 0))
    if (!first) {
      const { row, buckets } = own[0]!
      const other = buckets.find(({ state, quantity: left }) => state === 'shelf' && left > 0)
      const elsewhere =
        other && `, ${showAmount(other.quantity, row.unit)} in ${places.nameOf(other.placeId)}`
      return { there: `${row.number}: none there${elsewhere ?? ''}`, short: true }
    }
    return {
      there: `${first.number}, ${first.words}, ${showAmount(first.left, first.unit)} there`,
      short: first.unit === unit && sum < quantity,
    }
  }

  /** Which lots of other yards to bring over: what is free for the visit there, the lot to use first first. */
  function transfersOf(
    partId: string,
    short: number,
    day: string,
    fromOthers: { yardId: string; quantity: number }[],
  ): PickPage['short'][number]['transfers'] {
    const { stock, buckets } = stocked.find((each) => each.row.id === partId)!
    let left = short
    return fromOthers.flatMap(({ yardId, quantity }) => {
      let free = Math.min(quantity, left)
      return stock.lots.flatMap((lot) =>
        buckets
          .filter(
            (bucket) =>
              bucket.lotId === lot.id &&
              bucket.state === 'shelf' &&
              places.yardOf(bucket.placeId) === yardId &&
              (lot.expiresOn === null || lot.expiresOn >= day),
          )
          .flatMap((bucket) => {
            const share = Math.min(free, Math.max(0, bucket.quantity))
            free = tidy(free - share)
            left = tidy(left - share)
            const { placeId } = bucket
            return share > 0
              ? [{ lotId: lot.id, lot: lot.number, placeId, place: places.nameOf(placeId), quantity: share }]
              : []
          }),
      )
    })
  }

  /** Who holds more of a part than is free in the yard: other shelves, and what is picked for other visits. */
  function elsewhereOf(partId: string, visitId: string, yardId: string): string[] {
    const own = stocked.find((each) => each.row.id === partId)!
    const unit = own.row.unit
    const lying = own.buckets
      .filter((bucket) => bucket.quantity > 0 && bucket.visitId !== visitId)
      .flatMap((bucket) => {
        const amount = showAmount(bucket.quantity, unit)
        if (bucket.state === 'shelf')
          return bucket.placeId === yardId ? [] : [`${amount} on the shelf, ${places.nameOf(bucket.placeId)}`]
        const visit = bucket.visitId === null ? undefined : visitRows.get(bucket.visitId)
        return [
          `${amount} ${stockStates[bucket.state]}${visit ? `, visit ${visitNumber(visit.number)} on ${showDay(visit.day, book.today)}` : ''}`,
        ]
      })
    const inKits = tidy(
      heldInKits(
        stocked
          .filter(({ row }) => row.contents.length > 0)
          .map(({ row, buckets }) => ({
            contents: row.contents,
            lots: buckets
              .filter(({ state, placeId }) => state === 'shelf' && placeId !== yardId)
              .map(({ quantity, placeId }) => ({ quantity, placeId, expiresOn: null })),
          })),
        partId,
      ).reduce((sum, { quantity }) => sum + quantity, 0),
    )
    const coming = (book.dueIn.get(partId) ?? []).map(
      ({ quantity, day }) => `${showAmount(quantity, unit)} on the way for ${showDay(day, book.today)}`,
    )
    const reserved = (book.reserved.get(partId) ?? [])
      .filter((demand) => demand.visitId !== visitId)
      .flatMap((demand) => {
        const other = visitRows.get(demand.visitId)
        return other && other.day <= (visitRows.get(visitId)?.day ?? '')
          ? [
              `${showAmount(demand.quantity, unit)} reserved for visit ${visitNumber(other.number)} on ${showDay(other.day, book.today)}`,
            ]
          : []
      })
    // What is approved in its place, and lies there.
    const instead = stocked.flatMap(({ row, buckets }) => {
      const stands = row.insteadOf.find((each) => each.partId === partId)
      const there = tidy(
        buckets
          .filter(({ state, placeId }) => state === 'shelf' && placeId === yardId)
          .reduce((sum, { quantity }) => sum + Math.max(0, quantity), 0),
      )
      if (!stands || there === 0 || row.retiredOn !== null) return []
      return [
        `${showAmount(there, row.unit)} of ${row.number}, which ${stands.kind === 'supersedes' ? 'supersedes it' : 'does as well'}, by ${stands.approval}`,
      ]
    })
    return [
      ...instead,
      ...lying,
      ...(inKits > 0 ? [`${showAmount(inKits, unit)} in kits of other yards`] : []),
      ...coming,
      ...reserved,
    ]
  }

  async function sparesOf(visit: VisitPage, row: VisitRow): Promise<PickPage['spares']> {
    const modelOf = await modelsOfVersions(row.items.map((item) => item.modelVersionId))
    return visit.spares.map((spare) => {
      const item = row.items.find((each) => each.assemblyId === spare.assemblyId)
      const part = stockedFor(book.parts.values(), {
        modelId: modelOf.get(item?.modelVersionId ?? ''),
        part: spare.part,
      })
      const free = part
        ? availability(book, {
            part: part.id,
            quantity: 0,
            day: row.day,
            yardId: yardOf(row),
            forVisit: row.id,
          }).free
        : null
      return {
        name: part ? `${part.number} ${part.name}` : spare.name,
        unit: spare.unit,
        quantity: spare.quantity,
        likely: spare.likely,
        there: free === null ? 'not kept in the stores' : `${showAmount(free, spare.unit)} there`,
      }
    })
  }
}

const bins = new Intl.Collator('en', { numeric: true })
const byBin = (a: PickLine, b: PickLine) =>
  bins.compare(a.bin || '~', b.bin || '~') || bins.compare(a.number, b.number)
