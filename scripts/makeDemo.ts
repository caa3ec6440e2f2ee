import { closeDatabase, migrate } from '@/db/house'
import { buildDemo, demoToday } from '@/demo/build'

/** Fills the empty database in ATELIER_DATA with the demo company. */
async function main() {
  const today = (process.env.ATELIER_TODAY ?? demoToday).slice(0, 10)
  const started = Date.now()
  // What is lost in a power cut is made again.
  process.env.ATELIER_UNFLUSHED = '1'
  // Each query takes a stack trace with it, and reading those costs a tenth of the time.
  Error.stackTraceLimit = 0
  await migrate()
  await buildDemo(today, (line) => console.log(`  making ${line}`))
  await closeDatabase()
  console.log(`  made in ${((Date.now() - started) / 1000).toFixed(0)} s`)
}

main().catch((error: unknown) => {
  console.error(error)
  process.exit(1)
})
