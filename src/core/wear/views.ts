import type { ClockState } from './clock'

/** One due item of one pump, ready to show. */
export type ClockView = {
  task: string
  name: string
  kind: 'renew' | 'inspect' | 'change' | 'adjust'
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
  assumed: boolean
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
  notice: string
  /** Whether its clocks were ever started. */
  started: boolean
  clocks: ClockView[]
  /** Rows of the grid in body order, by zone; `cells` by cylinder, or a single one. */
  grid: { zone: string; rows: { key: string; name: string; limit: number | null; cells: PositionView[] }[] }[]
  columns: string[]
  /** Every position by its key, in words. */
  positionNames: Record<string, string>
  renewals: { task: string; name: string; positions: { key: string; label: string }[] }[]
}
