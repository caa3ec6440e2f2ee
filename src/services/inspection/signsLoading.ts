import 'server-only'
import { showDay } from '@/core/calendar'
import { symptoms } from '@/core/inspection'
import type { ForwardSign } from '@/core/wear'
import { kept } from '@/db/house'
import { signs, type SignRow } from '@/db/inspection'
import { people } from '@/db/access'
import { groupBy } from '../house'

/** The open signs that bring a service forward, by pump; the same lists until a sign is written. */
export async function loadForwardSigns(today: string): Promise<(assemblyId: string) => ForwardSign[]> {
  const byPump = await kept(`forward signs ${today}`, () => forwardSigns(today))
  return (assemblyId) => byPump.get(assemblyId) ?? none
}

const none: ForwardSign[] = []

async function forwardSigns(today: string): Promise<Map<string, ForwardSign[]>> {
  const [rows, names] = await Promise.all([signs.all({ status: 'open' }, [['by', 'ASC']]), people.every()])
  const forward = rows.filter((row) => row.assemblyId !== null && row.task !== '')
  const byPump = groupBy(forward, (row) => row.assemblyId!)
  const asForward = (row: SignRow): ForwardSign => ({
    id: row.id,
    version: row.version,
    task: row.task,
    positions: row.positions,
    by: row.by,
    words: `${seenWords(row)}, ${names.find((person) => person.id === row.recordedById)?.name ?? ''}, ${showDay(row.seenOn, today)}`,
  })
  return new Map([...byPump].map(([assemblyId, own]) => [assemblyId, own.map(asForward)]))
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
