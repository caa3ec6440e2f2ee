import 'server-only'
import { addDays } from '@/core/calendar'
import type { Fleet, FleetService } from '@/core/plan'
import { availability, type Book } from '@/core/stores'
import { workOnHeldWords } from '@/core/winter'
import { kept, same } from '@/db/house'
import { machines } from '@/db/fleet'
import { tools } from '@/db/tools'
import { spellsByMachine } from '../hours'
import { breathe, ourCompany, present, type Actor } from '../house'
import { loadBook } from '../stores'
import { listWear } from '../wear'
import { winterNeeds } from '../winter'
import { readServices } from './services'
import { loadCrew, loadPlanTerms } from './terms'
import { listOpenVisits } from './visits'

/** All that planning looks at: what is due on which machine, what is booked, who works when. */
export async function loadFleet(actor: Actor, weeks: number): Promise<Fleet> {
  const { today } = present(await ourCompany())
  return kept(`fleet to plan ${weeks} ${today}`, () => gather(actor, weeks, today))
}

/** The same with the services of visits alone: all that is asked where it is about what is booked. */
export async function loadBooked(actor: Actor, weeks: number): Promise<Fleet> {
  const { today } = present(await ourCompany())
  return kept(`booked fleet ${weeks} ${today}`, async () =>
    // A tick says nothing new here.
    same(`booked fleet ${weeks}`, await gather(actor, weeks, today, 'booked')),
  )
}

async function gather(
  actor: Actor,
  weeks: number,
  today: string,
  which: 'all' | 'booked' = 'all',
): Promise<Fleet> {
  const [
    wear,
    visits,
    machineRows,
    crew,
    { version: _, ...terms },
    spells,
    reads,
    toolRows,
    winter,
    book,
    { noticeDays },
  ] = await Promise.all([
    listWear(actor),
    listOpenVisits(actor),
    machines.every(),
    loadCrew(),
    loadPlanTerms(),
    spellsByMachine(),
    readServices(),
    tools.every(),
    winterNeeds(),
    loadBook(),
    ourCompany(),
  ])
  const machineOf = new Map(machineRows.map((machine) => [machine.number, machine]))
  const until = addDays(today, weeks * 7)
  // One that waits to be made safe for winter is held in the lay-up that is to come.
  const heldNow = new Map(winter.held.map(({ machineId, state }) => [machineId, workOnHeldWords(state)]))
  const held = new Set([...heldNow.keys(), ...winter.needs.map(({ machineId }) => machineId)])
  const services: FleetService[] = []
  for (const view of wear) {
    const machine = view.machineNumber === null ? undefined : machineOf.get(view.machineNumber)
    if (!machine || machine.retiredOn !== null) continue
    await breathe()
    for (const service of reads[which](view, machine.id, visits, today))
      if (service.visitId !== null || service.due <= until) services.push(service)
  }
  const stock = which === 'all' ? scarceStock(book, services, weeks * 7, today) : []
  const scarce = new Set(stock.map(({ part }) => part))
  const layOf = new Map(
    visits.flatMap(({ id, winter: kind, machineId }) =>
      kind === 'lay' && machineId !== null ? [[machineId, id] as const] : [],
    ),
  )
  const winters = winter.needs.map((need) => ({ visitId: layOf.get(need.machineId) ?? null, ...need }))
  const waiting = new Set(winters.map(({ visitId }) => visitId))
  return {
    today,
    weeks,
    terms,
    noticeDays,
    crew,
    machines: machineRows
      .filter(({ retiredOn }) => retiredOn === null)
      .sort((a, b) => (a.number < b.number ? -1 : 1))
      .map(({ id, number, name, yardId }) => ({
        id,
        number,
        name,
        yardId,
        held: heldNow.get(id) ?? '',
        away: (spells.get(id) ?? []).map(({ fromDay, toDay, kind }) => ({
          from: fromDay,
          to: toDay ?? until,
          kind: kind === 'job' ? ('job' as const) : ('layUp' as const),
          isHeld: held.has(id),
        })),
      })),
    winters,
    frosts: winter.frosts,
    frostRisk: winter.risk,
    tools: toolRows
      .filter(({ retiredOn, kind }) => retiredOn === null && kind !== 'torqueWrench')
      .map(({ id, name, serves, count }) => ({ id, name, serves, count })),
    stock,
    services: services.map(({ parts, ...service }) => {
      const own = parts?.filter(({ part }) => scarce.has(part)) ?? []
      return own.length > 0 ? { ...service, parts: own } : service
    }),
    visits: visits.flatMap((visit) => {
      const machine = visit.machineNumber === null ? undefined : machineOf.get(visit.machineNumber)
      const {
        id,
        version,
        number,
        day,
        leadId,
        helperIds,
        state,
        winter: kind,
        pinned,
        minutes,
        sheet,
      } = visit
      return machine
        ? [
            {
              id,
              version,
              number,
              machineId: machine.id,
              day,
              leadId,
              state,
              winter: kind,
              minutes,
              movesWithFrost: kind === 'lay' && waiting.has(id),
              helpers: helperIds,
              pinned,
              hasSheet: sheet !== null,
              isWhole: known(visit.services) === known(services.filter(({ visitId }) => visitId === id)),
            },
          ]
        : []
    }),
  }
}

/**
 * Parts of which fewer are free than everything that is due wants, day by day: two visits may not promise each other's
 * last piece. From the day on which what is ordered today comes there is no limit.
 */
function scarceStock(
  book: Book,
  services: readonly FleetService[],
  days: number,
  today: string,
): Fleet['stock'] {
  const wanted = new Map<string, number>()
  for (const { parts, visitId } of services)
    if (visitId === null)
      for (const { part, quantity } of parts ?? []) wanted.set(part, (wanted.get(part) ?? 0) + quantity)
  return [...wanted].flatMap(([part, quantity]) => {
    const stocked = book.parts.get(part)
    if (!stocked || availability(book, { part, quantity, day: today }).missing === 0) return []
    const byDay = Array.from({ length: days }, (_, at) =>
      at >= stocked.leadDays
        ? noLimit
        : availability(book, { part, quantity: 0, day: addDays(today, at) }).free,
    )
    // What later visits have reserved is not free before them.
    for (let at = Math.min(stocked.leadDays, days) - 2; at >= 0; at--)
      byDay[at] = Math.min(byDay[at]!, byDay[at + 1]!)
    return [{ part, name: `${stocked.number} ${stocked.name}`, byDay }]
  })
}

/** More than anybody wants. */
const noLimit = 1e6

/** How many places some services are about. */
const known = (services: { positions: string[] }[]) =>
  services.reduce((sum, { positions }) => sum + positions.length, 0)
