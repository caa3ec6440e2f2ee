import type { UnitPreferences } from '@/core/units'
import { id, json, real, text, whole } from './columns'
import { table } from './table'

export type CompanyRow = {
  id: string
  name: string
  timeZone: string
  currency: string
  units: UnitPreferences
  noticeDays: number
  earlyCheckHours: number
  createdAt: string
  version: number
}

export const companies = table<CompanyRow>(
  'companies',
  {
    id,
    name: text,
    timeZone: text,
    currency: text,
    units: json,
    noticeDays: whole,
    earlyCheckHours: real,
    createdAt: text,
    version: whole,
  },
  ['units'],
)
