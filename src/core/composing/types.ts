import type { ResolvedPractice } from '../practices'
import type { Fastener, PartUnit, Phase, PositionKey, PumpModel, Qualification, Step } from '../models'
import type { UnitFacts } from './practised'

/** A task on some positions; `path` where it can be done in several ways and one was chosen. */
export type ChosenTask = { task: string; positions: PositionKey[]; path?: string | null }

/** What is to be done on one assembly. */
export type Job = { id: string; model: PumpModel; tasks: ChosenTask[]; facts?: UnitFacts }

export type ComposeInput = { assemblies: Job[] }

/** How the company strips a pump: item by item through all cylinders, or one cylinder after the other. */
export type StripOrder = 'itemByItem' | 'oneAtATime'

/** A step as it stands on a sheet. Its key never depends on an index, so a signed sheet outlives later code. */
export type SheetStep = {
  key: string
  assemblyId: string
  phase: Phase
  /** The node that is opened or closed, or the task that is done, by name. */
  heading: string
  /** "cylinder 2", or blank. */
  where: string
  /** The task it belongs to and the position instance that it renews or looks at, where it is about one. */
  task: string | null
  position: PositionKey | null
  /** The head or cylinder that is opened, worked and closed on its own before the next; none: the whole. */
  stretch?: string
  /** The key of the closing step in whose place it stands: it fits there what the job renews. */
  laidIn?: string
  step: Step
}

export type PartNeed = {
  assemblyId: string
  part: string
  name: string
  unit: PartUnit
  quantity: number
  spots: string[]
  /** The task on condition that may ask for it: how likely, our own findings of that task say. */
  look?: string
}

/** What goes on threads, lips and seats by drops and films, and is no part of the model: bottles to have there. */
export type ConsumableNeed = {
  /** "medium threadlocker" */
  name: string
  quantity: number
  unit: 'mL' | 'g'
  /** On how many threads, lips or seats. */
  applications: number
}

export type ToolNeed = {
  key: string
  name: string
  special: boolean
  temporary: boolean
  removalOnly: boolean
  torqueWrench: boolean
  contingency: boolean
}

/** A fastener as it is tightened on this sheet: treatment and order after manual and practice. */
export type FastenerNeed = {
  assemblyId: string
  fastener: Fastener
  /** Bolt numbers in the order in which they are tightened; empty where there is no layout. */
  order: string[]
  /** Where: "cylinder 1", "cylinder 2"; blank once where it is done once. */
  where: string[]
  /** What has to be said about it: treatment against torque, an unverified value, a doubt. */
  notes: string[]
}

/** A task that nobody chose: opening the pump destroys or unseats what it renews. */
export type ImpliedTask = { assemblyId: string; task: string; positions: PositionKey[]; why: string }

export type UsedPractice = ResolvedPractice & { assemblyId: string }

export type ComposedSheet = {
  steps: SheetStep[]
  /** What is used up for certain. */
  parts: PartNeed[]
  /** What is taken along and used only where a finding says so. */
  spares: PartNeed[]
  consumables: ConsumableNeed[]
  tools: ToolNeed[]
  fasteners: FastenerNeed[]
  /** Each once, with where it stands; cautions that come from doing these things together among them. */
  cautions: { words: string; where: string }[]
  /** What the company chose or the manual says, where it changes something here. */
  practices: UsedPractice[]
  implied: ImpliedTask[]
  /** Node instances that are opened, in order. */
  opened: string[]
  minutes: number
  /** What opening takes besides where something is found bad. */
  perhapsMinutes: number
  /** Of those, how many want a second person. */
  helperMinutes: number
  /** Who is wanted for some of it, by local codes, and for what. */
  qualifications: { qualification: Qualification; what: string[] }[]
  /** What the same tasks would take each on a visit of its own, and so what doing them together saves. */
  minutesOneByOne: number
}
