import type { VisitItem, VisitState } from '@/core/plan'
import { day, id, json, longText, text, whole, table } from '../house'

export type VisitRow = {
  id: string
  number: number
  /** One of the two: the machine it is on, or the shelved assembly. */
  machineId: string | null
  assemblyId: string | null
  day: string
  startTime: string | null
  /** As composed when it was booked. */
  minutes: number
  leadId: string
  state: VisitState
  items: VisitItem[]
  note: string
  endReason: string
  createdAt: string
  version: number
}

export const visits = table<VisitRow>(
  'visits',
  {
    id,
    number: whole,
    machineId: text,
    assemblyId: text,
    day,
    startTime: text,
    minutes: whole,
    leadId: text,
    state: text,
    items: json,
    note: longText,
    endReason: text,
    createdAt: text,
    version: whole,
  },
  ['items'],
)
