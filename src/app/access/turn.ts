import 'server-only'
import { after } from 'next/server'
import { cache } from 'react'

/**
 * Pages are drawn one after the other: twenty at once would each take as long as all of them. Drawing keeps
 * the one thread busy; a second page at once would gain nothing. While something is under way that somebody
 * stands waiting for at the pump, a tick or a reading, no other page is begun.
 */
const atOnce = 1
/** A turn ends by itself where a page takes long or its reader is slow to take it. */
const longestMs = 1000
/** So long at most a page is held back by what goes ahead. */
const heldMs = 250

type Waiting = { begin: () => void; heldUntil: number }
// One for the whole process: pages and layouts may load their own copies of this module.
type Turns = { free: number; waiting: Waiting[]; ahead: number }
const globals = globalThis as unknown as { atelierTurns?: Turns }
const turns = (globals.atelierTurns ??= { free: atOnce, waiting: [], ahead: 0 })

/** Begins the pages whose turn it is. */
function next(): void {
  while (turns.free > 0) {
    const [first] = turns.waiting
    if (!first || (turns.ahead > 0 && performance.now() < first.heldUntil)) return
    turns.waiting.shift()
    turns.free -= 1
    first.begin()
  }
}

/** Runs what goes ahead of every page that is not begun yet. */
export async function aheadOfPages<T>(work: () => Promise<T>): Promise<T> {
  turns.ahead += 1
  try {
    return await work()
  } finally {
    turns.ahead -= 1
    next()
  }
}

/** Waits until this request's page may be drawn; the turn ends when its answer has been sent. */
export const ownTurn = cache(async (): Promise<void> => {
  await new Promise<void>((begin) => {
    turns.waiting.push({ begin, heldUntil: performance.now() + heldMs })
    if (turns.ahead > 0) setTimeout(next, heldMs + 1).unref()
    next()
  })
  let ended = false
  const end = () => {
    if (ended) return
    ended = true
    clearTimeout(timer)
    turns.free += 1
    next()
  }
  const timer = setTimeout(end, longestMs)
  timer.unref()
  after(end)
})
