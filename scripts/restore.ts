import path from 'node:path'
import { restoreArchive, UnsoundArchive } from '@/services/backups'

/** Puts the company in ATELIER_DATA back from an archive. */
async function main() {
  const [archive] = process.argv.slice(2)
  if (!archive) throw new Error('name the archive: npm run restore -- path/to/atelier-….tar.gz')
  const { made, before } = await restoreArchive(path.resolve(archive))
  console.log(`Atelier: restored as it was on ${made}. Everybody signs in anew.`)
  if (before) console.log(`         What was there before lies in ${before}.`)
}

main().catch((error: unknown) => {
  const words = error instanceof Error ? error.message : String(error)
  console.error(
    error instanceof UnsoundArchive
      ? `Atelier: nothing was restored and nothing was changed. This archive is not sound: ${words}`
      : `Atelier: nothing was restored: ${words}`,
  )
  process.exit(1)
})
