import type { ToolInput } from '@/core/tools'
import { day, id, json, longText, orNull, real, text, whole, table, type RowOf, retirable } from '../house'

export const tools = table('tools', {
  id,
  number: text(),
  name: text(),
  kind: text<ToolInput['kind']>(),
  count: whole(),
  rangeFrom: orNull(real()),
  rangeTo: orNull(real()),
  rangeUnit: text(),
  leverMm: orNull(real()),
  calibrationDue: orNull(day()),
  yardId: orNull(text()),
  place: text(),
  serves: json<ToolInput['serves']>(),
  note: longText(),
  ...retirable,
})
export type ToolRow = RowOf<typeof tools>
