import 'server-only'
import { rmSync, writeFileSync } from 'node:fs'
import { constants } from 'node:os'
import { closeDatabase, dataFolder, migrate } from '@/db/house'
import { dropUnfinished, logFault, prepareRequests, startOffset } from '../house'
import { makeNightly, runningFile } from '../backups'
import { needsSetUp, setUpCode } from '../access'
import { prepareDigests } from '../sheets'
import { prepareToday } from '../today'
import { keepFits } from '../wear'
import { frostWatch, keepOutlook } from '../winter'
import { warm } from './warm'

/**
 * Makes the process ready to serve: the database copied and brought up to date, and, for an empty
 * company, the code printed that the set-up page asks for. On failure it says so in one sentence and
 * ends the process: Next would otherwise go on serving without a database.
 */
export async function start(): Promise<void> {
  try {
    prepareRequests()
    await openCompany()
    endWell()
    takeTurns()
    if (process.env.ATELIER_DEMO !== '1') {
      watchNights()
      watchWeather()
    }
    if (isLazy()) return
    watchDays()
    // Once this has ended the server listens: until then it would wait for its own answer.
    const port = process.env.PORT
    if (port) setTimeout(() => void warm(port), 0)
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    console.error(`Atelier could not start: ${message} (data in ${dataFolder()}).`)
    process.exit(1)
  }
}

/** A server for tests works nothing out, and draws no page, before somebody asks. */
const isLazy = () => process.env.ATELIER_LAZY === '1'

/** Brings the data of the company up to date and works out what everybody asks for first. */
async function openCompany(): Promise<void> {
  startOffset(process.env.ATELIER_TODAY, 0)
  const { ran, copy } = await migrate()
  await dropUnfinished()
  if (copy)
    console.log(`Atelier: the database was copied to ${copy} before ${ran.length} change(s) to its shape.`)
  writeFileSync(runningFile(dataFolder()), String(process.pid), { mode: 0o600 })
  if (await needsSetUp())
    console.log(`Atelier: a new company. Open the application and set it up with the code ${setUpCode()}`)
  // Pages work out what is missing: a fault here is no reason not to serve.
  else if (!isLazy()) await prepare().catch(logFault)
}

/**
 * A server for tests serves one company after the other, each as if it had been started for it: whoever
 * started it names the folder and the clock, and hears when it is open. What this process knows of a company
 * lies in its memory and on `globalThis` under our name.
 */
function takeTurns(): void {
  if (!isLazy()) return
  process.on('message', (turn: { folder: string; today: string }) => {
    const take = async () => {
      // All at once: whoever still asks meanwhile would open an empty database where the last company was.
      const closed = closeDatabase()
      for (const name of Object.keys(globalThis))
        if (name.startsWith('atelier')) delete (globalThis as Record<string, unknown>)[name]
      Object.assign(process.env, { ATELIER_DATA: turn.folder, ATELIER_TODAY: turn.today })
      await closed
      await openCompany()
    }
    void take().then(
      () => process.send?.({ opened: turn.folder }),
      (error: unknown) => process.send?.({ failed: String(error) }),
    )
  })
}

/** Works out what everybody asks for first, so that nobody waits for it. */
async function prepare(): Promise<void> {
  const started = performance.now()
  const pumps = await prepareToday()
  await frostWatch()
  await keepFits()
  const seconds = ((performance.now() - started) / 1000).toFixed(1)
  console.log(`Atelier: ready; the figures of ${pumps} pumps were worked out in ${seconds} s.`)
}

/** How often is looked whether a new day has begun, in milliseconds. */
const dayMs = 20_000

/** At midnight the figures are worked out anew beside the requests; what was learned is kept for the next start. */
function watchDays(): void {
  const look = async () => {
    if (await needsSetUp()) return
    await prepareToday()
    await frostWatch()
    await keepFits()
    await prepareDigests()
  }
  setInterval(() => void look().catch(logFault), dayMs).unref()
}

/** How often is looked whether the night's backup, or the weather's outlook, is still to be made. */
const lookMs = 10 * 60_000

function watchNights(): void {
  setInterval(() => void makeNightly(), lookMs).unref()
}

/** The ten nights to come, without anybody pressing for them. */
function watchWeather(): void {
  const look = async () => void ((await needsSetUp()) || (await keepOutlook()))
  setInterval(() => void look().catch(logFault), lookMs).unref()
}

/**
 * So long what is under way may take when the process is told to end, in milliseconds. Next waits for every
 * answer, and one whose reader is slow, or left before it was begun, might never be done.
 */
const endMs = 5000

/** When the process is told to end, the database is closed: its log is written into the file. */
function endWell(): void {
  const end = (signal: NodeJS.Signals) => {
    rmSync(runningFile(dataFolder()), { force: true })
    setTimeout(() => process.exit(128 + constants.signals[signal]), endMs).unref()
    void closeDatabase().catch(() => undefined)
  }
  process.once('SIGTERM', end)
  process.once('SIGINT', end)
}
