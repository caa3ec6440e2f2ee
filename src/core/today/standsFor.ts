import type { MarkedAs } from '../plan'
import type { Standing, TodayRow } from './views'

export const asStanding = ({
  subject,
  label,
  positions,
  severity,
  grounds,
}: MarkedAs & { subject: string; label: string }): Standing => ({
  ...{ subject, label },
  about: { positions, severity, grounds },
})

/** What a row stands for when it is put off or handed on: a visit for each of its services, so that each can come back by itself. */
export function standsFor(row: TodayRow): Standing[] {
  return row.kind === 'bundle'
    ? row.bundle.services.flatMap(({ standing }) => standing ?? [])
    : [asStanding(row)]
}
