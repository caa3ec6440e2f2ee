import type { ElementKind } from './circuit'

/** Inside diameters that hoses are sold in, in mm: the inch sizes and the metric ones. */
const usualBores = [
  3.2, 4, 4.8, 5, 6, 6.4, 7.9, 8, 9.5, 10, 12, 12.7, 13, 15.9, 16, 19, 19.1, 20, 25, 25.4, 31.8, 32, 38, 38.1,
  40, 50, 50.8, 60, 63.5, 75, 76.2, 100, 101.6,
]
/** Between which bores each kind of hose lies, in mm. Ours; a question, never a refusal. */
const range: Partial<Record<ElementKind, [number, number]>> = {
  suctionHose: [10, 110],
  bypassLine: [5, 60],
  coil: [8, 45],
  pressureHose: [3, 26],
  reel: [3, 40],
  chemicalHose: [3, 40],
  chemicalReel: [3, 40],
}
const inMm = { mm: 1, in: 25.4, cm: 10 } as const
export type BoreUnit = keyof typeof inMm

export type BoreQuestion = { says: string; perhaps: { value: number; unit: BoreUnit; mm: number } | null }

const usual = (mm: number, [least, most]: [number, number]) =>
  mm >= least && mm <= most && usualBores.some((size) => Math.abs(mm - size) <= size * 0.03)

/**
 * Whether a bore as typed is one that such a hose has; where it is not, which unit was probably meant. A bore
 * in the wrong unit is wrong by six hundred times in litres.
 *
 * @returns null where it is usual, else a question, with the unit in which the same figure is a usual size
 * @example judgeBore('pressureHose', 0.5, 'mm')?.perhaps // { value: 0.5, unit: 'in', mm: 12.7 }
 */
export function judgeBore(kind: ElementKind, value: number, unit: BoreUnit): BoreQuestion | null {
  const limits = range[kind] ?? [3, 110]
  const mm = value * inMm[unit]
  if (usual(mm, limits)) return null
  const other = (Object.keys(inMm) as BoreUnit[]).find(
    (name) => name !== unit && usual(value * inMm[name], limits),
  )
  const shown = Number(mm.toPrecision(3))
  if (other) {
    return {
      says: `${value} ${unit} is no usual bore here. Was it ${value} ${other}?`,
      perhaps: { value, unit: other, mm: value * inMm[other] },
    }
  }
  const outside = mm < limits[0] || mm > limits[1]
  return {
    says: outside
      ? `${shown} mm is outside what such a hose has (${limits[0]} to ${limits[1]} mm). Measure the inside, not the cover.`
      : `${shown} mm is between the usual sizes. Measure the inside, not the cover.`,
    perhaps: null,
  }
}
