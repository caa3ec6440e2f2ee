import { invalid } from '../problem'
import { concentrateNeeded, freezingPoint, shareFor, type Glycol } from './mixing'

/** What is put in, as its own sheet states it. */
export type Antifreeze = {
  name: string
  fluid: Glycol | 'alcohol'
  /** Sold to be mixed with water, or ready to use as it is. */
  sold: 'concentrate' | 'ready'
  /** Pure glycol in it, volume %; a concentrate must state it, else it plans nothing. */
  contentPercent: number | null
  /** Freezing point as sold, °C. */
  freezesAtC: number | null
  /** Where it still flows round ice and bursts nothing, °C; never planned by. */
  burstsAtC: number | null
  packLitres: number
  packCents: number
}

/** °C below the design low that everything is planned for, unless the company says else. Ours. */
export const usualMarginC = 5
/** Antifreeze is run on for this share of the protected volume after clean colour. Ours. */
export const usualRunOn = 0.5

export type Recipe =
  | {
      ok: true
      concentrateLitres: number
      waterLitres: number
      /** Of the two together, with what is still in the zone. */
      volumePercent: number | null
      freezesAtC: number
      /** What must be known before it is poured. */
      cautions: string[]
    }
  | { ok: false; why: string }

const degrees = (value: number) => `${String(Math.round(value * 10) / 10).replace('-', '−')} °C`

/**
 * What to mix for one zone: never less than the zone and its run-on take, and rich enough that what is left
 * of the water does not thin it above the design low less the margin.
 *
 * @param input.zoneLitres what the zone holds
 * @param input.residualWaterLitres water that stays in it
 * @param input.runOn share of the zone run on after clean colour; a half unless given
 * @returns litres of concentrate and of water, or in one sentence why this product plans nothing here
 * @throws invalid input for negative litres
 */
export function recipe(input: {
  product: Antifreeze
  zoneLitres: number
  residualWaterLitres: number
  designLowC: number
  marginC?: number
  runOn?: number
}): Recipe {
  const { product, zoneLitres, residualWaterLitres, designLowC } = input
  const { marginC = usualMarginC, runOn = usualRunOn } = input
  if (!(zoneLitres >= 0)) throw invalid({ zoneLitres: 'Enter litres, 0 or more.' })
  if (!(residualWaterLitres >= 0)) throw invalid({ residualWaterLitres: 'Enter litres, 0 or more.' })
  const target = designLowC - marginC
  const needed = `${degrees(target)} is needed (${degrees(designLowC)} less ${marginC} °C)`
  const cautions: string[] = []
  if (product.fluid === 'ethylene')
    cautions.push('Ethylene glycol poisons people and animals: never where either could drink of it.')
  if (product.fluid === 'alcohol')
    cautions.push('It burns: no flame, no hot burner, and air. No glycol refractometer reads it.')
  const poured = zoneLitres * (1 + runOn)

  if (product.sold === 'ready') {
    if (product.freezesAtC === null)
      return {
        ok: false,
        why:
          product.burstsAtC === null
            ? `${product.name} states no freezing point.`
            : `${product.name} states a burst point only: above it ice can stand in a valve. It plans nothing.`,
      }
    if (product.freezesAtC > target)
      return { ok: false, why: `${product.name} freezes at ${degrees(product.freezesAtC)}; ${needed}.` }
    if (residualWaterLitres > 0)
      cautions.push('It is as rated only once it comes out undiluted: measure at the outlet. Never thin it.')
    return {
      ok: true,
      concentrateLitres: poured,
      waterLitres: 0,
      volumePercent: product.contentPercent,
      freezesAtC: product.freezesAtC,
      cautions,
    }
  }

  if (product.fluid === 'alcohol')
    return { ok: false, why: `${product.name} is no glycol: no table here says what it makes of water.` }
  if (product.contentPercent === null)
    return { ok: false, why: `${product.name} does not state how much glycol is in it.` }
  const atLeast = concentrateNeeded({
    fluid: product.fluid,
    concentratePercent: product.contentPercent,
    residualWaterLitres,
    designLowC,
    marginC,
  })
  if (atLeast === null) return { ok: false, why: `${product.name} cannot reach it: ${needed}.` }
  const share = shareFor(product.fluid, target)!
  // All that is poured and all that was left in share the glycol; more is poured only where that is too thin.
  const total = Math.max(poured, atLeast)
  const concentrateLitres = Math.min(total, (share * (total + residualWaterLitres)) / product.contentPercent)
  const whole = total + residualWaterLitres
  const volumePercent = whole === 0 ? share : (concentrateLitres * product.contentPercent) / whole
  const freezing = freezingPoint(product.fluid, volumePercent)
  return {
    ok: true,
    concentrateLitres,
    waterLitres: total - concentrateLitres,
    volumePercent,
    freezesAtC: freezing.freezeC ?? target,
    cautions,
  }
}

/** Whole packs that cover so many litres, what they cost and what is left over. */
export function packsFor(product: Antifreeze, litres: number, inStoresLitres = 0) {
  const short = Math.max(0, litres - inStoresLitres)
  const packs = short > 0 ? Math.ceil(short / product.packLitres - 1e-9) : 0
  return {
    packs,
    cents: packs * product.packCents,
    leftLitres: inStoresLitres + packs * product.packLitres - litres,
  }
}
