import 'server-only'
import { after } from 'next/server'
import { cache } from 'react'
import { Turns } from './turns'

/**
 * Pages are drawn one after the other: twenty at once would each take as long as all of them. Drawing keeps
 * the one thread busy; a second page at once would gain nothing. While something is under way that somebody
 * stands waiting for at the pump, a tick or a reading, no other page is begun.
 */
const atOnce = 1
/** A turn ends by itself where a page takes long or its reader is slow to take it. */
const longestMs = 1000
/** So long at most a page whose turn has come is held back by what goes ahead. */
const heldMs = 250

// One for the whole process: pages and layouts may load their own copies of this module.
const globals = globalThis as unknown as { atelierTurns?: Turns }
const turns = (globals.atelierTurns ??= new Turns(atOnce, heldMs))

/** Runs what goes ahead of every page that is not begun yet. */
export const aheadOfPages = <T>(work: () => Promise<T>): Promise<T> => turns.ahead(work)

/** Waits until this request's page may be drawn; the turn ends when its answer has been sent. */
export const ownTurn = cache(async (): Promise<void> => {
  const end = await turns.take()
  const timer = setTimeout(end, longestMs)
  timer.unref()
  after(() => {
    clearTimeout(timer)
    end()
  })
})
