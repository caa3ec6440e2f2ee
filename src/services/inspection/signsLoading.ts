import 'server-only'
import { showDay } from '@/core/calendar'
import { symptoms } from '@/core/inspection'
import type { ForwardSign } from '@/core/wear'
import { signs, type SignRow } from '@/db/inspection'
import { people } from '@/db/access'
import { groupBy } from '../house'

/** The open signs that bring a service forward, by pump; one query for all of them. */
export async function loadForwardSigns(
  today: string,
  ids?: string[],
): Promise<(assemblyId: string) => ForwardSign[]> {
  const rows = await signs.all({ status: 'open', ...(ids ? { assemblyId: ids } : {}) }, [['by', 'ASC']])
  const forward = rows.filter((row) => row.assemblyId !== null && row.task !== '')
  const names = forward.length > 0 ? await people.all() : []
  const byPump = groupBy(forward, (row) => row.assemblyId!)
  return (assemblyId) =>
    (byPump.get(assemblyId) ?? []).map((row) => ({
      id: row.id,
      version: row.version,
      task: row.task,
      positions: row.positions,
      by: row.by,
      words: `${seenWords(row)}, ${names.find((person) => person.id === row.recordedById)?.name ?? ''}, ${showDay(row.seenOn, today)}`,
    }))
}

/** @example "Weep or drip at a weep hole: wet under cylinder 2, 12 drips a minute" */
export function seenWords(row: SignRow): string {
  return [`${symptoms[row.symptom].name}: ${row.words}`, figuresOf(row)].filter(Boolean).join(', ')
}

/** The figures a sign came with, in words; blank where it had none. */
export function figuresOf({ dripsPerMinute, flow }: Pick<SignRow, 'dripsPerMinute' | 'flow'>): string {
  return [
    dripsPerMinute === null ? '' : `${dripsPerMinute} drips a minute`,
    flow && `${flow.bar} bar and ${flow.litresPerMinute} L/min through size ${flow.nozzleSize}`,
  ]
    .filter(Boolean)
    .join(', ')
}
