import 'server-only'
import { Transaction } from 'sequelize'
import { dropWriter, ownTransaction, shared, takeOpen, type Shared } from './connection'
import { committed, forget, gathering, lookAround, noteTouches } from './memory'
import { within, type Touches } from './scope'
import { runOn, type Begun, type Driver } from './statements'

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
      transacted(open, async () => {
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

/** Begins, and ends as the work does. */
async function transacted<T>(open: Shared, work: () => Promise<T>): Promise<T> {
  const { sequelize } = open
  const connection = (await sequelize.connectionManager.getConnection({ uuid: 'writer' } as never)) as Driver
  const transaction: Begun = new Transaction(sequelize, {})
  transaction.connection = connection
  await runOn(connection, 'BEGIN IMMEDIATE TRANSACTION')
  try {
    const result = await within({ transaction }, work)
    await ended(transaction, 'commit', 'COMMIT')
    return result
  } catch (error) {
    // SQLite has undone it by itself where the disk is full, or cannot say what became of it.
    await ended(transaction, 'rollback', 'ROLLBACK').catch(() => dropWriter(open))
    throw error
  }
}

/** Ends a transaction: whatever is asked of it from this moment on is refused, and does not stand by itself. */
function ended(transaction: Begun, how: 'commit' | 'rollback', sql: string): Promise<number> {
  const end = runOn(transaction.connection!, sql)
  transaction.finished = how
  return end
}

/**
 * Runs a part of a write that alone may fail: what it wrote is undone and the write goes on.
 * Called inside `write()`.
 */
export async function attempt<T>(work: () => Promise<T>): Promise<T> {
  const whole = ownTransaction() as Begun | undefined
  if (!whole?.connection) throw new Error('attempt() belongs inside write().')
  const name = `attempt${(attempts += 1)}`
  const part: Begun = new Transaction(shared().sequelize, {})
  part.connection = whole.connection
  await runOn(whole.connection, `SAVEPOINT ${name}`)
  try {
    const result = await within({ transaction: part }, work)
    await ended(part, 'commit', `RELEASE ${name}`)
    return result
  } catch (error) {
    try {
      await ended(part, 'rollback', `ROLLBACK TO ${name}`)
      await runOn(whole.connection, `RELEASE ${name}`)
    } catch {
      // SQLite has undone everything: what the write still asks for would stand by itself, so it gets no answer.
      await dropWriter(shared())
    }
    throw error
  }
}

let attempts = 0

/** Closes the database and forgets what was kept of it; the next use opens it again. For scripts and tests. */
export async function closeDatabase(): Promise<void> {
  const open = takeOpen()
  forget()
  if (!open) return
  await open.lastWrite.catch(() => undefined)
  await open.sequelize.close()
}
