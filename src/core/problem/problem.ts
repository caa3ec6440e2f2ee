/**
 * The small set of ways in which a request can fail. A problem is an `Error` that carries a `kind`;
 * it is told apart by that kind and never by `instanceof`, since bundles hold several copies of a class.
 */
export type Problem =
  | { kind: 'invalid'; message: string; fields: Record<string, string> }
  | { kind: 'notFound'; message: string }
  | { kind: 'conflict'; message: string; stale?: StaleEdit }
  | { kind: 'notAllowed'; message: string }
  | { kind: 'slowDown'; message: string; retryAfterSeconds: number }

/** What somebody else changed in a row since the version that the editor had read. */
export type StaleEdit = {
  /** The version the row has now. */
  version: number
  /** Who changed it last, and when (ISO instant). */
  by: string
  at: string
  /** The row's fields as they are now, as the form would show them. */
  current: Record<string, unknown>
  /** Names of the fields that differ from what the editor had read. */
  changed: string[]
}

export type ProblemError = Error & { problem: Problem }

function problemError(problem: Problem): ProblemError {
  return Object.assign(new Error(problem.message), { problem })
}

/** Input that breaks a rule: one sentence per field path (`pump.serial`, `tanks.2.litres`). */
export function invalid(fields: Record<string, string>): ProblemError {
  const message = Object.values(fields).join(' ')
  return problemError({ kind: 'invalid', message, fields })
}

export function notFound(what: string): ProblemError {
  return problemError({ kind: 'notFound', message: `${what} could not be found. It may have been renamed.` })
}

export function conflict(message: string, stale?: StaleEdit): ProblemError {
  return problemError({ kind: 'conflict', message, stale })
}

export function notAllowed(message: string): ProblemError {
  return problemError({ kind: 'notAllowed', message })
}

export function slowDown(message: string, retryAfterSeconds: number): ProblemError {
  return problemError({ kind: 'slowDown', message, retryAfterSeconds })
}

/** The problem an error carries, or undefined for an unforeseen error. */
export function problemOf(error: unknown): Problem | undefined {
  if (typeof error !== 'object' || error === null || !('problem' in error)) return undefined
  return (error as ProblemError).problem
}
