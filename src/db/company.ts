import type { UnitPreferences } from '@/core/units'
import { id, json, text, whole } from './columns'
import { table } from './table'

export type CompanyRow = {
  id: string
  name: string
  timeZone: string
  currency: string
  units: UnitPreferences
  noticeDays: number
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
    createdAt: text,
    version: whole,
  },
  ['units'],
)
