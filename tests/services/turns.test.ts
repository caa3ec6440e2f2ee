import { setTimeout as passes } from 'node:timers/promises'
import { Turns } from '@/app/access/turns'

/** Takes a turn and says when it has begun. */
function page(turns: Turns) {
  const state = { begun: false, end: () => undefined as void }
  void turns.take().then((end) => Object.assign(state, { begun: true, end }))
  return state
}
const settled = () => passes(1)

test('one after the other, and a turn that is ended twice counts once', async () => {
  const turns = new Turns(1, 10_000)
  const [first, second, third] = [page(turns), page(turns), page(turns)]
  await settled()
  expect([first.begun, second.begun, third.begun]).toEqual([true, false, false])
  first.end()
  first.end()
  await settled()
  expect([second.begun, third.begun]).toEqual([true, false])
  second.end()
  await settled()
  expect(third.begun).toBe(true)
})

test('what goes ahead is waited for, well or badly ended', async () => {
  const turns = new Turns(1, 10_000)
  let fail!: (error: Error) => void
  const tick = turns.ahead(() => new Promise<void>((_, reject) => (fail = reject)))
  const held = page(turns)
  await settled()
  expect(held.begun).toBe(false)
  fail(new Error('no'))
  await expect(tick).rejects.toThrow('no')
  await settled()
  expect(held.begun).toBe(true)
})

test('what never ends holds a page back only for a moment, and the next one not at all', async () => {
  const turns = new Turns(1, 30)
  void turns.ahead(() => new Promise<void>(() => undefined))
  const held = page(turns)
  await settled()
  expect(held.begun).toBe(false)
  await passes(120)
  expect(held.begun).toBe(true)
  held.end()
  const later = page(turns)
  await settled()
  expect(later.begun).toBe(true)
})

test('a page that has waited for others is held back all the same when its turn comes', async () => {
  const turns = new Turns(1, 60)
  const [first, second] = [page(turns), page(turns)]
  await passes(80)
  let end!: () => void
  const tick = turns.ahead(() => new Promise<void>((resolve) => (end = resolve)))
  first.end()
  await settled()
  expect(second.begun).toBe(false)
  end()
  await tick
  await settled()
  expect(second.begun).toBe(true)
})

test('a stream of what goes ahead cannot keep a page out', async () => {
  const turns = new Turns(1, 40)
  let isOn = true
  const stream = (async () => {
    while (isOn) await Promise.all([turns.ahead(() => passes(12)), turns.ahead(() => passes(17))])
  })()
  await passes(5)
  const held = page(turns)
  await passes(200)
  isOn = false
  expect(held.begun).toBe(true)
  await stream
})
