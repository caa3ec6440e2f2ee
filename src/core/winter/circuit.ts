import { invalid } from '../problem'

/**
 * The water side of a machine, from tank to nozzle: every piece that holds water, in the order in which the
 * water runs through it. What freezes, what is drained and what is protected are all read off it.
 */
export const elementKinds = {
  waterTank: 'Water tank',
  suctionHose: 'Suction hose',
  strainer: 'Strainer',
  pump: 'Pump',
  unloader: 'Unloader',
  bypassLine: 'By-pass line',
  coil: 'Heater coil',
  pressureHose: 'Pressure hose',
  reel: 'Reel',
  gun: 'Gun and lance',
  nozzle: 'Nozzle',
  chemicalTank: 'Chemical tank',
  injector: 'Injector or proportioner',
  chemicalPump: 'Chemical pump',
  chemicalHose: 'Chemical hose',
  chemicalReel: 'Chemical reel',
} as const
export type ElementKind = keyof typeof elementKinds

/** What is made safe in one way; in the order in which the water reaches them. */
export const zoneNames = {
  tanks: 'Tanks and suction',
  pump: 'Pump',
  bypass: 'By-pass and unloader',
  coil: 'Coil',
  hose: 'Pressure hose and gun',
  chemical: 'Injector and chemical side',
} as const
export type Zone = keyof typeof zoneNames
export const zones = Object.keys(zoneNames) as Zone[]

export const zoneOf: Readonly<Record<ElementKind, Zone>> = {
  waterTank: 'tanks',
  suctionHose: 'tanks',
  strainer: 'tanks',
  pump: 'pump',
  unloader: 'bypass',
  bypassLine: 'bypass',
  coil: 'coil',
  pressureHose: 'hose',
  reel: 'hose',
  gun: 'hose',
  nozzle: 'hose',
  chemicalTank: 'chemical',
  injector: 'chemical',
  chemicalPump: 'chemical',
  chemicalHose: 'chemical',
  chemicalReel: 'chemical',
}

/** One piece of the circuit. What it holds is known in litres, or follows from bore and length. */
export type CircuitElement = {
  id: string
  kind: ElementKind
  /** Only where a machine has several of a kind: "Reel, left". Blank says the kind. */
  name?: string
  litres?: number | null
  boreMm?: number | null
  lengthM?: number | null
  /** It runs empty once it is opened; else what is in it stays until it is blown or pushed out. */
  drains?: boolean
  /** Litres that run out of it by themselves, where its model says how many; else its kind's share. */
  drainsLitres?: number | null
  /** Low points that keep water, in words. */
  traps?: string
  /** What freezing it would cost, in cents; null where nobody has said. */
  costCents?: number | null
}

/**
 * What a hose holds: π/4 · bore² · length.
 *
 * @param boreMm inside diameter in mm, 0 or more
 * @param lengthM length in m, 0 or more
 * @returns litres
 * @throws invalid input where one of them is negative or no number
 * @example hoseVolume(12.7, 100) // 12.67
 */
export function hoseVolume(boreMm: number, lengthM: number): number {
  if (!Number.isFinite(boreMm) || boreMm < 0)
    throw invalid({ boreMm: 'Enter the inside diameter in mm, 0 or more.' })
  if (!Number.isFinite(lengthM) || lengthM < 0)
    throw invalid({ lengthM: 'Enter the length in m, 0 or more.' })
  // mm² · m is a thousandth of a litre.
  return (Math.PI / 4) * boreMm * boreMm * lengthM * 1e-3
}

/** Litres that one piece holds, or null where neither litres nor bore and length are known. */
export function elementLitres(element: CircuitElement): number | null {
  if (element.litres !== undefined && element.litres !== null) {
    if (!Number.isFinite(element.litres) || element.litres < 0)
      throw invalid({ [element.id]: 'Enter litres, 0 or more.' })
    return element.litres
  }
  if (element.boreMm == null || element.lengthM == null) return null
  return hoseVolume(element.boreMm, element.lengthM)
}

export type WetVolume = {
  elements: { id: string; kind: ElementKind; zone: Zone; litres: number | null }[]
  /** Litres known in each zone that the circuit has. */
  zones: Partial<Record<Zone, number>>
  litres: number
  /** Pieces of which nobody knows what they hold: every figure above is at least so much. */
  unknown: string[]
}

/**
 * What a whole circuit holds, piece by piece and zone by zone.
 *
 * @param circuit its pieces in flow order
 * @returns litres; pieces whose volume is unknown count nothing and are named
 * @throws invalid input where a volume, bore or length is negative or no number
 */
export function wetVolume(circuit: readonly CircuitElement[]): WetVolume {
  const elements = circuit.map((element) => ({
    id: element.id,
    kind: element.kind,
    zone: zoneOf[element.kind],
    litres: elementLitres(element),
  }))
  const held: Partial<Record<Zone, number>> = {}
  for (const { zone, litres } of elements) held[zone] = (held[zone] ?? 0) + (litres ?? 0)
  return {
    elements,
    zones: held,
    litres: elements.reduce((sum, { litres }) => sum + (litres ?? 0), 0),
    unknown: elements.filter(({ litres }) => litres === null).map(({ id }) => id),
  }
}

/** What was done to a piece before anything is put in. */
export type Emptied = 'full' | 'drained' | 'blown'

/** Shares of its water that stay in a piece; ours where nobody has measured better. */
const stays = {
  hose: { drained: 0.15, blown: 0.05 },
  tank: 0.02,
  body: 0.15,
  coil: { drained: 1, blown: 0.05 },
}
const hoses: readonly ElementKind[] = [
  'suctionHose',
  'bypassLine',
  'pressureHose',
  'reel',
  'chemicalHose',
  'chemicalReel',
]
const tanks: readonly ElementKind[] = ['waterTank', 'chemicalTank']

/**
 * The share of its water that stays in a piece: 15 % of a drained hose, 5 % of a blown one, 2 % of a drained
 * tank, all of a pump that is not turned over (ours, until somebody has measured). A coil lies in turns and
 * keeps all that is not blown out; what a model says runs out of it goes before any share.
 */
export function residualShare(element: CircuitElement, emptied: Emptied): number {
  if (emptied === 'full') return 1
  const litres = elementLitres(element)
  const drained = element.drainsLitres
  const left =
    drained != null && litres !== null && litres > 0 ? Math.max(0, litres - drained) / litres : null
  if (tanks.includes(element.kind)) return stays.tank
  if (hoses.includes(element.kind)) return stays.hose[emptied]
  if (element.kind === 'coil') return emptied === 'blown' ? stays.coil.blown : (left ?? stays.coil.drained)
  if (element.kind === 'pump') return left ?? 1
  if (emptied === 'blown') return stays.hose.blown
  return left ?? (element.drains === false ? 1 : stays.body)
}

/** Litres of water that stay in a piece; null where nobody knows what it holds. */
export function residualLitres(element: CircuitElement, emptied: Emptied): number | null {
  const litres = elementLitres(element)
  return litres === null ? null : litres * residualShare(element, emptied)
}
