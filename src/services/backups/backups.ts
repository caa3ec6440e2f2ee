import 'server-only'
import { chmod, mkdir, readdir, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import { v7 as uuid } from 'uuid'
import { superfluousBackups, type BackupsView, type BackupView } from '@/core/backups'
import { notFound } from '@/core/problem'
import { copyTo, dataFolder, shapeOf, write } from '@/db/house'
import {
  requirePermission,
  type Actor,
  recordChange,
  realNow,
  findCompany,
  dayOf,
  timeOf,
  isDiskFull,
  logFault,
} from '../house'
import { packArchive } from './archive'

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

/** What is going on with backups in this process: pages and start-up load their own copies of this module. */
type Going = {
  /** The archive that is being made just now: who asks meanwhile gets the same one. */
  making: Promise<string> | null
  /** Why the last one was not made, in words for a coordinator; blank where it was. */
  fault: string
}
const globals = globalThis as unknown as { atelierBackups?: Going }
const going = () => (globals.atelierBackups ??= { making: null, fault: '' })

/**
 * Makes one archive of the running company: a consistent copy of its database with everything that its
 * log still held, its photos and documents, and a checksum of each. Nobody has to stop working for it.
 *
 * @param by null where it is made by itself, at night
 * @returns the archive's path
 */
export async function makeBackup(by: Actor | null): Promise<string> {
  if (by) requirePermission(by, 'company.edit')
  const now = going()
  now.making ??= makeOne(by)
    .then((archive) => {
      now.fault = ''
      return archive
    })
    .catch((error: unknown) => {
      now.fault = isDiskFull(error)
        ? 'The disk that keeps Atelier’s data is full. Make room on it, or tell whoever looks after the server.'
        : 'Something went wrong on our side. It stands in the server’s log.'
      throw error
    })
    .finally(() => {
      now.making = null
    })
  return now.making
}

/**
 * Has one archive made and does not wait for it: a large company's takes longer than anybody should
 * wait for an answer. `backupsOf` tells how it went.
 */
export async function startBackup(actor: Actor): Promise<void> {
  requirePermission(actor, 'company.edit')
  makeBackup(actor).catch(logFault)
}

/** The archives there are, whether one is being made, and what kept the last one from being made. */
export async function backupsOf(actor: Actor): Promise<BackupsView> {
  const { making, fault } = going()
  return { backups: await listBackups(actor), making: making !== null, fault }
}

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
