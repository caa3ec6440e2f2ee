import 'server-only'
import { addDays, daysBetween } from '@/core/calendar'
import { serviceShape, type ServiceShape, type UnitFacts } from '@/core/composing'
import { notOnVisit, type Fleet, type FleetService } from '@/core/plan'
import { stockedFor } from '@/core/stores'
import { derived, kept } from '@/db/house'
import { machines } from '@/db/fleet'
import { pumpModelVersions, type PumpModelVersionRow } from '@/db/models'
import { parts } from '@/db/stores'
import { unitFacts } from '../composing'
import { spellsByMachine } from '../hours'
import { breathe, ourCompany, present, type Actor } from '../house'
import { companyPractices } from '../practices'
import { loadBook, needsOfService } from '../stores'
import { listWear } from '../wear'
import { loadCrew, loadPlanTerms } from './terms'
import { listOpenVisits } from './visits'

/** All that planning looks at: what is due on which machine, what is booked, who works when. */
export async function loadFleet(actor: Actor, weeks: number): Promise<Fleet> {
  const { today } = present(await ourCompany())
  return kept(`fleet to plan ${weeks} ${today}`, () => gather(actor, weeks, today))
}

async function gather(actor: Actor, weeks: number, today: string): Promise<Fleet> {
  const [
    wear,
    visits,
    machineRows,
    crew,
    { version: _, ...terms },
    spells,
    versions,
    practices,
    facts,
    book,
    partRows,
  ] = await Promise.all([
    listWear(actor),
    listOpenVisits(actor),
    machines.every(),
    loadCrew(),
    loadPlanTerms(),
    spellsByMachine(),
    pumpModelVersions.every(),
    companyPractices(),
    unitFacts(),
    loadBook(),
    parts.every(),
  ])
  const versionOf = new Map(versions.map((version) => [version.id, version]))
  const centsOf = new Map(partRows.map(({ id, priceCents }) => [id, priceCents]))
  const machineOf = new Map(machineRows.map((machine) => [machine.number, machine]))
  const until = addDays(today, weeks * 7)
  const services: FleetService[] = []
  for (const view of wear) {
    const machine = view.machineNumber === null ? undefined : machineOf.get(view.machineNumber)
    const version = versionOf.get(view.modelVersionId)
    if (!machine || machine.retiredOn !== null || !version || !view.started) continue
    await breathe()
    for (const clock of view.clocks) {
      if (clock.aboutDay === null) continue
      const lifeDays = Math.max(1, daysBetween(clock.since.day, clock.aboutDay))
      const put = (positions: string[], visitId: string | null) => {
        if (positions.length === 0 || (visitId === null && clock.aboutDay! > until)) return
        const own = facts.get(view.assemblyId)
        const needs = needsOfService(version, clock.task, positions, practices, own)
        services.push({
          ...{ assemblyId: view.assemblyId, pump: view.number, task: clock.task, name: clock.name },
          where:
            positions.length === clock.positions.length
              ? clock.where
              : positions.map((position) => view.positionNames[position] ?? position).join('; '),
          positions,
          machineId: machine.id,
          due: clock.aboutDay!,
          band: clock.band,
          window: clock.window,
          isOver: clock.state === 'over' || clock.state === 'overdue',
          lifeDays,
          comesAgain: clock.kind !== 'adjust',
          partsCents: Math.round(
            needs.reduce((sum, need) => {
              const part = stockedFor(book.parts.values(), { modelId: version.modelId, part: need.part })
              return sum + (part ? (centsOf.get(part.id) ?? 0) * need.quantity : 0)
            }, 0),
          ),
          partsFrom:
            clock.leadTime.days > 0 && clock.leadTime.parts.length > 0
              ? addDays(today, clock.leadTime.days)
              : null,
          shape: shapeOf(version, clock.task, positions, practices, own),
          visitId,
        })
      }
      put(notOnVisit(view.assemblyId, clock, visits), null)
      for (const visit of visits)
        put(
          visit.services
            .filter((service) => service.assemblyId === view.assemblyId && service.task === clock.task)
            .flatMap((service) => service.positions)
            .filter((position) => clock.positions.includes(position)),
          visit.id,
        )
    }
  }
  return {
    today,
    weeks,
    terms,
    crew,
    machines: machineRows
      .filter(({ retiredOn }) => retiredOn === null)
      .sort((a, b) => (a.number < b.number ? -1 : 1))
      .map(({ id, number, name, yardId }) => ({
        ...{ id, number, name, yardId },
        away: (spells.get(id) ?? []).map(({ fromDay, toDay }) => ({ from: fromDay, to: toDay ?? until })),
      })),
    services,
    visits: visits.flatMap((visit) => {
      const machine = visit.machineNumber === null ? undefined : machineOf.get(visit.machineNumber)
      const { id, version, number, day, leadId, state, winter, minutes, sheet } = visit
      return machine
        ? [
            {
              ...{ id, version, number, machineId: machine.id, day, leadId, state, winter, minutes },
              hasSheet: sheet !== null,
              isWhole: known(visit.services) === known(services.filter(({ visitId }) => visitId === id)),
            },
          ]
        : []
    }),
  }
}

/** How many places some services are about. */
const known = (services: { positions: string[] }[]) =>
  services.reduce((sum, { positions }) => sum + positions.length, 0)

/** The minutes of a service apart; pumps of one model that are due for the same share the answer. */
function shapeOf(
  version: PumpModelVersionRow,
  task: string,
  positions: string[],
  practices: Awaited<ReturnType<typeof companyPractices>>,
  facts: UnitFacts = {},
): ServiceShape {
  const known = derived('service shapes', [practices], () => new Map<string, ServiceShape>())
  const own = version.data.facts.map(({ key }) => facts[key] ?? '').join('|')
  const key = `${version.id} ${task} ${positions.join(' ')} ${own}`
  const before = known.get(key)
  if (before) return before
  const shape = serviceShape(
    { id: 'any', model: version.data, tasks: [{ task, positions }], facts },
    practices,
  )
  known.set(key, shape)
  return shape
}
