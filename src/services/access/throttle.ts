import 'server-only'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { slowDown } from '@/core/problem'

/**
 * Slows down guessing. Every attempt is counted before anything is worked out for it, so that many at
 * once are as many; whoever was right has theirs forgotten. What waits is a name *from an address*, and
 * an address: nobody locks somebody else out by guessing at their name. A name that is guessed at from
 * many addresses is only answered more slowly.
 */
type Limits = {
  attempts: RateLimiterMemory
  /** Holds a key only while it has to wait. */
  waits: RateLimiterMemory
  names: RateLimiterMemory
  /** Attempts are counted one after the other: of many at once each finds what those before it left. */
  last: Promise<unknown>
}

const freeAttempts = 3
/** A yard's tablets share one address: an address is slowed later than a name from it. */
const freeFromAddress = 30
const freeByName = 30
const longestWaitSeconds = 300
const forgottenAfterSeconds = 3600
/** How long an answer waits once a name has been guessed at from all over. */
const slowAnswerMs = 1500

// One for the whole process: pages and route handlers load their own copies of this module.
const globals = globalThis as unknown as { atelierLimits?: Limits }

function limits(): Limits {
  const counting = (keyPrefix: string) =>
    new RateLimiterMemory({ keyPrefix, points: 1_000_000, duration: forgottenAfterSeconds })
  globals.atelierLimits ??= {
    attempts: counting('attempts'),
    waits: new RateLimiterMemory({ keyPrefix: 'waits', points: 1, duration: 1 }),
    names: counting('names'),
    last: Promise.resolve(),
  }
  return globals.atelierLimits
}

/** How long to wait after so many attempts beyond the free ones: 2, 4, 8 … seconds up to five minutes. */
export function waitAfter(attempts: number, free = freeAttempts): number {
  return attempts < free ? 0 : Math.min(2 * 2 ** Math.min(attempts - free, 20), longestWaitSeconds)
}

/**
 * Counts one attempt, before it is looked at.
 * @param keys what is counted, each with how many attempts are free
 * @throws `slowDown` while any of them must still wait
 */
function countAttempt(keys: { key: string; free: number }[]): Promise<void> {
  const queue = limits()
  const own = queue.last.then(() => countNow(keys))
  queue.last = own.catch(() => undefined)
  return own
}

async function countNow(keys: { key: string; free: number }[]): Promise<void> {
  const { attempts, waits } = limits()
  for (const { key } of keys) {
    const waiting = await waits.get(key)
    if (waiting && waiting.msBeforeNext > 0) throw patience(Math.ceil(waiting.msBeforeNext / 1000))
  }
  for (const { key, free } of keys) {
    const { consumedPoints } = await attempts.consume(key)
    const wait = waitAfter(consumedPoints, free)
    if (wait > 0) await waits.block(key, wait)
  }
}

function patience(seconds: number) {
  return slowDown(
    `Too many attempts. Try again in ${seconds} ${seconds === 1 ? 'second' : 'seconds'}.`,
    seconds,
  )
}

const pairOf = (name: string, address: string) => `${name} from ${address}`

/** Counts an attempt to sign in. @throws `slowDown` */
export async function countSignIn(name: string, address: string): Promise<void> {
  await countAttempt([
    { key: pairOf(name, address), free: freeAttempts },
    { key: address, free: freeFromAddress },
  ])
  const { consumedPoints } = await limits().names.consume(name)
  if (consumedPoints > freeByName) await new Promise((resolve) => setTimeout(resolve, slowAnswerMs))
}

/** Somebody signed in: their attempts are forgotten, and one of their address's. */
export async function forgetSignIn(name: string, address: string): Promise<void> {
  const { attempts, waits, names } = limits()
  await Promise.all([
    attempts.delete(pairOf(name, address)),
    waits.delete(pairOf(name, address)),
    attempts.reward(address),
    names.reward(name),
  ])
}

/** Counts an attempt at the set-up code. @throws `slowDown` */
export async function countSetUp(address: string): Promise<void> {
  await countAttempt([{ key: `set-up from ${address}`, free: freeAttempts }])
}
