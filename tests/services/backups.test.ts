import { createHash } from 'node:crypto'
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { QueryTypes } from 'sequelize'
import * as tar from 'tar'
import { v7 as uuid } from 'uuid'
import { checkDatabase, closeDatabase, database, dataFolder } from '@/db/house'
import { migrations } from '@/db/migrations'
import {
  backupFile,
  backupsOf,
  listBackups,
  makeBackup,
  makeNightly,
  startBackup,
} from '@/services/backups/backups'
import type { Manifest } from '@/services/backups/archive'
import { addDocument } from '@/services/fleet'
import { restoreArchive } from '@/services/backups'
import { sessionSecret } from '@/services/access'
import { addSheetPhoto } from '@/services/sheets'
import { at, bookedSheet, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'
import { aPhoto } from '../support/photos'

let shop: Workshop
const made: string[] = []
const folder = () => {
  const fresh = mkdtempSync(path.join(tmpdir(), 'atelier-backup-'))
  made.push(fresh)
  return fresh
}
beforeEach(async () => {
  shop = await workshop()
})
afterAll(async () => {
  await removeDatabase()
  for (const each of made) rmSync(each, { recursive: true, force: true })
})

/** Every row of every table, by table, and every file with its checksum. */
async function everything() {
  const select = <Row extends object>(sql: string) => database().query<Row>(sql, { type: QueryTypes.SELECT })
  const tables = await select<{ name: string }>(
    `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite%' ORDER BY name`,
  )
  const rows: Record<string, object[]> = {}
  for (const { name } of tables) rows[name] = await select(`SELECT * FROM "${name}" ORDER BY 1`)
  const files = ['photos', 'documents'].flatMap((where) => {
    const own = path.join(dataFolder(), where)
    return (existsSync(own) ? readdirSync(own) : []).sort().map((name) => [
      `${where}/${name}`,
      createHash('sha256')
        .update(readFileSync(path.join(own, name)))
        .digest('hex'),
    ])
  })
  return { rows, files }
}

/** A company in the middle of its work: a sheet with a photo, a document, and a log that is not written back. */
const atWork = () =>
  at('2026-08-03', async () => {
    const { sheetId, tablet } = await bookedSheet(shop)
    await addSheetPhoto(shop.technician, sheetId, { id: uuid(), name: 'a.jpg' }, await aPhoto())
    await addDocument(
      shop.technician,
      { id: uuid(), machineId: shop.machineId, name: 'plate.jpg' },
      await aPhoto(),
    )
    await tablet.send(tablet.entry('remark', { text: 'written a moment before' }))
  })

test('one archive of a running company is restored row by row and byte by byte', async () => {
  await atWork()
  const before = await everything()
  expect(before.files).toHaveLength(2)
  const archive = await makeBackup(shop.coordinator)
  expect(statSync(archive).mode & 0o777).toBe(0o600)
  expect(readdirSync(path.dirname(archive))).toEqual([path.basename(archive)])
  const secret = sessionSecret()

  // Elsewhere, where nothing is.
  await closeDatabase()
  process.env.ATELIER_DATA = folder()
  expect((await restoreArchive(archive)).before).toBeNull()
  expect(await everything()).toEqual(before)
  expect(await checkDatabase()).toBe('ok')
  expect(sessionSecret()).not.toBe(secret)

  // Over a company that has gone on: what was there is kept beside it.
  await database().query(`UPDATE yards SET name = 'spoilt'`)
  await closeDatabase()
  const { before: kept } = await restoreArchive(archive)
  expect(await everything()).toEqual(before)
  expect(readdirSync(kept!)).toEqual(
    expect.arrayContaining(['atelier.sqlite', 'photos', 'documents', 'session-secret']),
  )
})

describe('an archive that is not sound replaces nothing', () => {
  /** The archive unpacked, changed, and packed again. */
  async function changed(change: (stage: string, manifest: Manifest) => void): Promise<string> {
    await atWork()
    const archive = await makeBackup(null)
    await closeDatabase()
    const stage = folder()
    await tar.extract({ file: archive, cwd: stage })
    const list = path.join(stage, 'manifest.json')
    const manifest = JSON.parse(readFileSync(list, 'utf8')) as Manifest
    change(stage, manifest)
    writeFileSync(list, JSON.stringify(manifest))
    const packed = path.join(folder(), 'changed.tar.gz')
    await tar.create({ gzip: true, file: packed, cwd: stage }, readdirSync(stage))
    return packed
  }
  const photoIn = (stage: string) => path.join(stage, 'photos', readdirSync(path.join(stage, 'photos'))[0]!)

  test.each<[what: string, change: (stage: string, manifest: Manifest) => void, says: string]>([
    ['a photo that was altered', (stage) => writeFileSync(photoIn(stage), 'other'), 'is not as it was'],
    ['a photo that is gone', (stage) => rmSync(photoIn(stage)), 'is missing from it'],
    [
      'a photo gone from its list too',
      (stage, manifest) => {
        rmSync(photoIn(stage))
        manifest.files = manifest.files.filter((file) => !file.path.startsWith('photos/'))
      },
      'and its database names it',
    ],
    [
      'a file more than it says',
      (stage) => writeFileSync(path.join(stage, 'documents', 'unlisted-file'), 'x'),
      'which its list does not name',
    ],
    [
      'something that no archive of ours holds',
      (stage) => {
        mkdirSync(path.join(stage, 'other'))
        writeFileSync(path.join(stage, 'other', 'thing'), 'x')
      },
      'which no archive of Atelier does',
    ],
    [
      'no list',
      (_stage, manifest) => {
        ;(manifest as { format: number }).format = 9
      },
      'no list of what it holds',
    ],
  ])('%s', async (_what, change, says) => {
    const archive = await changed(change)
    process.env.ATELIER_DATA = folder()
    cpSync(path.join(path.dirname(archive), 'changed.tar.gz'), path.join(dataFolder(), 'mine'))
    await expect(restoreArchive(archive)).rejects.toThrow(says)
    expect(readdirSync(dataFolder())).toEqual(['mine'])
  })

  test('one of a newer shape is told to be that', async () => {
    await atWork()
    migrations.push({ name: '9999-newer', up: async () => undefined })
    let archive: string
    try {
      await database().query(`INSERT INTO migrations (name) VALUES ('9999-newer')`)
      archive = await makeBackup(null)
    } finally {
      migrations.pop()
    }
    await closeDatabase()
    process.env.ATELIER_DATA = folder()
    await expect(restoreArchive(archive)).rejects.toThrow('a newer version of Atelier made it')
    expect(readdirSync(dataFolder())).toEqual([])
  })

  test('no archive at all, and a company that is being served', async () => {
    await expect(restoreArchive('/nowhere/at/all.tar.gz')).rejects.toThrow('there is no file')
    // The first process of the machine is always there.
    writeFileSync(path.join(dataFolder(), 'running'), String(process.ppid))
    await expect(restoreArchive('/nowhere/at/all.tar.gz')).rejects.toThrow('Stop it first')
  })
})

test('archives are a coordinator’s alone, by their own names only, and the oldest go', async () => {
  expect(await problemIn(makeBackup(shop.technician))).toMatchObject({ kind: 'notAllowed' })
  expect(await problemIn(startBackup(shop.technician))).toMatchObject({ kind: 'notAllowed' })
  expect(await problemIn(backupsOf(shop.technician))).toMatchObject({ kind: 'notAllowed' })
  expect(await problemIn(listBackups(shop.viewer))).toMatchObject({ kind: 'notAllowed' })
  expect(await problemIn(backupFile(shop.technician, 'atelier-20260803-020000.tar.gz'))).toMatchObject({
    kind: 'notAllowed',
  })
  for (const name of ['../session-secret', 'atelier.sqlite', 'atelier-20260803-020000.tar.gz'])
    expect(await problemIn(backupFile(shop.coordinator, name))).toMatchObject({ kind: 'notFound' })
  const backups = path.join(dataFolder(), 'backups')
  mkdirSync(backups)
  for (let day = 10; day < 30; day += 1)
    writeFileSync(path.join(backups, `atelier-202607${day}-020000.tar.gz`), 'old')
  const archive = await makeBackup(shop.coordinator)
  const list = await listBackups(shop.coordinator)
  expect(list).toHaveLength(14)
  expect(list[0]).toMatchObject({ name: path.basename(archive), bytes: statSync(archive).size })
  expect(list.at(-1)!.name).toBe('atelier-20260717-020000.tar.gz')
})

test('many in an afternoon do not push the nights’ archives out, and two asked for at once are one', async () => {
  const backups = path.join(dataFolder(), 'backups')
  mkdirSync(backups)
  const old = (day: number, hour: number) => `atelier-202607${day}-${hour}0000.tar.gz`
  for (let day = 10; day < 20; day += 1) writeFileSync(path.join(backups, old(day, 10)), 'old')
  for (let hour = 11; hour < 24; hour += 1) writeFileSync(path.join(backups, old(19, hour)), 'old')
  const [one, same] = await Promise.all([makeBackup(shop.coordinator), makeBackup(shop.coordinator)])
  expect(same).toBe(one)
  const left = (await listBackups(shop.coordinator)).map(({ name }) => name)
  expect(left).toEqual([
    path.basename(one),
    old(19, 23),
    ...[18, 17, 16, 15, 14, 13, 12, 11, 10].map((day) => old(day, 10)),
  ])
})

test('asking for one does not wait for it; whoever looks sees that it is being made, and then it', async () => {
  await startBackup(shop.coordinator)
  expect(await backupsOf(shop.coordinator)).toEqual({ backups: [], making: true, fault: '' })
  const archive = await makeBackup(shop.coordinator)
  expect(await backupsOf(shop.coordinator)).toMatchObject({
    backups: [{ name: path.basename(archive) }],
    making: false,
  })
})

test('one that could not be made is told, until the next one is', async () => {
  const backups = path.join(dataFolder(), 'backups')
  writeFileSync(backups, 'a file where the folder should be')
  await startBackup(shop.coordinator)
  await expect(makeBackup(null)).rejects.toThrow()
  expect(await backupsOf(shop.coordinator)).toMatchObject({
    making: false,
    fault: expect.stringContaining('went wrong'),
  })
  rmSync(backups)
  await makeBackup(shop.coordinator)
  expect(await backupsOf(shop.coordinator)).toMatchObject({ fault: '' })
})

test('the night’s archive is made once a day', async () => {
  await makeNightly()
  await makeNightly()
  // Before two in the morning there is none yet; after it there is one, and only one.
  const hour = new Date().getUTCHours()
  expect((await listBackups(shop.coordinator)).length).toBe(hour >= 2 ? 1 : 0)
})
