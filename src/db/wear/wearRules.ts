import type { DutyKey } from '@/core/wear'
import { id, real, text, table } from '../house'

type Recorded = { status: 'active' | 'superseded'; recordedAt: string; recordedById: string }

/** The limit one assembly goes by for one task, instead of its model's. */
export type LimitOverrideRow = Recorded & {
  id: string
  assemblyId: string
  task: string
  hours: number | null
  days: number | null
  firstHours: number | null
  firstDays: number | null
  early: number
  late: number
  reason: string
  supersedesId: string | null
}

export const limitOverrides = table<LimitOverrideRow>('limit_overrides', {
  id,
  assemblyId: text,
  task: text,
  hours: real,
  days: real,
  firstHours: real,
  firstDays: real,
  early: real,
  late: real,
  reason: text,
  supersedesId: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})

/** Something hard about an assembly's work. */
export type DutyRow = Recorded & {
  id: string
  assemblyId: string
  key: DutyKey
  factor: number
  reason: string
}

export const duties = table<DutyRow>('duties', {
  id,
  assemblyId: text,
  key: text,
  factor: real,
  reason: text,
  status: text,
  recordedAt: text,
  recordedById: text,
})
