import type { SheetState } from '../state'
import type { SheetEntry } from '../types'

/** A lock that somebody put on, and whether it is off again. */
export type Lock = { name: string; on: SheetEntry<'lock'>; offAt: string | null; offReason: string }

/** Every lock of a sheet by the name of whoever set it, in the order in which they went on. */
export function locksOf(state: SheetState): Lock[] {
  const locks: Lock[] = []
  for (const entry of state.locks) {
    const { payload } = entry
    const known = locks.findLast((lock) => same(lock.name, payload.name) && lock.offAt === null)
    if (payload.goes === 'on') {
      if (!known) locks.push({ name: payload.name, on: entry, offAt: null, offReason: '' })
    } else if (known) {
      known.offAt = entry.at
      known.offReason = payload.reason
    }
  }
  return locks
}

export const locksOn = (state: SheetState) => locksOf(state).filter((lock) => lock.offAt === null)

/**
 * Whether locking out was done and nobody's lock is on any more: whoever worked here took it off, for the
 * night or to prove it. Where locking out was signed against with a reason there is none to miss.
 */
export function lockless(state: SheetState): boolean {
  const lockedOut = state.steps.findLast(({ step, state: is }) => step.step.locks === 'on' && is === 'done')
  return lockedOut?.by?.kind === 'done' && lockedOut.by.payload.reason === '' && locksOn(state).length === 0
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()

/**
 * Why a lock cannot be taken off, in one sentence; null when it can. Each is removed by whoever set it;
 * for somebody who is not there it takes a reason, by the site's own rule.
 *
 * @param byName who says it
 */
export function unlockRefusal(
  state: SheetState,
  { name, reason }: { name: string; reason: string },
  byName: string,
): string | null {
  const lock = locksOn(state).find((each) => same(each.name, name))
  if (!lock) return `No lock of ${name} is on.`
  if (same(lock.name, byName) || reason !== '') return null
  return `${lock.name} set this lock and takes it off. If that cannot be, say by which rule of the site it is taken off.`
}
