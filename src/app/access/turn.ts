import 'server-only'
import { after } from 'next/server'
import { cache } from 'react'

/**
 * Pages are drawn a few at a time: twenty at once would each take twenty times as long, and a tick or a
 * reading, which takes no turn, would wait behind all of them.
 */
const atOnce = 2
/** A turn that nobody gave back, such as that of a page whose reader went away, ends by itself. */
const longestMs = 2000

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
