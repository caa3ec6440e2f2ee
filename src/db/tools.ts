import type { ToolKind } from '@/core/tools'
import { day, id, json, longText, real, text, whole } from './columns'
import { table } from './table'

export type ToolRow = {
  id: string
  number: string
  name: string
  kind: ToolKind
  /** How many of it there are. */
  count: number
  rangeFrom: number | null
  rangeTo: number | null
  rangeUnit: string
  /** From the middle of the drive to the middle of the grip. */
  leverMm: number | null
  calibrationDue: string | null
  yardId: string | null
  place: string
  /** Names by which pump models ask for it. */
  serves: string[]
  note: string
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
