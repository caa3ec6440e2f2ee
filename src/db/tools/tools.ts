import type { ToolInput } from '@/core/tools'
import { day, id, json, longText, real, text, whole, table } from '../house'

export type ToolRow = Omit<ToolInput, 'version'> & {
  retiredOn: string | null
  retiredReason: string
  createdAt: string
  version: number
}

export const tools = table<ToolRow>(
  'tools',
  {
    id,
    number: text,
    name: text,
    kind: text,
    count: whole,
    rangeFrom: real,
    rangeTo: real,
    rangeUnit: text,
    leverMm: real,
    calibrationDue: day,
    yardId: text,
    place: text,
    serves: json,
    note: longText,
    retiredOn: day,
    retiredReason: text,
    createdAt: text,
    version: whole,
  },
  ['serves'],
)
