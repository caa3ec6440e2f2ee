import type { VisitItem, VisitState } from '@/core/plan'
import { day, id, json, longText, text, whole, table, type RowOf, orNull } from '../house'

export const visits = table('visits', {
  id,
  number: whole(),
  /** One of the two: the machine it is on, or the shelved assembly. */
  machineId: orNull(text()),
  assemblyId: orNull(text()),
  day: day(),
  startTime: orNull(text()),
  /** As composed when it was booked. */
  minutes: whole(),
  leadId: text(),
  state: text<VisitState>(),
  items: json<VisitItem[]>(),
  note: longText(),
  endReason: text(),
  /** Makes a machine safe before the frost, or brings it back; blank for any other. */
  winter: text<'' | 'lay' | 'return'>(),
  /** Parts of the stores that it takes besides what its services need, such as what is poured. */
  extraParts: orNull(json<{ partId: string; quantity: number }[]>()),
  /** Who helps, where it wants more than one. */
  helperIds: orNull(json<string[]>()),
  /** Held where it is by hand: no plan moves it. */
  pinned: whole<0 | 1>(),
  approvedById: orNull(text()),
  approvedAt: orNull(text()),
  createdAt: text(),
  version: whole(),
})
export type VisitRow = RowOf<typeof visits>
