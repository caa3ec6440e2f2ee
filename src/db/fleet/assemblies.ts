import type { AssemblyInput } from '@/core/fleet'
import { id, json, longText, real, text, table, type RowOf, orNull, recorded, retirable } from '../house'

export const assemblies = table('assemblies', {
  id,
  number: text(),
  kind: text<AssemblyInput['kind']>(),
  modelId: orNull(text()),
  name: text(),
  serial: text(),
  usageScale: text<AssemblyInput['usageScale']>(),
  openingKind: text<AssemblyInput['openingKind']>(),
  openingUsage: real(),
  takenOverAt: text(),
  /** The exact version of its model that its services are composed from; null until one is published. */
  modelVersionId: orNull(text()),
  /** What was found out on it once: by the key of its model's fact, the answer. */
  facts: json<Record<string, string>>(),
  note: longText(),
  ...retirable,
})
export type AssemblyRow = RowOf<typeof assemblies>

export const fittings = table(
  'fittings',
  {
    id,
    assemblyId: text(),
    machineId: orNull(text()),
    yardId: orNull(text()),
    /** The place on the machine, or the bin on the shelf. */
    slot: text(),
    at: text(),
    reason: text(),
    status: text<'active' | 'superseded'>(),
    supersedesId: orNull(text()),
    ...recorded,
  },
  'assemblyId',
)
/** From an instant on an assembly is on a machine, or on a yard's shelf; until its next fitting. */
export type FittingRow = RowOf<typeof fittings>

export const dutyShares = table(
  'duty_shares',
  {
    id,
    assemblyId: text(),
    meterId: text(),
    share: real(),
    basis: text<'own' | 'assumed' | 'measured'>(),
    at: text(),
    status: text<'active' | 'superseded'>(),
    ...recorded,
  },
  'assemblyId',
)
/** From an instant on an assembly is counted by this meter, at this share of what it counts. */
export type DutyShareRow = RowOf<typeof dutyShares>
