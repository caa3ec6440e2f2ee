import type { ComposedSheet, FastenerNeed, SheetStep, StripOrder, UsedPractice } from '../procedure'
import type { Fastener, Part, PositionKey, Task } from '../pump'

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
  cautions?: ComposedSheet['cautions']
  practices?: UsedPractice[]
  /** With the wrench of the register for each stage, as it stood when the sheet was opened. */
  torques?: (FastenerNeed & { wrenches: string[] })[]
  tools: ComposedSheet['tools']
  minutes: number
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
  })[]
  /** Every position of the pump, in body order. */
  positions: { key: PositionKey; name: string; part: string | null; pieces: number }[]
  parts: Pick<Part, 'key' | 'name' | 'unit'>[]
  fasteners: Fastener[]
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
  madeSafe: { name: string }
  done: { measure: Amount | null; torque: Amount | null; answer: string; reason: string }
  skipped: { reason: string }
  /** Takes back an entry of one's own or another's: the step is open again, the part was not used. */
  takeBack: { of: string; reason: string }
  remark: { text: string }
  substitute: { tool: string; used: string; reason: string }
  renewed: { assemblyId: string; position: PositionKey; reason: string }
  kept: { assemblyId: string; position: PositionKey; reason: string }
  part: PartUse
  signed: Signing
  correction: Correction
}

/** A part used, from a lot of the stores or from elsewhere. */
export type PartUse = {
  /** Null: not a part of the stores; the name says what it was. */
  partId: string | null
  lotId: string | null
  /** Our number of that lot. Filled in by the server for the record. */
  lot?: number | null
  name: string
  unit: 'piece' | 'L' | 'mL'
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
    /** It came in after the sheet was signed: kept, and without effect. */
    late: boolean
  }
}[Kind]

/** An entry as a device sends it. */
export type SentEntry = {
  id: string
  deviceId: string
  deviceSeq: number
  seenUpTo: number
  deviceTime: string
  stepKey: string | null
  kind: DeviceEntryKind
  payload: unknown
}
