import type { ComposedSheet } from '../composing'
import type { Running } from './runsOver'
import type { VisitState } from './visits'

/** A visit as lists show it. */
export type VisitLine = {
  id: string
  number: number
  day: string
  startTime: string | null
  minutes: number
  state: VisitState
  machineId: string | null
  machineNumber: string | null
  machineName: string | null
  place: string
  /** The yard its machine, or the shelf, is in. */
  yardId: string | null
  leadId: string
  lead: string
  /** Who helps, where it wants more than one. */
  helperIds: string[]
  helpers: string[]
  /** Held where it is by hand. */
  pinned: boolean
  /** Who approved it; null while nobody has. */
  approvedBy: string | null
  /** "Renew high-pressure seals, cylinders 1 and 2". */
  services: {
    assemblyId: string
    pump: string
    task: string
    name: string
    where: string
    positions: string[]
  }[]
  /** The sheet it is worked on, once there is one. */
  sheet: {
    id: string
    number: number
    state: 'open' | 'signed'
    /** What was found on the way and added to it, while it is open. */
    added: string[]
  } | null
  /** Its day has passed and it still stands. */
  late: boolean
  /** It makes its machine safe for winter, or brings it back. */
  winter: '' | 'lay' | 'return'
  version: number
}

/** What goes on of a visit on a later day of its own. */
export type GoesOn = { visit: VisitLine; day: string; minutes: number; last: string }

/** Whether a part that a visit needs will be there. Null beside a part the stores do not keep. */
export type VisitStock = {
  partId: string
  number: string
  bin: string
  /** What is left on the shelf for this visit after those before it; null once the visit is over. */
  available: number | null
  missing: number
  /** When it would come if it were ordered today. */
  arrives: string | null
  inTime: boolean
}

/** A step as the preparation lists it. */
export type PreparedStep = {
  key: string
  phase: string
  heading: string
  where: string
  /** The head or cylinder that is worked through on its own before the next. */
  stretch?: string
  text: string
  caution: string
  /** The torque in three units, where it tightens something. */
  torque: string
  unverified: boolean
  /** Which wrench of the register to set to what; blank where nothing is tightened to a torque. */
  wrench: string
  /** Heavy or awkward: how it is lifted; blank where it is not. */
  lift: string
  /** Time that has to pass: a soak, a locker that cures; null where none has. */
  timer: { kind: 'soak' | 'sets' | 'cured'; minutes: number } | null
  /** The finding it depends on; blank where it is always done. */
  onlyIf: string
}

export type VisitPage = VisitLine & {
  note: string
  endReason: string
  notice: string
  /** What work on its machine has to mind while that must not be started; blank otherwise. */
  held: string
  parts: (ComposedSheet['parts'][number] & { stock: VisitStock | null })[]
  tools: ComposedSheet['tools']
  /** What only a finding will ask for. */
  /** What goes along, with how likely it is needed where our own findings say. */
  spares: (ComposedSheet['spares'][number] & { likely: string })[]
  consumables: ComposedSheet['consumables']
  qualifications: ComposedSheet['qualifications']
  /** Torque sheet: each fastener with its stages in three units. */
  fasteners: {
    name: string
    pump: string
    where: string
    count: number
    stages: string[]
    treatment: string
    source: string
    unverified: boolean
    notes: string[]
  }[]
  cautions: ComposedSheet['cautions']
  helperMinutes: number
  perhapsMinutes: number
  /** What comes with it, because opening the pump destroys or unseats it. */
  implied: { name: string; where: string; why: string }[]
  minutesOneByOne: number
  /** The days over which it runs, and the day its machine is back. */
  running: Running
  /** What the company chose or the manual says, where it changes something here. */
  practices: ComposedSheet['practices']
  steps: PreparedStep[]
}
