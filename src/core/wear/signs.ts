import { addDays, daysBetween, type Day } from '../calendar'
import type { PositionKey } from '../models'
import type { ClockState } from './clock'
import type { Due } from './due'

/** A sign that brings a service forward, until it is settled. */
export type ForwardSign = {
  id: string
  /** For whoever settles it: the version that was read. */
  version: number
  /** The service, and which of its positions; none named: all of them. */
  task: string
  positions: PositionKey[]
  /** The day by which it wants doing, whatever the hours say. */
  by: Day
  /** What was seen, by whom, when; shown as the reason. */
  words: string
}

/** The open signs that bear on one position of a task. */
export function signsOn(signs: ForwardSign[], task: string, position: PositionKey): ForwardSign[] {
  return signs.filter(
    (sign) => sign.task === task && (sign.positions.length === 0 || sign.positions.includes(position)),
  )
}

/**
 * A due date under signs: it is due by the day the earliest sign names, or by its own limit where that
 * comes first. It counts as due soon until then and as overdue after it; a sign never makes it later.
 *
 * @param due by hours and days alone
 * @param state by hours and days alone
 * @param leadDays and noticeDays as for the limit: parts that are missing cannot be wished here by a sign
 */
export function broughtForward(
  due: Due,
  state: ClockState,
  signs: ForwardSign[],
  today: Day,
  leadDays: number,
  noticeDays: number,
): { due: Due; state: ClockState } {
  const by = signs.map((sign) => sign.by).sort()[0]
  if (by === undefined) return { due, state }
  const before = (day: Day | null) => day === null || daysBetween(by, day) > 0
  const act = addDays(by, -leadDays - noticeDays)
  const late = daysBetween(by, today) > 0
  return {
    due: {
      ...due,
      dueDay: before(due.dueDay) ? by : due.dueDay,
      firstBy: before(due.dueDay) ? 'sign' : due.firstBy,
      // Somebody saw it: there is nothing left to guess about when.
      band: before(due.dueDay) ? { early: by, late: by } : due.band,
      window: before(due.dueDay) ? { from: daysBetween(today, by) > 0 ? today : by, to: by } : due.window,
      lastResponsibleDay:
        due.lastResponsibleDay !== null && daysBetween(due.lastResponsibleDay, act) > 0
          ? due.lastResponsibleDay
          : act,
    },
    state: late ? 'overdue' : state === 'healthy' ? 'dueSoon' : state,
  }
}
