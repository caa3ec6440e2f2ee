import type { SpellInput } from '@/core/hours'
import { day, id, real, text, whole, table } from '../house'

export type SpellRow = Omit<SpellInput, 'version'> & {
  machineId: string
  status: 'active' | 'withdrawn'
  recordedAt: string
  recordedById: string
  version: number
}

export const spells = table<SpellRow>('spells', {
  id,
  machineId: text,
  kind: text,
  fromDay: day,
  toDay: day,
  hoursPerDay: real,
  what: text,
  status: text,
  recordedAt: text,
  recordedById: text,
  version: whole,
})
