import 'server-only'
import { chmod, mkdir, readdir, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { superfluousBackups, type BackupView } from '@/core/company/backups'
import { notFound } from '@/core/problem'
import { copyTo, dataFolder, shapeOf, write } from '@/db'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { packArchive } from './backupArchive'
import { realNow } from './clock'
import { findCompany } from './company'
import { dayOf, timeOf } from './days'

/**
 * How many archives are kept of the newest day that has any, and of how many days before it the newest
 * one: making many in an afternoon does not push the nights' out.
 */
const kept = Math.max(1, Number(process.env.ATELIER_BACKUPS_KEPT ?? 14) || 14)
const namePattern = /^atelier-\d{8}-\d{6}\.tar\.gz$/

const folder = () => path.join(/* turbopackIgnore: true */ dataFolder(), 'backups')

/** The archives that lie beside the database, newest first. */
export async function listBackups(actor: Actor): Promise<BackupView[]> {
  requirePermission(actor, 'company.edit')
  const company = await findCompany()
  const zone = company?.timeZone ?? 'UTC'
  return Promise.all(
    (await names()).map(async (name) => {
      const { size, mtime } = await stat(path.join(folder(), name))
      const made = mtime.toISOString()
      return { name, bytes: size, day: dayOf(made, zone), time: timeOf(made, zone) }
    }),
  )
}

async function names(): Promise<string[]> {
  const all = await readdir(folder()).catch(() => [])
  return all
    .filter((name) => namePattern.test(name))
    .sort()
    .reverse()
}

/**
 * Makes one archive of the running company: a consistent copy of its database with everything that its
 * log still held, its photos and documents, and a checksum of each. Nobody has to stop working for it.
 *
 * @param actor null where it is made by itself, at night
 * @returns the archive's path
 */
export async function makeBackup(actor: Actor | null): Promise<string> {
  if (actor) requirePermission(actor, 'company.edit')
  making ??= makeOne(actor).finally(() => {
    making = null
  })
  return making
}

/** The archive that is being made just now: who asks meanwhile gets the same one. */
let making: Promise<string> | null = null

async function makeOne(actor: Actor | null): Promise<string> {
  await mkdir(folder(), { recursive: true, mode: 0o700 })
  const made = new Date(realNow()).toISOString()
  const stamp = made.replace(/\D/g, '').slice(0, 14)
  const archive = path.join(folder(), `atelier-${stamp.slice(0, 8)}-${stamp.slice(8)}.tar.gz`)
  await packArchive(dataFolder(), archive, await shapeOf(), made, async (to) => {
    await copyTo(to)
    await chmod(to, 0o600)
  })
  for (const name of superfluousBackups(await names(), kept))
    await rm(path.join(folder(), name), { force: true })
  const id = uuid()
  await write(() =>
    recordChange(actor, {
      entity: 'backup',
      entityId: id,
      action: 'made',
      summary: `Backup made: ${path.basename(archive)}`,
    }),
  )
  return archive
}

/** Where an archive lies, for handing it out. @throws `notFound` */
export async function backupFile(actor: Actor, name: string): Promise<{ file: string; bytes: number }> {
  requirePermission(actor, 'company.edit')
  if (!namePattern.test(name)) throw notFound('This backup')
  const file = path.join(folder(), name)
  const found = await stat(file).catch(() => null)
  if (!found) throw notFound('This backup')
  return { file, bytes: found.size }
}

/** From this hour on, by the company's clocks, the night's archive is made. */
const fromHour = 2

/** Makes the night's archive where today has none yet; asked again and again. Says what went wrong, never throws. */
export async function makeNightly(): Promise<void> {
  try {
    const company = await findCompany()
    if (!company) return
    const instant = new Date(realNow()).toISOString()
    const today = dayOf(instant, company.timeZone)
    if (Number(timeOf(instant, company.timeZone).slice(0, 2)) < fromHour) return
    const [newest] = await names()
    const last = newest && (await stat(path.join(folder(), newest))).mtime.toISOString()
    if (last && dayOf(last, company.timeZone) >= today) return
    await makeBackup(null)
  } catch (error) {
    process.stderr.write(`Atelier: the nightly backup failed: ${String(error)}\n`)
  }
}
