import { stockedFor, takeFrom } from '../../stores'
import type { PartUse } from '../types'
import type { BenchPart } from '../views'

/** A part that a sheet expects on one of its pumps. */
export type Expected = {
  assemblyId: string | null
  modelId: string | null
  part: string | null
  unit: PartUse['unit']
  quantity: number
}

/**
 * The uses that one tap notes for an expected part: the stores' part that fits it, from the lots to use
 * first. Null where somebody has to say: the stores do not know it, count it in another unit, or have
 * only expired lots of it.
 *
 * @example usesFor(stock, { part: 'hpSeal', modelId, quantity: 3, … }) // [{ lotId: 'a', quantity: 2, … }, { lotId: 'b', quantity: 1, … }]
 */
export function usesFor(stock: BenchPart[], expected: Expected): PartUse[] | null {
  const { assemblyId, modelId, part: key, unit, quantity } = expected
  const part = stockedFor(stock, { modelId, part: key })
  if (!part || part.unit !== unit) return null
  if (part.lots.length > 0 && part.lots.every((lot) => lot.expired)) return null
  return takeFrom(part.lots, quantity).map((share) => ({
    partId: part.id,
    lotId: share.lotId,
    name: part.name,
    unit: part.unit,
    quantity: share.quantity,
    assemblyId,
    part: key,
  }))
}
