import type { Problem } from './problem'

/**
 * What an action answers to a form: thrown messages are lost in production, so problems travel as values.
 * `unforeseen` is a fault of ours; it is logged on the server and told without its details.
 */
export type Outcome<T = void> =
  { ok: true; data: T } | { ok: false; problem: Problem | { kind: 'unforeseen'; message: string } }

/** What went wrong in one go, where there is no field to say it beside. */
export function problemWords(problem: Exclude<Outcome, { ok: true }>['problem']): string {
  return problem.kind === 'invalid' ? Object.values(problem.fields).join(' ') : problem.message
}
