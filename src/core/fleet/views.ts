import type { FieldChange } from '../house'
import type {
  KnownAhead,
  MeterEvent,
  MeterFace,
  Reading,
  Standing,
  VerdictKind,
  SpellInput,
  MeterInput,
} from '../hours'
import type { AssemblyInput, MachineInput, PumpModelInput, YardInput } from './schema'

/** What services hand to pages: plain values, ready to show. Instants are ISO UTC, days the company's. */

export type YardView = Required<YardInput> & { machines: number }

export type PumpModelView = Required<PumpModelInput> & {
  pumps: number
  /** The newest published version of its data; null where there is none. */
  published: number | null
  tasks: number
  positions: number
  /** Open points of the newest version: what is probably forgotten, and what the manual leaves in doubt. */
  warnings: number
  doubts: number
  /** Everything a search may find: parts, positions and what else they are called. */
  written: string
}

export type MachineLine = Pick<
  MachineInput,
  'id' | 'number' | 'name' | 'kind' | 'yardId' | 'bay' | 'crew' | 'storage'
> & {
  yardName: string
  retiredOn: string | null
  pumps: { number: string; title: string }[]
  /** Everything written on it and its pumps, for searching. */
  written: string
  meter: { name: string; unit: MeterFace['unit']; decimals: number } | null
  lastReading: { value: number; day: string; ageDays: number } | null
  /** The newest reading is older than the meter's reading interval, or there is none; never while laid up. */
  owesReading: boolean
  /** The day the newest reading went out of date; null where nothing is owed or nothing was ever read. */
  owesSince: string | null
  weekly: number | null
  /** What it is laid up or booked for today, in words; blank. */
  spell: string
  doubts: number
}

/** One stay of an assembly at a place. */
export type Stay = {
  id: string
  at: string
  day: string
  until: string | null
  untilDay: string | null
  machineId: string | null
  machineNumber: string | null
  machineName: string | null
  yardName: string | null
  slot: string
  reason: string
  /** Usage counted during this stay. */
  used: number
}

export type AssemblyView = Required<Omit<AssemblyInput, 'takenOverOn'>> & {
  takenOverAt: string
  takenOverOn: string
  retiredOn: string | null
  retiredReason: string
  /** "Ostrel P3-200", or what an accessory is. */
  title: string
  place: Stay
  /** Usage at present; null where it was taken over with unknown hours. */
  usage: number | null
  usedSinceTakeOver: number
  countedBy: {
    meterId: string
    meterName: string
    share: number
    basis: 'own' | 'assumed' | 'measured'
  } | null
}

/** A line of the audit trail as a page shows it. */
export type ChangeLine = {
  id: string
  at: string
  day: string
  time: string
  by: string
  summary: string
  reason: string
  changes: FieldChange[]
}

type LinePoint = { at: string; hours: number; source: 'reading' | 'event' }

export type AssemblyPage = AssemblyView & {
  stays: Stay[]
  changes: ChangeLine[]
  /** Its own hours over time, and the line of the meter that counts it now; null while nothing does. */
  line: LinePoint[]
  meterLine: LinePoint[] | null
  known: KnownAhead
  /** Since when it is counted at which share, newest first; only what belongs to its present place. */
  duties: {
    at: string
    day: string
    meterName: string
    share: number
    basis: 'own' | 'assumed' | 'measured'
  }[]
  spells: SpellView[]
}

export type ReadingLine = {
  id: string
  at: string
  day: string
  time: string
  value: number
  decimals: number
  typed: string
  status: 'accepted' | 'doubted' | 'superseded'
  verdict: VerdictKind
  /** The judge's sentence. */
  reason: string
  /** Why a person vouched for it, corrected it or withdrew it. */
  vouchedReason: string
  readBy: string
  recordedBy: string
  note: string
  supersedesId: string | null
  cumulative: number | null
  /** Entered by whoever is looking, who may still set it right. */
  mine: boolean
  /** What happened to the meter that this reading told of; it is taken back with it. */
  tells: 'change' | 'rollOver' | null
}

export type MeterPanel = Required<MeterInput> & {
  retiredOn: string | null
  face: MeterFace
  /** Newest first. */
  readings: ReadingLine[]
  /** What the judge needs to judge in the browser, as a value is typed. */
  history: { readings: Reading[]; events: MeterEvent[]; standing: Standing[] }
  events: {
    id: string
    kind: 'change' | 'rollOver'
    at: string
    day: string
    note: string
    /** What the old meter showed last, as far as it is known; `assumed` where nobody read it. */
    oldLast: string | null
    assumed: boolean
  }[]
  line: { at: string; hours: number; source: 'reading' | 'event' }[]
  total: number | null
  weekly: number | null
  /** What is known of its days to come. */
  known: KnownAhead
}

/** A lay-up or a booked job, with where it stands against today. */
export type SpellView = Required<SpellInput> & { past: boolean; now: boolean }

export type MachinePage = Required<MachineInput> & {
  retiredOn: string | null
  retiredReason: string
  yardName: string
  meters: MeterPanel[]
  fitted: AssemblyView[]
  /** Which assembly it had when, newest first. */
  past: (Stay & { number: string; title: string })[]
  spells: SpellView[]
  changes: ChangeLine[]
}
