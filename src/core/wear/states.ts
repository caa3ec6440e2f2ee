import { addDays, type Day } from '../calendar'
import type { PositionKey, PumpModel, Task } from '../models'
import { stateRank, type ClockState } from './clock'
import { dueOf, type ComingUse, type Due } from './due'
import type { WearRules } from './rules'
import { broughtForward, type ForwardSign } from './signs'
import { taskClocks, type TaskClock, type WearRecord } from './tasks'

/** How long missing parts take to come, and which those are. */
export type PartsLeadTime = { days: number; parts: string[] }

/** Everything that one assembly's due states follow from. */
export type Wearing = {
  model: PumpModel
  /** Its clocks: when each part was fitted and each looking task done, and where its usage stands. */
  record: WearRecord
  /** Limits of its own and hard duty. */
  rules: WearRules
  /** Open signs that bring a service forward. */
  signs: ForwardSign[]
  /** The use to come; null while nothing counts it. */
  use: ComingUse | null
}

/** What holds for the whole company. */
export type Terms = {
  today: Day
  noticeDays: number
  /** How long the parts of a service take that are missing for it on a day. */
  leadTime: (task: Task, positions: PositionKey[], day: Day) => PartsLeadTime
}

/** One due item as it stands by use, days and signs, before it is asked whether its parts are there. */
export type BareDueState = TaskClock &
  Due & {
    /** By hours, days and signs together. */
    state: ClockState
    /** The day its parts are wanted: the earliest likely one. */
    wantedOn: Day
    noticeDays: number
    /** Usage now, and hours in an average day to come; null where nothing counts it. */
    usageNow: number
    perDay: number | null
  }

/** One due item with the four terms, its state, and every figure they were made from. */
export type DueState = BareDueState & { leadTime: PartsLeadTime }

/**
 * Every due item of an assembly: its state, due day, band, window and last responsible day, worst first,
 * each with the figures it was made from, so that any of them can be opened.
 *
 * Pure: the same figures give the same answer in a test, on the server and in a worker. It asks nothing
 * back, so a fleet is a plain loop over what was loaded at once.
 *
 * @example
 * // a weep on cylinder 2, to be seen to by Friday, on seals that have 300 h left:
 * dueStates({ ...pump, signs: [{ task: 'hpSeals', positions: ['hpSeal@2'], by: friday, … }] }, terms)[0]
 * // { where: 'cylinder 2', state: 'dueSoon', firstBy: 'sign', dueDay: friday, … }
 */
export function dueStates(wearing: Wearing, { leadTime, ...terms }: Terms): DueState[] {
  return bareDueStates(wearing, terms).map((due) =>
    withLeadTime(due, leadTime(due.task, due.positions, due.wantedOn)),
  )
}

/** The same without the parts, which hang on the stores and on other pumps' visits. */
export function bareDueStates(
  { model, record, rules, signs, use }: Wearing,
  { today, noticeDays }: Omit<Terms, 'leadTime'>,
): BareDueState[] {
  const states = taskClocks(model, record, rules, signs).map((item): BareDueState => {
    const own = dueOf(item.clock, item.ruled.tolerance, today, use, 0, noticeDays)
    const { due, state } = broughtForward(own, item.clock.state, item.signs, today, 0, noticeDays)
    const wantedOn = due.band?.early ?? due.dueDay ?? today
    return {
      wantedOn: wantedOn < today ? today : wantedOn,
      noticeDays,
      usageNow: record.usage,
      perDay: use?.perDay ?? null,
      ...item,
      ...due,
      state,
    }
  })
  return states.sort((a, b) => stateRank[b.state] - stateRank[a.state] || b.clock.share - a.clock.share)
}

/** What is missing of its parts moves the last day to act. */
export function withLeadTime(due: BareDueState, leadTime: PartsLeadTime): DueState {
  const lastResponsibleDay = due.lastResponsibleDay && addDays(due.lastResponsibleDay, -leadTime.days)
  return { leadTime, ...due, lastResponsibleDay }
}
