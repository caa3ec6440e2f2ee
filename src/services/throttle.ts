import 'server-only'
import { slowDown } from '@/core/problem'
import { realNow } from './clock'

type Attempts = { failures: number; notBefore: number; lastFailure: number }

const freeFailures = 3
const longestWaitMs = 5 * 60_000
const forgottenAfterMs = 60 * 60_000

// One for the whole process: pages and route handlers load their own copies of this module.
const globals = globalThis as unknown as { atelierAttempts?: Map<string, Attempts> }

function attempts(): Map<string, Attempts> {
  globals.atelierAttempts ??= new Map()
  return globals.atelierAttempts
}

/** How long to wait after so many failures: three are free, then 2, 4, 8 … seconds up to five minutes. */
export function waitAfter(failures: number): number {
  return failures < freeFailures ? 0 : Math.min(2000 * 2 ** (failures - freeFailures), longestWaitMs)
}

/** @throws `slowDown` while any of the keys must still wait */
export function requirePatience(keys: string[]): void {
  const waitMs = Math.max(...keys.map((key) => (attempts().get(key)?.notBefore ?? 0) - realNow()))
  if (waitMs <= 0) return
  const seconds = Math.ceil(waitMs / 1000)
  throw slowDown(
    `Too many attempts. Try again in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`,
    seconds,
  )
}

export function noteFailure(keys: string[]): void {
  const time = realNow()
  for (const [key, entry] of attempts())
    if (time - entry.lastFailure > forgottenAfterMs) attempts().delete(key)
  for (const key of keys) {
    const failures = (attempts().get(key)?.failures ?? 0) + 1
    attempts().set(key, { failures, notBefore: time + waitAfter(failures), lastFailure: time })
  }
}

export function forgetFailures(keys: string[]): void {
  for (const key of keys) attempts().delete(key)
}
