import { readdirSync } from 'node:fs'
import { backupsOf } from '@/services/backups'
import path from 'node:path'
import { problemOf } from '@/core/problem'
import type { Actor } from '@/services/house'
import { getMachine } from '@/services/fleet'
import { appendEntries } from '@/services/sheets'
import { getPart } from '@/services/stores'
import { getVisit } from '@/services/plan'
import { at, bookedSheet, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let actor: Actor
// Every action of every page, called as the browser calls it, for whoever is signed in.
jest.mock('@/app/access/act', () => {
  const asActor = (work: (actor: Actor) => Promise<unknown>) => work(actor)
  return { act: asActor, look: asActor, answer: (work: () => Promise<unknown>) => work() }
})
jest.mock('@/app/access/session', () => ({
  renewSession: async () => undefined,
  closeSession: async () => undefined,
  currentActor: async () => null,
}))
jest.mock('next/navigation', () => ({ redirect: () => undefined }))

let shop: Workshop
beforeEach(async () => {
  shop = await workshop()
  actor = shop.coordinator
})
// A backup that was asked for is made beside the work: the folder stays until it is done.
afterEach(async () => {
  while ((await backupsOf(shop.coordinator)).making) await new Promise((done) => setTimeout(done, 50))
})
afterAll(removeDatabase)

const pages = path.join(__dirname, '../../src/app/(inside)')
const actions = readdirSync(pages, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('actions.ts'))
  .sort()

const nonsense: unknown[] = [
  undefined,
  null,
  7,
  'x',
  '\0',
  [],
  {},
  { id: {}, version: {} },
  { id: '__proto__', version: '1' },
  { id: 'a\0bcdefgh', version: 1 },
  { id: ['a'], version: -1, meterId: 5, lots: 'x', items: [null], positions: [[]], ended: {} },
  { readingId: { gt: '' }, decision: 'withdraw', reason: {} },
  { id: '00000000-0000-4000-8000-000000000000', version: 1, left: true, reason: 'x' },
  'x'.repeat(70_000),
]

test.each(actions)(
  'whatever is sent to %s is answered in words',
  async (file) => {
    const module = (await import(path.join(pages, file))) as Record<
      string,
      (...args: unknown[]) => Promise<unknown>
    >
    const foreseen: string[] = []
    await at('2026-08-03', async () => {
      for (const [name, action] of Object.entries(module))
        for (const input of nonsense)
          await action(input, input).catch((error: unknown) => {
            if (!problemOf(error))
              foreseen.push(`${name}(${JSON.stringify(input)?.slice(0, 60)}): ${String(error).slice(0, 120)}`)
          })
    })
    expect(foreseen).toEqual([])
  },
  60_000,
)

test('an address with a NUL in it leads to nothing, and is no fault of ours', async () => {
  for (const look of [getMachine, getPart, getVisit] as ((who: Actor, what: string) => Promise<unknown>)[])
    expect(await problemIn(look(actor, 'T-04\0'))).toMatchObject({ kind: 'notFound' })
})

test('a list of two hundred thousand entries is refused by its length', async () => {
  const { sheetId } = await at('2026-08-03', () => bookedSheet(shop))
  const list = Array.from({ length: 200_000 }, () => ({}))
  expect(await problemIn(appendEntries(shop.technician, sheetId, list, null))).toMatchObject({
    kind: 'invalid',
    message: 'Send at most 500 entries at once.',
  })
})

test('an entry of a time that no date can hold is refused beside good ones', async () => {
  const { sheetId, tablet } = await at('2026-08-03', () => bookedSheet(shop))
  const good = tablet.entry('remark', { text: 'good' })
  const far = { ...tablet.entry('remark', { text: 'far' }), deviceTime: '+275760-09-13T00:00:00.000Z' }
  const answer = await at('2026-08-03', () => appendEntries(shop.technician, sheetId, [far, good], null))
  expect([answer.taken, answer.refused.map(({ id }) => id)]).toEqual([[good.id], [far.id]])
})
