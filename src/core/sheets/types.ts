import type { Day } from '../calendar'
import type { Damage, Disposition, Extent, FindingSort } from '../inspection'
import type { VisitItem } from '../plan'
import type { ComposedSheet, FastenerNeed, SheetStep, StripOrder, UsedPractice } from '../composing'
import type {
  AccessNode,
  Fastener,
  Part,
  PartUnit,
  PositionKey,
  PositionSort,
  StackItem,
  Task,
} from '../models'
import type { Wrench } from '../torque'
import type { DutyKey } from '../wear'
import type { SheetWinter } from '../winter'

/**
 * What a sheet was composed from and into, held in full by its first entry: a signed sheet never
 * depends on a later model or on later code.
 */
export type SheetContent = {
  trigger: 'planned' | 'breakdown'
  /** What happened, on an unplanned sheet. */
  trouble: string
  stripOrder: StripOrder
  assemblies: SheetAssembly[]
  meters: SheetMeter[]
  steps: SheetStep[]
  parts: ComposedSheet['parts']
  /** What a finding may need besides. Missing on sheets opened before it was composed. */
  spares?: ComposedSheet['spares']
  consumables?: ComposedSheet['consumables']
  qualifications?: ComposedSheet['qualifications']
  helperMinutes?: number
  cautions?: ComposedSheet['cautions']
  practices?: UsedPractice[]
  /** With the wrench of the register for each stage, as it stood when the sheet was opened. */
  torques?: (FastenerNeed & { wrenches: string[] })[]
  /** The wrenches of the register on the day it was opened: a torque that is looked up later gets one too. */
  register?: { wrenches: Wrench[]; day: Day }
  tools: ComposedSheet['tools']
  minutes: number
  /** What was chosen, so that it can be composed anew with what is found on the way. */
  items?: VisitItem[]
  /** The winter part, where the sheet makes a machine safe or brings it back. */
  winter?: SheetWinter
  /** What was added on the way, oldest first. */
  extra?: ExtraWork[]
}

/** Work that was found on the way and added to the sheet, or a way of doing it that was changed. */
export type ExtraWork = {
  services: string
  reason: string
  /** Minutes more than before, which may be less. */
  minutes: number
  at: string
  byName: string
}

export type SheetMeter = { id: string; name: string; unit: 'h' | 'strokes' }

/** One pump on the sheet, with the exact version of its model. */
export type SheetAssembly = {
  id: string
  number: string
  title: string
  serial: string
  unit: 'h' | 'strokes'
  modelId: string
  modelVersionId: string
  modelVersion: number
  notice: string
  tasks: (Pick<Task, 'name' | 'kind'> & {
    task: string
    positions: PositionKey[]
    where: string
    /** Nobody chose it: opening the pump destroys or unseats what it renews. */
    disturbed?: string
    /** The ways of doing it where there are several, and the one that was composed. */
    ways?: { key: string; name: string }[]
    way?: string | null
  })[]
  /** Every position of the pump, in body order. */
  positions: {
    key: PositionKey
    name: string
    part: string | null
    pieces: number
    /** Missing on sheets opened before it was composed, as is all of the following. */
    sort?: PositionSort
    /** The opened place in which it is reached: `sealStack@2`. */
    node?: string | null
  }[]
  parts: Pick<Part, 'key' | 'name' | 'unit'>[]
  fasteners: Fastener[]
  /** What is opened, with what lies in each bore. */
  nodes?: {
    key: string
    name: string
    where: string
    stack: StackItem[]
    innermost: AccessNode['innermost']
  }[]
  /** Hard duty known of the pump when the sheet was opened. */
  duties?: DutyKey[]
  /** Names of the tools its steps speak of. */
  tools?: { key: string; name: string }[]
}

/** Kinds that a device sends; the others are written by the server. */
export type DeviceEntryKind =
  | 'reading'
  | 'madeSafe'
  | 'done'
  | 'skipped'
  | 'takeBack'
  | 'remark'
  | 'substitute'
  | 'renewed'
  | 'kept'
  | 'part'
  | 'notUsed'
  | 'bolt'
  | 'torqueSet'
  | 'timer'
  | 'timerEnd'
  | 'finding'
  | 'photo'
  | 'measured'
  | 'lock'
  | 'left'
  | 'joined'
export type EntryKind = DeviceEntryKind | 'composed' | 'signed' | 'correction'

type Amount = { value: number; unit: string }

