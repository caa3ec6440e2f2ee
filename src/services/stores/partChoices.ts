import 'server-only'
import { showAmount, tidy, withinReach, type PartChoice } from '@/core/stores'
import type { BenchPart } from '@/core/sheets'
import { pouredPart } from '@/core/winter'
import { antifreezes } from '@/db/winter'
import { pumpModels, pumpModelVersions } from '@/db/models'
import { stockLots } from '@/db/stores'
import type { Actor } from '../house'
import { loadStock } from './stock'
import { loadPlaces } from './places'

/** The parts of the published pump models, to say which of them a stocked part serves as. */
export async function listPartChoices(_actor: Actor): Promise<PartChoice[]> {
  const [modelRows, versions] = await Promise.all([
    pumpModels.every(),
    pumpModelVersions.all({}, [['version', 'ASC']]),
  ])
  const newest = new Map(versions.map((version) => [version.modelId, version.data]))
  return modelRows.flatMap((model) =>
    (newest.get(model.id)?.parts ?? []).map((part) => ({
      modelId: model.id,
      part: part.key,
      model: `${model.maker} ${model.name}`,
      name: part.name,
      unit: part.unit,
    })),
  )
}

/**
 * The parts as the bench takes them: what is picked for its visit first, then the lot to use first. What
 * others have picked is not there for it.
 *
 * @param visitId the visit that the sheet works on; null for one that was opened without
 */
export async function listBenchParts(_actor: Actor, visitId: string | null = null): Promise<BenchPart[]> {
  const [stocked, lotRows, places, fluids] = await Promise.all([
    loadStock(),
    stockLots.every(),
    loadPlaces(),
    antifreezes.every(),
  ])
  // What is poured in winter is expected under the product's own key.
  const poured = (partId: string) =>
    fluids
      .filter((fluid) => fluid.partId === partId)
      .map((fluid) => ({ modelId: 'winter', part: pouredPart(fluid.id) }))
  const codes = new Map(lotRows.map((lot) => [lot.id, lot.code]))
  const closed = stocked.filter(({ row }) => !row.retiredOn && row.contents.length > 0)
  const kitsWith = (partId: string): BenchPart['kits'] =>
    closed.flatMap(({ row, stock, buckets }) => {
      const holds = row.contents.find((piece) => piece.partId === partId)?.quantity ?? 0
      if (holds === 0) return []
      return stock.lots
        .filter((lot) => !lot.expired)
        .flatMap((lot) =>
          buckets
            .filter(({ lotId, state, quantity }) => lotId === lot.id && state === 'shelf' && quantity >= 1)
            .map(({ placeId }) => ({
              lotId: lot.id,
              placeId,
              label: `${row.number}, lot ${lot.number}, ${places.nameOf(placeId)}`,
              holds,
            })),
        )
    })
  return stocked
    .filter(({ row }) => !row.retiredOn && row.contents.length === 0)
    .map(({ row, fits, stock, buckets }) => {
      const lots = stock.lots
        .map((lot) => ({
          ...lot,
          reach: withinReach(buckets, { lotId: lot.id, visitId }),
          picked: tidy(
            buckets
              .filter((bucket) => visitId !== null && bucket.lotId === lot.id && bucket.visitId === visitId)
              .reduce((sum, { quantity }) => sum + quantity, 0),
          ),
        }))
        .filter(({ reach }) => reach > 0)
        .sort((a, b) => Number(b.picked > 0) - Number(a.picked > 0))
      return {
        id: row.id,
        number: row.number,
        name: row.name,
        unit: row.unit,
        bin: row.bin,
        onHand: tidy(lots.filter((lot) => !lot.expired).reduce((sum, { reach }) => sum + reach, 0)),
        fits: [...fits, ...poured(row.id)],
        lots: lots.map((lot) => ({
          id: lot.id,
          label: [
            `lot ${lot.number}`,
            codes.get(lot.id),
            lot.picked > 0 && `${showAmount(lot.picked, row.unit)} picked for this visit`,
            `${showAmount(lot.reach, row.unit)} there`,
            (lot.openPack > 0 || lot.opened) && 'opened',
            lot.expired && 'expired',
          ]
            .filter(Boolean)
            .join(', '),
          onHand: lot.reach,
          expired: lot.expired,
        })),
        kits: kitsWith(row.id),
      }
    })
}
