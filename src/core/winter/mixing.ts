import { invalid } from '../problem'

export const glycols = { propylene: 'Propylene glycol', ethylene: 'Ethylene glycol' } as const
export type Glycol = keyof typeof glycols

/**
 * Freezing points of glycol in water, [volume % of pure glycol, °C], from published handbook tables (aqueous
 * solutions of propylene and ethylene glycol). Between two points a straight line, past the last nothing.
 */
export const freezingTables: Readonly<Record<Glycol, readonly (readonly [number, number])[]>> = {
  propylene: [
    [0, 0],
    [9.6, -3.3],
    [19.4, -7.1],
    [29.4, -12.7],
    [39.6, -21.1],
    [49.9, -33.5],
    [60, -51.1],
  ],
  ethylene: [
    [0, 0],
    [8.9, -3.2],
    [18.1, -7.8],
    [27.7, -14.1],
    [37.5, -22.3],
    [47.5, -33.8],
    [57.8, -48.3],
  ],
}

/** A straight line through the points of a table, from one column to the other. */
function along(table: readonly (readonly [number, number])[], at: number, from: 0 | 1): number {
  const to = from === 0 ? 1 : 0
  const next = table.findIndex((point) => (from === 0 ? point[0] >= at : point[1] <= at))
  const b = table[next]!
  if (b[from] === at || next === 0) return b[to]
  const a = table[next - 1]!
  return a[to] + ((at - a[from]) / (b[from] - a[from])) * (b[to] - a[to])
}

export type Freezing =
  /** The mix freezes at so many °C. */
  | { freezeC: number }
  /** Richer than the propylene table goes: lower than its last point, nobody says by how much. */
  | { freezeC: null; belowC: number }
  /** Richer than the ethylene table goes, where it freezes higher again: dilute. */
  | { freezeC: null; tooRich: true }

/** Freezing point of so many volume per cent of pure glycol. */
export function freezingPoint(fluid: Glycol, volumePercent: number): Freezing {
  const table = freezingTables[fluid]
  const [richest, lowest] = table.at(-1)!
  // A share that was computed may miss the last point by a rounding.
  if (volumePercent > richest + 1e-9)
    return fluid === 'ethylene' ? { freezeC: null, tooRich: true } : { freezeC: null, belowC: lowest }
  return { freezeC: along(table, Math.min(volumePercent, richest), 0) }
}

const litres = (value: number, field: string) => {
  if (!Number.isFinite(value) || value < 0) throw invalid({ [field]: 'Enter litres, 0 or more.' })
}
const percent = (value: number, field: string) => {
  if (!Number.isFinite(value) || value < 0 || value > 100)
    throw invalid({ [field]: 'Enter a share from 0 to 100 %.' })
}
const known = (fluid: Glycol) => {
  if (!(fluid in freezingTables)) throw invalid({ fluid: 'Choose propylene or ethylene glycol.' })
}

/**
 * What a concentrate makes of the water that is still in a zone.
 *
 * @param input.concentratePercent pure glycol in what is put in, volume %
 * @param input.addedLitres how much of it is put in
 * @param input.residualWaterLitres what was in there already
 * @param input.residualPercent glycol in that, volume %; 0 where it is water
 * @returns the share of pure glycol in the whole, and its freezing point; past the end of the table no figure
 *   but what the table still says (volumes are added up, as the tables count them)
 * @throws invalid input for shares outside 0 to 100 %, negative litres, or nothing at all
 */
export function mixFreezingPoint(input: {
  fluid: Glycol
  concentratePercent: number
  addedLitres: number
  residualWaterLitres: number
  residualPercent?: number
}): { volumePercent: number } & Freezing {
  const { fluid, concentratePercent, addedLitres, residualWaterLitres, residualPercent = 0 } = input
  known(fluid)
  percent(concentratePercent, 'concentratePercent')
  percent(residualPercent, 'residualPercent')
  litres(addedLitres, 'addedLitres')
  litres(residualWaterLitres, 'residualWaterLitres')
  const whole = addedLitres + residualWaterLitres
  if (whole === 0) throw invalid({ addedLitres: 'There is nothing in it: enter litres.' })
  const volumePercent = (addedLitres * concentratePercent + residualWaterLitres * residualPercent) / whole
  return { volumePercent, ...freezingPoint(fluid, volumePercent) }
}

/**
 * The share of pure glycol that freezes no higher than a temperature.
 * @returns volume %, 0 where water does, or null where the table does not go so low
 */
export function shareFor(fluid: Glycol, freezeC: number): number | null {
  const table = freezingTables[fluid]
  if (freezeC >= 0) return 0
  if (freezeC < table.at(-1)![1]) return null
  return along(table, freezeC, 1)
}

/**
 * How much of a concentrate brings the water in a zone down to the design low less a margin.
 *
 * @param input.marginC °C that it shall freeze below the design low; 0 unless given
 * @returns litres, or null where that product cannot reach it
 * @throws invalid input for shares outside 0 to 100 %, negative litres or margins
 * @example 4 L of water, propylene, 95 %, -13 °C with 5 °C: 36 % is needed, 4 · 36 / (95 - 36) = 2.4 L
 */
export function concentrateNeeded(input: {
  fluid: Glycol
  concentratePercent: number
  residualWaterLitres: number
  designLowC: number
  marginC?: number
}): number | null {
  const { fluid, concentratePercent, residualWaterLitres, designLowC, marginC = 0 } = input
  known(fluid)
  percent(concentratePercent, 'concentratePercent')
  litres(residualWaterLitres, 'residualWaterLitres')
  if (!Number.isFinite(designLowC)) throw invalid({ designLowC: 'Enter a temperature in °C.' })
  if (!Number.isFinite(marginC) || marginC < 0) throw invalid({ marginC: 'Enter a margin in °C, 0 or more.' })
  const share = shareFor(fluid, designLowC - marginC)
  if (share === null || share > concentratePercent) return null
  if (share === 0 || residualWaterLitres === 0) return 0
  return share === concentratePercent ? null : (residualWaterLitres * share) / (concentratePercent - share)
}
