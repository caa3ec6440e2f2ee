import type { Step, Task } from './types'

/** Whether a task may fit new parts: always, or where what it looks at is found bad. */
export const mayRenew = ({ kind }: Pick<Task, 'kind'>): boolean =>
  kind === 'renew' || kind === 'change' || kind === 'condition'

/** The node at which a task fits what is new. */
export const fittedIn = ({ at, renewsAt }: Pick<Task, 'at' | 'renewsAt'>): string | null => renewsAt ?? at

/** The answer on which work on condition renews; null where it does not say. */
export function renewsWhere({ steps }: Pick<Task, 'steps'>): Step['when'] {
  return steps.find(({ phase, when }) => phase === 'renew' && when !== null)?.when ?? null
}

/** Whether a task has a clock of its own, which looking or setting restarts. */
export const hasOwnClock = ({ kind }: Pick<Task, 'kind'>): boolean => kind !== 'renew' && kind !== 'change'
