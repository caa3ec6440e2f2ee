import { AsyncResource } from 'node:async_hooks'
import { execFile } from 'node:child_process'
import { readdirSync } from 'node:fs'
import path from 'node:path'
import { QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { unforeseenWords } from '@/app/access/unforeseen'
import { attempt, checkDatabase, closeDatabase, database, migrate, runs, write } from '@/db/house'
import { meterEvents } from '@/db/hours'
import { yards } from '@/db/fleet'
import { migrations } from '@/db/migrations'
import { freshDatabase, madeOnce, removeDatabase } from '../support/database'

let folder: string
beforeEach(async () => {
  folder = await freshDatabase()
})
afterAll(removeDatabase)

const yard = (name: string) => ({ id: uuid(), name, place: '', note: '', createdAt: '', version: 1 })

test('of 50 writes at once none is lost', async () => {
  await yards.insert({ ...yard('counter'), version: 0 })
  await Promise.all(
    Array.from({ length: 50 }, (_, index) =>
      write(async () => {
        // Read, then write what was read: a lost update would show in the count.
        const counter = (await yards.find({ name: 'counter' }))!
        await yards.insert(yard(`yard ${index}`))
        await yards.update({ id: counter.id }, { version: counter.version + 1 })
      }),
    ),
  )
  expect(await yards.count()).toBe(51)
  expect((await yards.find({ name: 'counter' }))!.version).toBe(50)
})

test('a write that fails half-way keeps nothing, and the next ones go on', async () => {
  const failing = write(async () => {
    await yards.insert(yard('half'))
    throw new Error('stop here')
  })
  const following = write(() => yards.insert(yard('whole')))
  await expect(failing).rejects.toThrow('stop here')
  await following
  expect((await yards.all()).map((row) => row.name)).toEqual(['whole'])
})

test('a write inside a write joins it', async () => {
  const outer = write(async () => {
    await write(() => yards.insert(yard('inner')))
    throw new Error('stop the outer one')
  })
  await expect(outer).rejects.toThrow()
  expect(await yards.count()).toBe(0)
})

test('a process killed in the middle of a write leaves a sound file without the half', async () => {
  await write(() => yards.insert(yard('before')))
  await closeDatabase()
  const script = path.join(__dirname, '../support/dieMidWrite.ts')
  const tsx = path.join(__dirname, '../../node_modules/tsx/dist/cli.mjs')
  const signal = await new Promise((resolve) => {
    const child = execFile(
      process.execPath,
      ['--conditions=react-server', tsx, '--conditions=react-server', script],
      {
        env: { ...process.env, ATELIER_DATA: folder },
      },
    )
    child.stdout!.on(
      'data',
      (text: string) =>
        text.includes('half written') && process.kill(Number(/pid (\d+)/.exec(text)![1]), 'SIGKILL'),
    )
    child.on('exit', (code, by) => resolve(by ?? code))
  })
  expect(signal === 'SIGKILL' || signal === 137).toBe(true)
  expect(await checkDatabase()).toBe('ok')
  expect((await yards.all()).map((row) => row.name)).toEqual(['before'])
}, 60_000)

test('the file is copied before a change to its shape, and not without one', async () => {
  await yards.insert(yard('kept'))
  const copies = () => readdirSync(folder).filter((name) => name.includes('.before-'))
  expect(await migrate()).toEqual({ ran: [], copy: null })
  expect(copies()).toEqual([])
  migrations.push({
    name: '9999-test',
    up: async ({ context }) => void (await context.removeColumn('yards', 'note')),
  })
  try {
    const { ran, copy } = await migrate()
    expect(ran).toEqual(['9999-test'])
    expect(copies()).toEqual([path.basename(copy!)])
  } finally {
    migrations.pop()
  }
})

describe('a change of shape that fails', () => {
  const copies = () => readdirSync(folder).filter((name) => name.includes('.before-'))
  const broken = {
    name: '9999-broken',
    up: async () => {
      await database().query('ALTER TABLE yards ADD COLUMN half TEXT')
      await yards.insert(yard('half-way'))
      throw new Error('stopped in the middle')
    },
  }
  const columns = async () => {
    const shape = await database().getQueryInterface().describeTable('yards')
    return Object.keys(shape)
  }

  test('leaves the file as it was, keeps the first copy however often it is tried, and names the way back', async () => {
    await yards.insert(yard('kept'))
    migrations.push(broken)
    try {
      let message = ''
      for (let turn = 0; turn < 8; turn += 1)
        message = await migrate().then(
          () => 'it ran',
          (error: Error) => error.message,
        )
      expect(await columns()).not.toContain('half')
      expect((await yards.all()).map((row) => row.name)).toEqual(['kept'])
      expect(await checkDatabase()).toBe('ok')
      // The first and the newest: enough to go back, and never more.
      expect(copies()).toHaveLength(2)
      expect(message).toContain('9999-broken: stopped in the middle')
      expect(message).toContain(path.join(folder, copies()[1]!))
      expect(message).toContain('The way back')
    } finally {
      migrations.pop()
    }
    expect(await migrate()).toEqual({ ran: [], copy: null })
  })

  test('is run again in full once it can be', async () => {
    let fails = true
    migrations.push({
      ...broken,
      up: async () =>
        fails ? broken.up() : void (await database().query('ALTER TABLE yards ADD COLUMN half TEXT')),
    })
    try {
      await expect(migrate()).rejects.toThrow('stopped in the middle')
      fails = false
      expect((await migrate()).ran).toEqual(['9999-broken'])
      expect(await columns()).toContain('half')
    } finally {
      migrations.pop()
    }
  })
})

test('a company from before the change of its shape comes along: a change of meter names the reading that told of it', async () => {
  const later = migrations.splice(migrations.findIndex(({ name }) => name === '0015-whole-acts'))
  try {
    await madeOnce('old company', async () => void (await migrate()))
    const sql = (text: string) => database().query(text)
    await sql('PRAGMA foreign_keys = OFF')
    const at = (day: number, time = '08:00') => `2026-09-${day}T${time}:00.000Z`
    const reading = (id: string, day: number, raw: number, settledAt: string | null) =>
      sql(
        `INSERT INTO readings (id, meterId, at, raw, decimals, typed, status, verdict, recordedAt, recordedById, settledAt)
         VALUES ('${id}', 'meter', '${at(day)}', ${raw}, 1, '', 'accepted', 'fits', '${at(day)}', 'p', ${settledAt ? `'${settledAt}'` : 'NULL'})`,
      )
    await reading('before', 10, 9000, null)
    await reading('told', 17, 120, '2026-09-17T08:05:00.040Z')
    await reading('after', 24, 320, null)
    const event = (id: string, day: number, recordedAt: string) =>
      sql(
        `INSERT INTO meter_events (id, meterId, kind, at, lastRaw, firstRaw, decimals, status, recordedAt, recordedById)
         VALUES ('${id}', 'meter', 'change', '${at(day)}', 9040, 0, 1, 'active', '${recordedAt}', 'p')`,
      )
    await event('change', 12, '2026-09-17T08:05:00.010Z')
    // Told by nobody's reading: it is left as it is.
    await event('other', 22, '2026-09-22T08:00:00.000Z')
    migrations.push(...later)
    const { ran, copy } = await migrate()
    expect(ran).toEqual(later.map(({ name }) => name))
    expect(copy).not.toBeNull()
    expect(
      (await meterEvents.all({}, [['at', 'ASC']])).map((row) => [row.id, row.readingId, row.assumed]),
    ).toEqual([
      ['change', 'told', 0],
      ['other', null, 0],
    ])
    expect(await checkDatabase()).toBe('ok')
  } finally {
    if (!migrations.includes(later[0]!)) migrations.push(...later)
  }
})

test('a full disk is told as that, and what was begun leaves nothing behind', async () => {
  await yards.insert(yard('before'))
  const told = jest.spyOn(process.stderr, 'write').mockReturnValue(true)
  const pages = await database().query<{ page_count: number }>('PRAGMA page_count', {
    type: QueryTypes.SELECT,
  })
  try {
    const failed = await write(async () => {
      // No page more than there are: to SQLite the disk is full.
      await database().query(`PRAGMA max_page_count = ${pages[0]!.page_count}`)
      for (let index = 0; index < 2000; index += 1)
        await yards.insert(yard(`yard ${index} ${'x'.repeat(200)}`))
    }).catch((error: unknown) => error)
    expect(unforeseenWords(failed)).toContain('The disk that keeps Atelier’s data is full.')
    // Whoever looks after the server reads what caused it.
    expect(told.mock.calls.flat().join('')).toContain('SQLITE_FULL')
    expect(unforeseenWords(new TypeError('something else'))).toContain('Something went wrong on our side.')
  } finally {
    told.mockRestore()
  }
  expect((await yards.all()).map((row) => row.name)).toEqual(['before'])
  expect(await checkDatabase()).toBe('ok')
})

test('where the disk is full in a part that may fail, nothing of the whole is kept, not even what comes after it', async () => {
  await yards.insert(yard('before'))
  const pages = await database().query<{ page_count: number }>('PRAGMA page_count', {
    type: QueryTypes.SELECT,
  })
  const refused: string[] = []
  const whole = write(async () => {
    await database().query(`PRAGMA max_page_count = ${pages[0]!.page_count}`)
    await yards.insert(yard('first'))
    await attempt(async () => {
      for (let index = 0; index < 2000; index += 1)
        await yards.insert(yard(`full ${index} ${'x'.repeat(200)}`))
    }).catch((error: Error) => refused.push(error.message))
    await attempt(() => yards.insert(yard('after'))).catch((error: Error) => refused.push(error.message))
  })
  await expect(whole).rejects.toThrow()
  expect(refused).toHaveLength(2)
  expect(refused[0]).toContain('SQLITE_FULL')
  expect((await yards.all()).map((row) => row.name)).toEqual(['before'])
})

test('where everything was undone in the middle of a write, what it still asks for is not kept either', async () => {
  const refused: string[] = []
  const note = (error: Error) => refused.push(error.message)
  const whole = write(async () => {
    await yards.insert(yard('first'))
    // As SQLite itself may do where it cannot go on.
    await attempt(async () => {
      await runs('ROLLBACK')
      throw new Error('it went wrong')
    }).catch(note)
    await attempt(() => yards.insert(yard('part'))).catch(note)
    await yards.insert(yard('after')).catch(note)
  })
  await expect(whole).rejects.toThrow()
  expect(refused[0]).toBe('it went wrong')
  expect(refused).toHaveLength(3)
  expect(await yards.all()).toEqual([])
  // The next write begins on a connection that knows nothing of it.
  await write(() => yards.insert(yard('next')))
  expect((await yards.all()).map((row) => row.name)).toEqual(['next'])
})

test('statements that come when their transaction has ended are refused, and what a part has undone stays undone', async () => {
  let late: (() => Promise<void>) | undefined
  let lateInPart: (() => Promise<void>) | undefined
  await write(async () => {
    late = AsyncResource.bind(() => yards.insert(yard('late')))
    await yards.insert(yard('kept'))
    await attempt(async () => {
      lateInPart = AsyncResource.bind(() => yards.insert(yard('late in part')))
      await yards.insert(yard('undone'))
      throw new Error('no')
    }).catch(() => undefined)
    await expect(lateInPart!()).rejects.toThrow('The transaction has ended')
    await attempt(() => yards.insert(yard('kept too')))
  })
  await expect(late!()).rejects.toThrow('The transaction has ended')
  expect((await yards.all()).map((row) => row.name).sort()).toEqual(['kept', 'kept too'])
})

test('what goes on beside a failure, while it is being undone, leaves nothing either', async () => {
  const others: Promise<unknown>[] = []
  const insertOn = async (name: string) => {
    for (let index = 0; index < 200; index += 1) await yards.insert(yard(`${name} ${index}`))
  }
  const whole = write(async () => {
    others.push(insertOn('beside').catch((error: Error) => error.message))
    await yards.insert(yard('own'))
    throw new Error('stop here')
  })
  await expect(whole).rejects.toThrow('stop here')
  expect(await others[0]).toContain('The transaction has ended')
  await write(async () => {
    await attempt(async () => {
      others.push(insertOn('in part').catch((error: Error) => error.message))
      await yards.insert(yard('own'))
      throw new Error('stop here')
    }).catch(() => undefined)
    expect(await others[1]).toContain('The transaction has ended')
  })
  expect(await yards.all()).toEqual([])
})
