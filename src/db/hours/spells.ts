import type { SpellInput } from '@/core/hours'
import { day, id, orNull, real, text, whole, table, type RowOf, recorded } from '../house'

export const spells = table(
  'spells',
  {
    id,
    machineId: text(),
    kind: text<SpellInput['kind']>(),
    fromDay: day(),
    toDay: orNull(day()),
    hoursPerDay: orNull(real()),
    what: text(),
    status: text<'active' | 'withdrawn'>(),
    ...recorded,
    version: whole(),
  },
  'machineId',
)
export type SpellRow = RowOf<typeof spells>
