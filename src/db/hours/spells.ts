import type { SpellInput } from '@/core/hours'
import { day, id, orNull, real, text, whole, table, type RowOf } from '../house'

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
    recordedAt: text(),
    recordedById: text(),
    version: whole(),
  },
  'machineId',
)
export type SpellRow = RowOf<typeof spells>
