import type { Day } from '../calendar'
import type { MachineLine } from '../fleet'
import type { EarlyCheckView, SignView } from '../inspection'
import type { ComingNeed, PartUnit, StockLine } from '../stores'
import type { ClockView, WearView } from '../wear'
import type { MorningItem } from './morning'
import type { Mark, MarkedAs, Slip, VisitLine } from '../plan'

/** The pump a due service is on, as a row names it. */
export type DuePump = Pick<
  WearView,
  'assemblyId' | 'number' | 'title' | 'unit' | 'machineNumber' | 'machineName' | 'yardId'
>

/** How a row stands against what people said of it. */
export type Said = {
  /** Who has it, by name; null where nobody was handed it. */
  handedTo: string | null
  /** It was put off, and is back before its day: until when it was, by whom, and why it is back. */
  cameBack: { until: string; by: string; reason: string; because: 'new' | 'worse' } | null
}

/** A service that has to be decided, as it can be put off or handed on by itself. */
export type DueRow = Said & BareService
export type BareService = Omit<MorningItem, 'kind'> & { pump: DuePump; clock: ClockView }

export type TodayRow = Said & BareRow

/** One thing that can be put off or handed on, as it is now. */
export type Standing = { subject: string; label: string; about: MarkedAs }

/** A service of a visit to decide, on what is left of it to book. */
export type Bundled = {
  pump: DuePump
  clock: ClockView
  positions: string[]
  /** How it is put off or handed on by itself; null for what goes along because that pays. */
  standing: Standing | null
}

/** Services of one machine that share a day, as one visit would do them; what leads first. */
export type BundleView = { day: Day | null; services: Bundled[]; minutes: number; minutesAlone: number }

/** A row with what it shows, before anything that was said of it. */
export type BareRow = MorningItem &
  (
    | { kind: 'bundle'; machineId: string | null; pump: DuePump; bundle: BundleView }
    | { kind: 'sign'; sign: SignView }
    | { kind: 'slip'; visit: VisitLine; slip: Slip }
    | { kind: 'visit'; visit: VisitLine }
    | { kind: 'doubt' | 'reading'; machine: MachineLine }
    | { kind: 'earlyCheck'; check: EarlyCheckView }
    | { kind: 'part'; part: StockLine; coming: ComingNeed | null }
  )

/** A booked visit with what would have to be decided if it were not booked. */
export type BookedVisit = { visit: VisitLine; services: { pump: DuePump; clock: ClockView }[] }

/** The morning's work, in order, with what was put off and what comes next. */
export type TodayView = {
  rows: TodayRow[]
  /** Visits to come that have what is due in hand, by their day. */
  booked: BookedVisit[]
  /** Rows of later days that are left out of a long list. */
  left: number
  marks: Mark[]
  /** The next service that will want deciding, once nothing does today. */
  next: { pump: DuePump; clock: ClockView } | null
}

/** What the next visit to a pump would do, composed as it would be. */
export type NextVisitView = {
  day: string
  /** Why then: the service that leads, in words. */
  because: string
  services: { name: string; where: string; task: string }[]
  minutes: number
  minutesOneByOne: number
  parts: { name: string; quantity: number; unit: PartUnit; missing: boolean }[]
}
