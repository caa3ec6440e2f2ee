import 'server-only'
import { rmSync, writeFileSync } from 'node:fs'
import { closeDatabase, dataFolder, migrate } from '@/db/house'
import { startOffset, prepareRequests, dropUnfinished } from '../house'
import { makeNightly, runningFile } from '../backups'
import { needsSetUp, setUpCode } from '../access'

/**
 * Makes the process ready to serve: the database copied and brought up to date, and, for an empty
 * company, the code printed that the set-up page asks for. On failure it says so in one sentence and
 * ends the process: Next would otherwise go on serving without a database.
 */
export async function start(): Promise<void> {
  try {
    prepareRequests()
    startOffset(process.env.ATELIER_TODAY, 0)
    const { ran, copy } = await migrate()
    await dropUnfinished()
    if (copy)
      console.log(`Atelier: the database was copied to ${copy} before ${ran.length} change(s) to its shape.`)
    writeFileSync(runningFile(dataFolder()), String(process.pid), { mode: 0o600 })
    endWell()
    if (process.env.ATELIER_DEMO !== '1') watchNights()
    if (await needsSetUp()) {
      console.log(`Atelier: a new company. Open the application and set it up with the code ${setUpCode()}`)
    }
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    console.error(`Atelier could not start: ${message} (data in ${dataFolder()}).`)
    process.exit(1)
  }
}

/** How often is looked whether the night's backup is still to be made. */
const lookMs = 10 * 60_000

function watchNights(): void {
  setInterval(() => void makeNightly(), lookMs).unref()
}

/** When the process is told to end, the database is closed: its log is written into the file. */
function endWell(): void {
  const end = () => {
    rmSync(runningFile(dataFolder()), { force: true })
    void closeDatabase().catch(() => undefined)
  }
  process.once('SIGTERM', end)
  process.once('SIGINT', end)
}
