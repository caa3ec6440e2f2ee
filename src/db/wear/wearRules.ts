import type { DutyKey } from '@/core/wear'
import { id, orNull, real, text, table, type RowOf } from '../house'

const recorded = { status: text<'active' | 'superseded'>(), recordedAt: text(), recordedById: text() }

export const limitOverrides = table(
  'limit_overrides',
  {
    id,
    assemblyId: text(),
    task: text(),
    hours: orNull(real()),
    days: orNull(real()),
    firstHours: orNull(real()),
    firstDays: orNull(real()),
    early: real(),
    late: real(),
    reason: text(),
    supersedesId: orNull(text()),
    ...recorded,
  },
  'assemblyId',
)
/** The limit one assembly goes by for one task, instead of its model's. */
export type LimitOverrideRow = RowOf<typeof limitOverrides>

export const duties = table(
  'duties',
  {
    id,
    assemblyId: text(),
    key: text<DutyKey>(),
    factor: real(),
    reason: text(),
    ...recorded,
  },
  'assemblyId',
)
/** Something hard about an assembly's work. */
export type DutyRow = RowOf<typeof duties>