/** What each kind of entry says. */
export type Payloads = {
  composed: SheetContent
  /** A meter as it was read, or why it could not be. The server adds how the reading was judged. */
  reading: {
    meterId: string
    typed: string
    unreadable: string
    vouched: boolean
    readingId?: string
    shown?: string
    status?: 'accepted' | 'doubted'
    reason?: string
  }
  /** Of the making safe that this confirms: a sheet that was energised in between asks for another. */
  madeSafe: { name: string; round?: number }
  done: Done
  skipped: { reason: string }
  /** Takes back an entry of one's own or another's: the step is open again, the part was not used. */
  takeBack: { of: string; reason: string }
  remark: { text: string }
  substitute: { tool: string; used: string; reason: string }
  renewed: { assemblyId: string; position: PositionKey; reason: string }
  kept: { assemblyId: string; position: PositionKey; reason: string }
  part: PartUse
  /** A part that opening uses up was not: why. */
  notUsed: { assemblyId: string; part: string; reason: string }
  /** One bolt pulled in one pass; `place` counts in the order of tightening, from 1. */
  bolt: { place: number; bolt: string; torque: Amount | null; reason: string }
  /** A torque that the model does not give, or nobody had verified: looked up, with its page. */
  torqueSet: { assemblyId: string; fastener: string; value: number; unit: string; page: string }
  timer: { kind: TimerKind; name: string; minutes: number | null }
  /** Ended by hand: it was started by mistake, or is no longer waited for. */
  timerEnd: { of: string; reason: string }
  finding: Finding
  /** The photo itself lies beside the database under this id. */
  photo: { photoId: string; caption: string; assemblyId: string | null; position: PositionKey | null }
  measured: Measured
  lock: { name: string; goes: 'on' | 'off'; reason: string }
  /** Somebody leaves the sheet: for a while, or into a colleague's hands. */
  left: { toId: string | null; toName: string; words: string }
  joined: { words: string }
  signed: Signing
  correction: Correction
}

/** What a step was confirmed with. Missing fields: the entry was written before they could be said. */
export type Done = {
  measure: (Amount & { how?: string }) | null
  torque: Amount | null
  answer: string
  reason: string
  /** What an adjustment stood at, or was put back to. */
  setting?: string
  /** What became of each piece that came out of a bore. */
  pieces?: PieceFate[]
  /** Valves that went back, each said to be in the bore it came from: `assembly/position`. */
  ownBores?: string[]
}

export const pieceFates = {
  renewed: 'renewed',
  refitted: 'goes back',
  writtenOff: 'written off',
} as const
export type PieceFate = { part: string; pieces: number; fate: keyof typeof pieceFates; reason: string }

export const timerKinds = {
  soak: 'soaks',
  sets: 'sets',
  cured: 'cured',
  own: 'timer',
  watch: 'watch',
} as const
export type TimerKind = keyof typeof timerKinds

/** What was seen on one part, and what was decided. A later one about the same part takes its place. */
export type Finding = {
  assemblyId: string
  /** Null for what is no wearing position: the manifold, an O-ring. `what` names it then. */
  position: PositionKey | null
  what: string
  sort: FindingSort
  damages: Damage[]
  extent: Extent | ''
  disposition: Disposition
  words: string
}

export type Measured = {
  assemblyId: string
  position: PositionKey | null
  what: string
  value: number
  unit: string
  /** How it was measured; only like is compared with like. */
  how: string
  words: string
}

/** A part used, from a lot of the stores or from elsewhere. */
export type PartUse = {
  /** Null: not a part of the stores; the name says what it was. */
  partId: string | null
  lotId: string | null
  /** Our number of that lot. Filled in by the server for the record. */
  lot?: number | null
  name: string
  unit: PartUnit
  quantity: number
  /** Which pump it went into, and as which part of its model; null for what fits neither. */
  assemblyId: string | null
  part: string | null
}

export type EndedLife = {
  assemblyId: string
  position: PositionKey
  endReason: 'preventive' | 'failed' | 'disturbed' | 'unknown'
  /** The day it was first seen failing, where it failed and somebody knows. */
  seenFailingOn: string | null
  /** Usage it had reached. Filled in by the server for the record. */
  reached?: number | null
}

export type Signing = {
  ended: EndedLife[]
  note: string
  /** The parts used that exceeded what their lot held: those bins want counting. */
  toCount?: { partId: string; name: string; short: number; unit: string }[]
  /** After how many hours of work somebody looks at it again; null where nothing was renewed. */
  earlyCheckHours?: number | null
  /** What is due next on these pumps, as it stood when this was signed. Filled in by the server. */
  next?: { pump: string; service: string; limit: string; about: string | null }[]
}

/** A correction never edits: it names the entry it corrects, and says what is right instead. */
export type Correction =
  | { about: 'words'; of: string; text: string; reason: string }
  | { about: 'part'; of: string; quantity: number; reason: string }
  | {
      about: 'endReason'
      of: string
      assemblyId: string
      position: PositionKey
      endReason: EndedLife['endReason']
      reason: string
    }
  | { about: 'notRenewed'; of: string; assemblyId: string; position: PositionKey; reason: string }

/** One line of a sheet's history. Appended, never changed. */
export type SheetEntry<Kind extends EntryKind = EntryKind> = {
  [K in Kind]: {
    id: string
    /** The order in which the server took it in, from 1. */
    sequence: number
    deviceId: string
    deviceSeq: number
    /** The last sequence its device had seen when it was written. */
    seenUpTo: number
    deviceTime: string
    /** When it happened: the server's time less how long it waited on its device. */
    at: string
    stepKey: string | null
    kind: K
    payload: Payloads[K]
    byId: string
    byName: string
    /** Whoever took it in for an author who could not send it any more, and why; blank where the author did. */
    takenInByName?: string
    takenInWhy?: string
    /** It came in after the sheet was signed: kept, and without effect. */
    late: boolean
  }
}[Kind]

/** An entry as a device sends it. It belongs to whoever made it, not to whoever sends it. */
export type SentEntry = {
  id: string
  authorId: string
  deviceId: string
  deviceSeq: number
  seenUpTo: number
  deviceTime: string
  stepKey: string | null
  kind: DeviceEntryKind
  payload: unknown
}
