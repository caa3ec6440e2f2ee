import type { AssemblyInput } from '@/core/fleet'
import { day, id, longText, real, text, whole, table } from '../house'

export type AssemblyRow = Omit<AssemblyInput, 'version' | 'takenOverOn'> & {
  takenOverAt: string
  /** The exact version of its model that its services are composed from; null until one is published. */
  modelVersionId: string | null
  retiredOn: string | null
  retiredReason: string
  createdAt: string
  version: number
}

export const assemblies = table<AssemblyRow>('assemblies', {
  id,
  number: text,
  kind: text,
  modelId: text,
  name: text,
  serial: text,
  usageScale: text,
  openingKind: text,
  openingUsage: real,
  takenOverAt: text,
  modelVersionId: text,
  note: longText,
  retiredOn: day,
  retiredReason: text,
  createdAt: text,
  version: whole,
})

/** From an instant on an assembly is on a machine, or on a yard's shelf; until its next fitting. */
export type FittingRow = {
  id: string
  assemblyId: string
  machineId: string | null
  yardId: string | null
  /** The place on the machine, or the bin on the shelf. */
  slot: string
  at: string
  reason: string
  status: 'active' | 'superseded'
  supersedesId: string | null
  recordedAt: string
  recordedById: string
}

export const fittings = table<FittingRow>('fittings', {
  id,
  assemblyId: text,
  machineId: text,
  yardId: text,
  slot: text,
  at: text,
  reason: text,
  status: text,
  supersedesId: text,
  recordedAt: text,
  recordedById: text,
})

/** From an instant on an assembly is counted by this meter, at this share of what it counts. */
export type DutyShareRow = {
  id: string
  assemblyId: string
  meterId: string
  share: number
  basis: 'own' | 'assumed' | 'measured'
  at: string
  status: 'active' | 'superseded'
  recordedAt: string
  recordedById: string
}

export const dutyShares = table<DutyShareRow>('duty_shares', {
  id,
  assemblyId: text,
  meterId: text,
  share: real,
  basis: text,
  at: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})
