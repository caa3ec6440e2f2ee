import 'server-only'
import { dataFolder, migrate } from '@/db'
import { startOffset } from './clock'
import { tellConnections } from './connection'
import { dropUnfinished } from './files'
import { needsSetUp, setUpCode } from './setUp'

/**
 * Makes the process ready to serve: the database copied and brought up to date, and, for an empty
 * company, the code printed that the set-up page asks for. On failure it says so in one sentence and
 * ends the process: Next would otherwise go on serving without a database.
 */
export async function start(): Promise<void> {
  try {
    tellConnections()
    startOffset(process.env.ATELIER_TODAY, 0)
    const { ran, copy } = await migrate()
    await dropUnfinished()
    if (copy)
      console.log(`Atelier: the database was copied to ${copy} before ${ran.length} change(s) to its shape.`)
    if (await needsSetUp()) {
      console.log(`Atelier: a new company. Open the application and set it up with the code ${setUpCode()}`)
    }
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error)
    console.error(`Atelier could not start: ${message} (data in ${dataFolder()}).`)
    process.exit(1)
  }
}
