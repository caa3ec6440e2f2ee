import type { CircuitElement, ElementKind } from './circuit'

/** What a machine tells of itself, for its circuit to begin with. */
export type CircuitBasics = {
  kind: 'trailer' | 'van' | 'cart' | 'chemicalRig' | 'hotWaterSkid' | 'cuttingTable' | 'other'
  tankLitres: number | null
  hoseBoreMm: number | null
  hoseLengthM: number | null
  hasBypass: boolean
  /** Its pumps and coils, with what their models say that they hold. */
  pumps: { id: string; name: string; litres: number | null; drainsLitres: number | null; traps: string }[]
  coils: { id: string; name: string; litres: number | null; drainsLitres: number | null; traps: string }[]
}

/** What freezing a piece costs, in cents, until somebody says better. Ours. */
export const usualCosts: Readonly<Record<ElementKind, number>> = {
  waterTank: 20_000,
  suctionHose: 6000,
  strainer: 4000,
  pump: 180_000,
  unloader: 18_000,
  bypassLine: 3000,
  coil: 90_000,
  pressureHose: 25_000,
  reel: 22_000,
  gun: 12_000,
  nozzle: 3000,
  chemicalTank: 8000,
  injector: 9000,
  chemicalPump: 40_000,
  chemicalHose: 4000,
  chemicalReel: 15_000,
}

/**
 * A circuit to begin with, for a kind of machine: what its record and its models know, and what such a machine
 * usually has. Everything in it is to be looked at on the machine.
 */
export function templateFor(basics: CircuitBasics): CircuitElement[] {
  const { kind, tankLitres, hoseBoreMm, hoseLengthM, hasBypass, pumps, coils } = basics
  const piece = (id: string, of: ElementKind, more: Partial<CircuitElement>): CircuitElement => ({
    id,
    kind: of,
    name: '',
    litres: null,
    boreMm: null,
    lengthM: null,
    drains: true,
    drainsLitres: null,
    traps: '',
    costCents: usualCosts[of],
    ...more,
  })
  const list: CircuitElement[] = []
  const table = kind === 'cuttingTable'
  if (!table) {
    list.push(piece('tank', 'waterTank', { litres: tankLitres }))
    list.push(piece('suction', 'suctionHose', { boreMm: 25, lengthM: 2 }))
  }
  list.push(piece('strainer', 'strainer', { litres: 0.4 }))
  for (const pump of pumps)
    list.push(
      piece(pump.id, 'pump', {
        name: pump.name,
        litres: pump.litres,
        drainsLitres: pump.drainsLitres,
        drains: false,
        traps: pump.traps,
      }),
    )
  list.push(piece('unloader', 'unloader', { litres: 0.15, drains: false, traps: 'its chamber and spring' }))
  if (hasBypass) list.push(piece('bypass', 'bypassLine', { boreMm: 12.7, lengthM: 1.5 }))
  for (const coil of coils)
    list.push(
      piece(coil.id, 'coil', {
        name: coil.name,
        litres: coil.litres,
        drainsLitres: coil.drainsLitres,
        drains: false,
        traps: coil.traps,
      }),
    )
  list.push(
    piece('hose', 'pressureHose', {
      boreMm: hoseBoreMm ?? (table ? 6.4 : 12.7),
      lengthM: hoseLengthM ?? (table ? 6 : null),
    }),
  )
  if (kind === 'trailer' || kind === 'van' || kind === 'chemicalRig')
    list.push(piece('reel', 'reel', { litres: 0.3, drains: false, traps: 'the swivel and the hub' }))
  if (!table) list.push(piece('gun', 'gun', { litres: 0.2, traps: 'the gun’s valve' }))
  list.push(piece('nozzle', 'nozzle', { litres: 0.02 }))
  if (kind === 'chemicalRig' || kind === 'hotWaterSkid') {
    list.push(piece('chemicalTank', 'chemicalTank', { litres: kind === 'chemicalRig' ? 200 : 20 }))
    list.push(piece('injector', 'injector', { litres: 0.05, drains: false, traps: 'its check valve' }))
  }
  if (kind === 'chemicalRig') {
    list.push(
      piece('chemicalPump', 'chemicalPump', { litres: 0.6, drains: false, traps: 'its valve pockets' }),
    )
    list.push(piece('chemicalHose', 'chemicalHose', { boreMm: 9.5, lengthM: 30 }))
    list.push(piece('chemicalReel', 'chemicalReel', { litres: 0.2, drains: false, traps: 'the swivel' }))
  }
  return list
}
