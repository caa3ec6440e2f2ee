import fc from 'fast-check'
import { mostEntriesAtOnce } from '@/core/sheets'
import type { Outbox, Queued } from '@/ui/sheets/bench/queue'
import { portions, sendEntries } from '@/ui/sheets/bench/sending'

const waiting = (index: number, length = 20): Queued => ({
  id: String(index),
  sheetId: 'sheet',
  authorId: 'a',
  authorName: 'A',
  refused: '',
  deviceId: 'd',
  deviceSeq: index + 1,
  seenUpTo: 0,
  deviceTime: '2026-10-14T08:00:00.000Z',
  stepKey: null,
  kind: 'remark',
  payload: { text: 'x'.repeat(length) },
})

test('a long morning without a connection is sent in portions that are always taken', () => {
  const list = Array.from({ length: 501 }, (_, index) => waiting(index))
  const sent = portions(list)
  expect(Math.max(...sent.map((portion) => portion.length))).toBeLessThanOrEqual(mostEntriesAtOnce)
  expect(sent).toHaveLength(6)
  expect(sent.flat()).toEqual(list)
})

test('law: portions keep every entry once and in order, and none is too long to be taken', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 300_000 }), { maxLength: 40 }), (lengths) => {
      const list = lengths.map((length, index) => waiting(index, length))
      const sent = portions(list)
      expect(sent.flat()).toEqual(list)
      for (const portion of sent)
        expect(portion.length === 1 || JSON.stringify(portion).length < 1_000_000).toBe(true)
    }),
  )
})

test('what the server keeps is among the known before it leaves the device: a tap between finds it', async () => {
  const list = Array.from({ length: 120 }, (_, index) => waiting(index))
  const order: string[] = []
  const box = {
    remove: async (ids: string[]) => void order.push(`removed ${ids.length}`),
    markRefused: async () => undefined,
  } as unknown as Outbox
  const before = global.fetch
  global.fetch = (async (_url: string, { body }: { body: string }) => {
    const taken = (JSON.parse(body) as { id: string }[]).map(({ id }) => id)
    return Response.json({ taken, refused: [], held: [], entries: [], state: 'open', now: '', actor: {} })
  }) as unknown as typeof fetch
  try {
    await sendEntries(box, 'sheet', list, ({ taken }) => order.push(`known ${taken.length}`))
  } finally {
    global.fetch = before
  }
  expect(order).toEqual(['known 100', 'removed 100', 'known 20', 'removed 20'])
})
