import 'server-only'
import { existsSync, readFileSync, renameSync } from 'node:fs'
import { mkdir, readdir, rm } from 'node:fs/promises'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { dataFolder, inspectDatabase, knownShape } from '@/db/house'
import { databaseName, fileFolders, unpackArchive, UnsoundArchive } from './archive'

export { UnsoundArchive }

/** What belongs to a company in its data folder; the session secret is made anew at the next start. */
const belongings = [
  databaseName,
  `${databaseName}-wal`,
  `${databaseName}-shm`,
  ...fileFolders,
  'session-secret',
]

/**
 * Puts a company back from an archive. The archive is unpacked beside the company and proved first: its
 * checksums, its database, that every row has its file, and that this version of Atelier knows its shape.
 * Only then does it take the company's place; what was there is kept in a folder of its own.
 *
 * @returns when it was made, and where what was there before lies now (null where there was nothing)
 * @throws `UnsoundArchive`, or an error where the company is being served
 */
export async function restoreArchive(archive: string): Promise<{ made: string; before: string | null }> {
  const folder = dataFolder()
  requireStopped(folder)
  await mkdir(folder, { recursive: true, mode: 0o700 })
  const stage = path.join(folder, `.restoring-${uuid()}`)
  try {
    const { made } = await unpackArchive(archive, stage)
    const { fault, shape, files } = await inspectDatabase(path.join(stage, databaseName))
    if (fault) throw new UnsoundArchive(`its database is damaged: ${fault}.`)
    const unknown = shape.find((name) => !knownShape().includes(name))
    if (unknown)
      throw new UnsoundArchive(
        `a newer version of Atelier made it (${unknown} is not known here). Update first.`,
      )
    const missing = files.find((file) => !existsSync(path.join(stage, file)))
    if (missing) throw new UnsoundArchive(`${missing} is missing from it, and its database names it.`)
    return { made, before: await changePlaces(folder, stage) }
  } finally {
    await rm(stage, { recursive: true, force: true })
  }
}

async function changePlaces(folder: string, stage: string): Promise<string | null> {
  const there = belongings.filter((name) => existsSync(path.join(folder, name)))
  const before = path.join(folder, `before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}`)
  if (there.length > 0) await mkdir(before, { mode: 0o700 })
  for (const name of there) renameSync(path.join(folder, name), path.join(before, name))
  for (const name of await readdir(stage)) renameSync(path.join(stage, name), path.join(folder, name))
  return there.length > 0 ? before : null
}

/** The process that serves a company writes its number here. */
export const runningFile = (folder: string) => path.join(/* turbopackIgnore: true */ folder, 'running')

function requireStopped(folder: string): void {
  const file = runningFile(folder)
  const pid = existsSync(file) ? Number(readFileSync(file, 'utf8')) : 0
  if (!pid || pid === process.pid) return
  try {
    process.kill(pid, 0)
  } catch {
    return
  }
  throw new Error(`Atelier is running on this data (process ${pid}). Stop it first, then restore.`)
}
