import type { Limit, PositionSort, TaskKind } from '../models'
import type { ClockState } from './clock'
import type { Duty, LimitOverride } from './rules'

/** One due item of one pump, ready to show. */
export type ClockView = {
  task: string
  name: string
  kind: TaskKind
  where: string
  positions: string[]
  state: ClockState
  share: number
  by: 'hours' | 'days'
  hoursUsed: number
  daysUsed: number
  hoursLimit: number | null
  daysLimit: number | null
  early: number
  late: number
  /** The limit before hard duty shortened it, by what, and why it is not the model's own. */
  statedHours: number | null
  factor: number
  duties: { key: string; name: string; factor: number; reason: string }[]
  overrideReason: string
  assumed: boolean
  /** Which reaches its limit first; a sign that was seen can be before hours and days. */
  firstBy: 'hours' | 'days' | 'sign' | null
  /** Open signs that bring it forward. */
  signs: { id: string; version: number; words: string; by: string }[]
  /** Since when it counts, and where the pump's hours stood then and stand now. */
  since: { day: string; usage: number; first: boolean }
  usageNow: number
  /** Hours in an average day to come; null where nothing counts it. */
  perDay: number | null
  /** The days between which a visit is neither early nor late. */
  window: { from: string; to: string } | null
  /** The last day on which acting still lets it be done in time, and what it allows for. */
  lastResponsibleDay: string | null
  leadTime: { days: number; parts: string[] }
  noticeDays: number
  /** The day on which it reaches its limit as likely as not; null where it is not used. */
  aboutDay: string | null
  /** The days by which it has reached it with 10 and with 90 %; no end where it may never. */
  band: { early: string; late: string | null } | null
}

/** One cell of the position grid. */
export type PositionView = {
  position: string
  used: number
  limit: number | null
  state: ClockState
  early: number
  assumed: boolean
  /** Hours the part before it had reached, where that one came out early. */
  was: number | null
}

export type WearView = {
  assemblyId: string
  number: string
  title: string
  serial: string
  machineNumber: string | null
  machineName: string | null
  yardId: string | null
  unit: 'h' | 'strokes'
  modelVersion: number
  modelVersionId: string
  notice: string
  /** Whether its clocks were ever started. */
  started: boolean
  clocks: ClockView[]
  /** Rows of the grid in body order, by zone; `cells` by cylinder, or a single one. */
  grid: { zone: string; rows: { key: string; name: string; limit: number | null; cells: PositionView[] }[] }[]
  columns: string[]
  /** Every position by its key, in words. */
  positionNames: Record<string, string>
  /** Every service of its model with the model's own limit. */
  tasks: { key: string; name: string; limit: Limit; tolerance: { early: number; late: number } }[]
  renewals: {
    task: string
    name: string
    sorts: PositionSort[]
    positions: { key: string; label: string }[]
  }[]
}

type Said = { id: string; by: string; day: string }

/** What one assembly goes by beside its model. */
export type RulesView = { overrides: (LimitOverride & Said)[]; duties: (Duty & Said)[] }

type RuleFigures = Pick<ClockView, 'hoursLimit' | 'daysLimit' | 'aboutDay' | 'state'>

/** A due item that a change of limits or duty moves. */
export type RuleMove = { service: string; where: string; before: RuleFigures; after: RuleFigures }

/** One part's time at a position. */
export type LifeLine = {
  id: string
  from: string
  /** Null: still there. */
  to: string | null
  hours: number
  days: number
  assumed: boolean
  /** The first since the pump was new. */
  first: boolean
  /** Why it came out, in words; null while it is there. */
  endReason: string | null
  failed: boolean
  /** The bore it came from, and the one it went on to, where it was moved. */
  cameFrom: string | null
  wentTo: string | null
  seenFailingOn: string | null
  /** The sheets it came in and went out on. */
  sheet: { id: string; number: string } | null
  endSheet: { id: string; number: string } | null
  lot: string
  note: string
  by: string
}

/** A life that runs since its pump was taken over, as the form that sets it right shows it. */
export type StartingLife = {
  lifeId: string
  name: string
  hours: number
  day: string | null
  assumed: boolean
}

/** The chain of lives at a position, newest first. */
export type PositionLives = {
  name: string
  unit: 'h' | 'strokes'
  lives: LifeLine[]
  /** Bores of the same kind that its part could go to. */
  others: { key: string; name: string }[]
}

/** One line of the due list. */
export type DueLine = {
  machine: string
  machineName: string
  yard: string
  pump: string
  model: string
  unit: 'h' | 'strokes'
  clock: ClockView
  /** The visit it is booked on. */
  visit: { number: string; day: string; lead: string } | null
}
