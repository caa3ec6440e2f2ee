import { closeDatabase } from '@/db/house'
import { makeBackup } from '@/services/backups'

/** Makes one archive of the company in ATELIER_DATA, whether or not it is being served. */
makeBackup(null)
  .then(async (archive) => {
    await closeDatabase()
    console.log(`Atelier: the backup lies at ${archive}. Keep a copy of it on another machine.`)
  })
  .catch((error: unknown) => {
    console.error(`Atelier: no backup was made: ${error instanceof Error ? error.message : String(error)}`)
    process.exit(1)
  })
