import 'server-only'
import { AsyncLocalStorage } from 'node:async_hooks'
import type { Transaction } from 'sequelize'

/** Topics that a transaction has touched so far. */
export type Touches = Set<string>

/**
 * What an answer rests on: topics that its making read, and kept answers that it asked for. These are
 * named and not gone through, so that asking for one of them costs the same however much it rests on.
 */
export type Basis = {
  /** The touches that it has been held against. */
  freshAt: number
  isStale: boolean
  /** While it is being made it may still come to rest on something that was touched meanwhile. */
  isMade: boolean
  restsOn: (topic: string) => boolean
  on: Set<Basis>
}

/** The making of something kept: what it has looked at so far. */
export type Looks = { topics: Set<string>; basis: Basis }

/** What the running code is part of. */
type Scope = {
  transaction?: Transaction
  touches?: Touches
  looks?: Looks
  /** A clock that somebody has set: its instant, in milliseconds. */
  clock?: { ms: number }
}

const key = Symbol.for('atelier.scope')
const globals = globalThis as unknown as Record<symbol, unknown>

/**
 * Node copies what each storage holds to every promise that is made, whether it is asked for or not: there is one
 * for all that is handed on this way.
 */
function storage(): AsyncLocalStorage<Scope> {
  return (globals[key] ??= new AsyncLocalStorage<Scope>()) as AsyncLocalStorage<Scope>
}

const none: Scope = {}

export function scope(): Scope {
  return storage().getStore() ?? none
}

/** Runs work that is part of something besides what the running code is part of already. */
export function within<T>(part: Scope, work: () => T): T {
  return storage().run({ ...scope(), ...part }, work)
}
