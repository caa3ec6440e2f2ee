import fc from 'fast-check'
import {
  database,
  id,
  json,
  Op,
  orNull,
  real,
  select,
  table,
  text,
  whole,
  write,
  type RowOf,
} from '@/db/house'
import { freshDatabase, removeDatabase } from '../support/database'

afterAll(removeDatabase)

const things = table(
  'things',
  {
    id,
    about: text(),
    name: orNull(text()),
    count: orNull(whole()),
    weight: orNull(real()),
    parts: json<string[]>(),
  },
  'about',
)
type Thing = RowOf<typeof things>

beforeEach(async () => {
  await freshDatabase()
  await database().query(
    `CREATE TABLE things (id VARCHAR(36) PRIMARY KEY, about VARCHAR(255), name VARCHAR(255), count INTEGER,
       weight DOUBLE PRECISION, parts TEXT)`,
  )
})

/** Words that would end a statement, or stand for a value, if they were taken as part of it. */
const words = fc.oneof(
  fc.constantFrom(
    "it's",
    '"',
    '\\',
    ':about',
    '?',
    '$1',
    "'; DROP TABLE things; --",
    '%',
    'a\nb',
    '',
    '12',
    '1e3',
  ),
  fc.string({ unit: 'grapheme', maxLength: 12 }),
)
const abouts = ['north', "east'", ':west', '?']
const about = fc.constantFrom(...abouts)
const values = fc.record({
  about,
  name: fc.option(words),
  count: fc.option(fc.maxSafeInteger()),
  weight: fc.option(fc.double({ noNaN: true, noDefaultInfinity: true }).map((each) => each + 0)),
  parts: fc.array(words, { maxLength: 3 }),
})
const which = fc.oneof(
  fc.record({ about }),
  fc.record({ about: fc.subarray(abouts) }),
  fc.record({ name: fc.option(words) }),
  fc.record({ id: fc.integer({ max: 12, min: 0 }).map((each) => `thing ${each}`) }),
  fc.constant({}),
)
type Which = Record<string, string | string[] | null>
const fits = (row: Thing, where: Which) =>
  Object.entries(where).every(([name, wanted]) => {
    const own = row[name as keyof Thing] as string
    return Array.isArray(wanted) ? wanted.includes(own) : own === wanted
  })
const byId = (a: Thing, b: Thing) => (a.id < b.id ? -1 : 1)

test('a table is what a plain list would be, after anything that was written to it', async () => {
  const act = fc.oneof(
    fc.record({ kind: fc.constant('insert' as const), rows: fc.array(values, { maxLength: 4 }) }),
    fc.record({ kind: fc.constant('update' as const), where: which, values }),
    fc.record({ kind: fc.constant('remove' as const), where: which }),
    fc.record({ kind: fc.constant('look' as const), where: which }),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 12 }), fc.boolean(), async (acts, asOne) => {
      await write(() => things.remove({}))
      let list: Thing[] = []
      let made = 0
      const all = async () => {
        for (const each of acts) {
          if (each.kind === 'insert') {
            const rows = each.rows.map((row) => ({ ...row, id: `thing ${made++}` }))
            await things.insertMany(rows)
            list.push(...rows)
            continue
          }
          const where = each.where as Which
          const wanted = list.filter((row) => fits(row, where)).sort(byId)
          if (each.kind === 'update') {
            expect(await things.update(where, each.values)).toBe(wanted.length)
            list = list.map((row) => (fits(row, where) ? { ...row, ...each.values } : row))
          } else if (each.kind === 'remove') {
            expect(await things.remove(where)).toBe(wanted.length)
            list = list.filter((row) => !fits(row, where))
          } else {
            expect(await things.all(where, [['id', 'ASC']])).toEqual(wanted)
            expect(await things.idsOf(where, [['id', 'DESC']], 2)).toEqual(
              wanted
                .map((row) => row.id)
                .reverse()
                .slice(0, 2),
            )
            expect(await things.count(where)).toBe(wanted.length)
            expect((await things.find(where)) === null).toBe(wanted.length === 0)
          }
        }
      }
      await (asOne ? write(all) : all())
      expect((await things.every()).slice().sort(byId)).toEqual(list.slice().sort(byId))
      const of = await things.everyOf(abouts)
      for (const each of abouts)
        expect(of.get(each)!.slice().sort(byId)).toEqual(list.filter((row) => row.about === each).sort(byId))
    }),
    { numRuns: 150 },
  )
})

const thing = (own: string, values: Partial<Thing> = {}): Thing => ({
  id: own,
  about: 'north',
  name: null,
  count: null,
  weight: null,
  parts: [],
  ...values,
})

test('a value that its column does not hold is not written, and what it stood beside is not either', async () => {
  const wrong = [thing('a'), thing('b', { count: 'many' as never })]
  await expect(things.insertMany(wrong)).rejects.toThrow('things.count cannot hold "many".')
  await expect(things.update({}, { name: 7 as never })).rejects.toThrow('things.name cannot hold 7.')
  expect(await things.count()).toBe(0)
})

test('more rows than one statement takes are all written', async () => {
  const rows = Array.from({ length: 4000 }, (_, at) => thing(`thing ${at}`, { count: at }))
  await write(() => things.insertMany(rows))
  expect(await things.count()).toBe(4000)
  expect((await things.find({ count: 3999 }))!.id).toBe('thing 3999')
})

test('inside a write what is asked for comes after what was asked to be written, waited for or not', async () => {
  await write(async () => {
    const writing = Array.from({ length: 40 }, (_, at) => things.insert(thing(`thing ${at}`)))
    const found = things.all({ id: { [Op.like]: 'thing %' } })
    await Promise.all(writing)
    expect(await found).toHaveLength(40)
  })
})

test('a list stands for each of its values, and an empty one for none', async () => {
  await things.insertMany([thing('a'), thing('b'), thing("c'd")])
  const among = (ids: string[]) =>
    select<{ id: string }>(
      ['things'],
      'SELECT id FROM things WHERE id IN (:ids) AND about = :about ORDER BY id',
      {
        ids,
        about: 'north',
      },
    )
  expect(await among(["c'd", 'a', ':about'])).toEqual([{ id: 'a' }, { id: "c'd" }])
  expect(await among([])).toEqual([])
})

test('a statement that SQLite refuses says what it was, and the next one goes on', async () => {
  await things.insert(thing('a'))
  await expect(things.insert(thing('a'))).rejects.toThrow(
    /UNIQUE constraint failed: things.id \(INSERT INTO "things"/,
  )
  await expect(select(['things'], 'SELECT colour FROM things')).rejects.toThrow('no such column: colour')
  expect(await things.count()).toBe(1)
})
