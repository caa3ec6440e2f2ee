import type { History, MeterFace } from '../hours'
import type { PartUnit } from '../stores'
import type { ClockState, EndReason, WearView } from '../wear'
import type { EarlierMeasure } from './bench/measures'
import type { ExtraWork, SheetEntry } from './types'

/** A sheet as lists show it. */
export type SheetLine = {
  id: string
  number: number
  state: 'open' | 'signed' | 'abandoned'
  trigger: 'planned' | 'breakdown'
  trouble: string
  visitId: string | null
  visitNumber: number | null
  machineNumber: string | null
  machineName: string | null
  place: string
  pumps: string[]
  services: { name: string; where: string; pump: string }[]
  startedOn: string
  startedBy: string
  signedOn: string | null
  signedBy: string | null
  endReason: string
  /** Steps ticked or skipped so far, of how many. */
  ticked: number
  steps: number
  version: number
  /** Work that was found on the way and added. */
  extra: ExtraWork[]
  /** Left or handed on, and not taken up since. */
  left: { byName: string; toName: string; words: string } | null
}

/** A torque that was looked up on an earlier sheet of the same model version. */
export type SettledTorque = {
  modelVersionId: string
  fastener: string
  value: number
  unit: string
  page: string
  byName: string
  sheet: string
}

/** A part of the stores as the bench chooses it. */
export type BenchPart = {
  id: string
  number: string
  name: string
  unit: PartUnit
  bin: string
  onHand: number
  fits: { modelId: string; part: string }[]
  lots: { id: string; label: string; onHand: number; expired: boolean }[]
  /** Unopened kits that hold it: opened at the bench, their pieces are lots. */
  kits: { lotId: string; placeId: string; label: string; holds: number }[]
}

export type BenchMeter = {
  id: string
  name: string
  face: MeterFace
  history: History
  last: { value: number; day: string; readBy: string } | null
}

/** Everything a sheet's page needs to be worked: entries, and what stands around them. */
export type SheetPage = SheetLine & {
  entries: SheetEntry[]
  meters: BenchMeter[]
  wear: WearView[]
  parts: BenchPart[]
  earlier: EarlierMeasure[]
  settled: SettledTorque[]
  colleagues: { id: string; name: string }[]
  /** Our clock when the page was made. */
  now: string
}

/** A life that signing ends, with what is known of it. */
export type EndingLife = {
  assemblyId: string
  pump: string
  position: string
  name: string
  reached: number
  unit: 'h' | 'strokes'
  limit: number | null
  early: number
  state: ClockState
  days: number
  planned: boolean
  presumed: EndReason
}

/** What signing will do, to be looked at before it is done. */
export type SigningView = {
  notReady: string[]
  upTo: number
  earlyCheckHours: number
  /** Minutes of work so far, and what was reckoned with. */
  minutes: { worked: number; estimated: number }
  workedAt: string | null
  ending: EndingLife[]
  beginning: { assemblyId: string; pump: string; position: string; name: string }[]
  kept: { pump: string; name: string; reason: string }[]
  uses: {
    name: string
    quantity: number
    unit: PartUnit
    lot: string
    onHand: number | null
    short: number
  }[]
  /** Parts that were expected and are not among those used. */
  notUsed: { name: string; quantity: number; used: number; unit: PartUnit }[]
}

/** A service that can be added to an open sheet, with what the open pump makes it cost. */
export type MoreWork = {
  assemblyId: string
  pump: string
  task: string
  name: string
  positions: { key: string; name: string }[]
  ways: { key: string; name: string }[]
  /** Minutes more now, and on a visit of its own. */
  now: number
  alone: number
  openAlready: string[]
}
