import 'server-only'
import { addDays } from '@/core/calendar'
import type { Standing } from '@/core/hours'
import { spells, type SpellRow } from '@/db/hours'
import { ourCompany, instantOf, groupBy } from '../house'

/** When machines are laid up, as instants: both days of a lay-up belong to it. One query for all of them. */
export async function loadStanding(machineIds?: string[]): Promise<(machineId: string) => Standing[]> {
  const [rows, { timeZone }] = await Promise.all([
    spells.all({ status: 'active', kind: 'layUp', ...(machineIds ? { machineId: machineIds } : {}) }, [
      ['fromDay', 'ASC'],
    ]),
    ourCompany(),
  ])
  const byMachine = groupBy(rows, (row) => row.machineId)
  return (machineId) => (byMachine.get(machineId) ?? []).map((row) => asStanding(row, timeZone))
}

function asStanding({ fromDay, toDay }: SpellRow, timeZone: string): Standing {
  return {
    from: instantOf(fromDay, '00:00', timeZone),
    to: toDay === null ? null : instantOf(addDays(toDay, 1), '00:00', timeZone),
  }
}
