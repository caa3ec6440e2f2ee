import type { MarkedAs } from '../plan'
import type { TodayRow } from './views'

/** One thing that can be put off or handed on, as it is now. */
export type Standing = { subject: string; label: string; about: MarkedAs }

/** What a row stands for when it is put off or handed on: a visit for each of its services, so that each can come back by itself. */
export function standsFor(row: TodayRow): Standing[] {
  const rows = row.kind === 'bundle' ? row.bundle.services.flatMap((service) => service.row ?? []) : [row]
  return rows.map(({ subject, label, positions, severity, grounds }) => ({
    ...{ subject, label },
    about: { positions, severity, grounds },
  }))
}
