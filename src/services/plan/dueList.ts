import 'server-only'
import { addDays } from '@/core/calendar'
import { toCsv } from '@/core/interchange'
import { visitNumber, visitFor } from '@/core/plan'
import type { DueLine } from '@/core/wear'
import { yards } from '@/db/fleet'
import { type Actor, ourCompany, present } from '../house'
import type { Download, Format } from '../interchange'
import { listOpenVisits } from './visits'
import { listWear } from '../wear'

/** How far ahead the list looks, in days. */
const ahead = 30

/**
 * What is due in one yard, or in all: past its limit, inside its tolerance, or to be reached or acted on
 * within thirty days; by the last responsible day.
 */
export async function listDue(actor: Actor, yardId?: string): Promise<DueLine[]> {
  const [views, open, yardRows, company] = await Promise.all([
    listWear(actor),
    listOpenVisits(actor),
    yards.every(),
    ourCompany(),
  ])
  const until = addDays(present(company).today, ahead)
  const near = (day: string | null) => day !== null && day <= until
  const lines = views
    .filter((view) => yardId === undefined || view.yardId === yardId)
    .flatMap((view) =>
      view.clocks
        .filter(
          (clock) => clock.state !== 'healthy' || near(clock.aboutDay) || near(clock.lastResponsibleDay),
        )
        .map((clock): DueLine => {
          const visit = visitFor(view.assemblyId, clock, open)
          return {
            machine: view.machineNumber ?? '',
            machineName: view.machineName ?? 'on the shelf',
            yard: yardRows.find((yard) => yard.id === view.yardId)?.name ?? '',
            pump: view.number,
            model: view.title,
            unit: view.unit,
            clock,
            visit: visit ? { number: visitNumber(visit.number), day: visit.day, lead: visit.lead } : null,
          }
        }),
    )
  const actBy = (line: DueLine) => line.clock.lastResponsibleDay ?? '9999'
  return lines.sort((a, b) => (actBy(a) < actBy(b) ? -1 : actBy(a) > actBy(b) ? 1 : 0))
}

const columns = [
  'machine',
  'name',
  'yard',
  'pump',
  'model',
  'service',
  'where',
  'state',
  'used',
  'limit',
  'unit',
  'days used',
  'days limit',
  'due day',
  'reached by',
  'likely from',
  'likely until',
  'window from',
  'window until',
  'last responsible day',
  'parts days',
  'parts missing',
  'visit',
  'visit day',
  'technician',
] as const

/** The due list as it is handed out. */
export async function exportDue(actor: Actor, format: Format, yardId?: string): Promise<Download> {
  const lines = await listDue(actor, yardId)
  const rows = lines.map(({ clock, visit, ...line }) => [
    line.machine,
    line.machineName,
    line.yard,
    line.pump,
    line.model,
    clock.name,
    clock.where,
    clock.state,
    clock.hoursLimit === null ? '' : Math.round(clock.hoursUsed * 10) / 10,
    clock.hoursLimit ?? '',
    line.unit,
    clock.daysUsed,
    clock.daysLimit ?? '',
    clock.aboutDay ?? '',
    clock.firstBy ?? '',
    clock.band?.early ?? '',
    clock.band?.late ?? '',
    clock.window?.from ?? '',
    clock.window?.to ?? '',
    clock.lastResponsibleDay ?? '',
    clock.leadTime.days,
    clock.leadTime.parts.join('; '),
    visit?.number ?? '',
    visit?.day ?? '',
    visit?.lead ?? '',
  ])
  if (format === 'json')
    return {
      name: 'due-list.json',
      type: 'application/json; charset=utf-8',
      text: JSON.stringify(
        rows.map((row) => Object.fromEntries(columns.map((column, index) => [column, row[index]]))),
        null,
        2,
      ),
    }
  return {
    name: 'due-list.csv',
    type: 'text/csv; charset=utf-8; header=present',
    text: toCsv([...columns], rows),
  }
}
