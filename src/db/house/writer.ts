import 'server-only'
import { Transaction } from 'sequelize'
import { ownTransaction, shared, takeOpen } from './connection'
import { committed, forget, gathering, lookAround, noteTouches, type Touches } from './memory'

/**
 * Runs one use case's writes in one transaction: all of them are kept, or none.
 *
 * SQLite has a single writer. Transactions that begin side by side fail as busy, so they are queued
 * here and begin one after another; `immediate` takes the write lock at once, before anything is read.
 * A `write()` inside another joins it. What it touches is gathered on the way and told after the commit.
 */
export function write<T>(work: () => Promise<T>): Promise<T> {
  if (ownTransaction()) return work()
  const open = shared()
  const run = async () => {
    const touches: Touches = new Set()
    let sequence = 0
    const result = await gathering(touches, () =>
      open.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, async () => {
        await lookAround(true)
        const done = await work()
        if (touches.size > 0) sequence = await noteTouches(touches)
        return done
      }),
    )
    if (touches.size > 0) committed(touches, sequence)
    return result
  }
  const result = open.lastWrite.then(run, run)
  open.lastWrite = result.catch(() => undefined)
  return result
}

/**
 * Runs a part of a write that alone may fail: what it wrote is undone and the write goes on.
 * Called inside `write()`.
 */
export function attempt<T>(work: () => Promise<T>): Promise<T> {
  const transaction = ownTransaction()
  if (!transaction) throw new Error('attempt() belongs inside write().')
  return shared().sequelize.transaction({ transaction }, () => work())
}

/** Closes the database and forgets what was kept of it; the next use opens it again. For scripts and tests. */
export async function closeDatabase(): Promise<void> {
  const open = takeOpen()
  forget()
  if (!open) return
  await open.lastWrite.catch(() => undefined)
  await open.sequelize.close()
}
