import type { DateOrder } from '@/core/calendar'
import type { UnitPreferences } from '@/core/units'
import { id, json, real, text, whole } from './columns'
import { table, type RowOf } from './table'

export const companies = table('companies', {
  id,
  name: text(),
  timeZone: text(),
  currency: text(),
  dateOrder: text<DateOrder>(),
  units: json<UnitPreferences>(),
  noticeDays: whole(),
  earlyCheckHours: real(),
  createdAt: text(),
  version: whole(),
})
export type CompanyRow = RowOf<typeof companies>
