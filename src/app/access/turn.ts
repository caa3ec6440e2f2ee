import 'server-only'
import { after } from 'next/server'
import { cache } from 'react'

/**
 * Pages are drawn one after the other: twenty at once would each take as long as all of them, and a tick
 * or a reading, which takes no turn, would wait behind them. Drawing keeps the one thread busy; a second
 * page at once would gain nothing.
 */
const atOnce = 1
/** A turn ends by itself where a page takes long or its reader is slow to take it. */
const longestMs = 1000

// One for the whole process: pages and layouts may load their own copies of this module.
type Turns = { free: number; waiting: (() => void)[] }
const globals = globalThis as unknown as { atelierTurns?: Turns }
const turns = (globals.atelierTurns ??= { free: atOnce, waiting: [] })

/** Waits until this request's page may be drawn; the turn ends when its answer has been sent. */
export const ownTurn = cache(async (): Promise<void> => {
  if (turns.free > 0) turns.free -= 1
  else await new Promise<void>((resolve) => turns.waiting.push(resolve))
  let ended = false
  const end = () => {
    if (ended) return
    ended = true
    clearTimeout(timer)
    const next = turns.waiting.shift()
    if (next) next()
    else turns.free += 1
  }
  const timer = setTimeout(end, longestMs)
  timer.unref()
  after(end)
})
