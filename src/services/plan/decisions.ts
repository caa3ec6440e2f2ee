import 'server-only'
import {
  bookable,
  isOpen,
  mergedItems,
  openDecisionSchema,
  weighSchema,
  weighVisit,
  type DecidedService,
  type DecisionPage,
  type OpenDecisionInput,
  type VisitLine,
  type WeighInput,
  type WeighedDecision,
} from '@/core/plan'
import { check, invalid, notFound } from '@/core/problem'
import { machines } from '@/db/fleet'
import { ourCompany, present, requirePermission, type Actor } from '../house'
import { companyPractices } from '../practices'
import { composeOrRefuse, placeAndItems, unitsOf } from '../composing'
import { loadBook, missingFor, modelsOfVersions } from '../stores'
import { listWear } from '../wear'
import { loadFleet } from './fleet'
import { heldWords } from '../winter'
import { readServices } from './services'
import { loadCrew } from './terms'
import { listOpenVisits } from './visits'

/** Plans look so many weeks ahead for a day. */
const weeksAhead = 26

/** Everything that can be decided about a machine: its services, and the visits that may be changed. */
export async function openDecision(actor: Actor, input: OpenDecisionInput): Promise<DecisionPage> {
  requirePermission(actor, 'visits.plan')
  const { machineId } = check(openDecisionSchema, input)
  const [machine, wear, open, crew, company, held] = await Promise.all([
    machines.byId(machineId),
    listWear(actor),
    listOpenVisits(actor),
    loadCrew(),
    ourCompany(),
    heldWords(actor, machineId),
  ])
  if (!machine) throw notFound('This machine')
  const own = open.filter((visit) => visit.machineNumber === machine.number)
  const views = wear.filter((view) => view.machineNumber === machine.number && view.started)
  const changeable = own.filter((visit) => whyPinned(visit) === null)
  return {
    held,
    machine: { id: machine.id, number: machine.number, name: machine.name },
    services: views.flatMap((view): DecidedService[] => [
      ...bookable(view, own)
        .filter(({ booked }) => booked === null)
        .map((clock) => ({ ...clock, visitId: null })),
      ...changeable.flatMap((visit) =>
        visit.services
          .filter(({ assemblyId }) => assemblyId === view.assemblyId)
          .flatMap((service): DecidedService[] =>
            view.clocks
              .filter(({ task }) => task === service.task)
              .flatMap((clock) => {
                const positions = service.positions.filter((each) => clock.positions.includes(each))
                return positions.length === 0
                  ? []
                  : [
                      {
                        ...clock,
                        positions,
                        where: positions.length === clock.positions.length ? clock.where : service.where,
                        assemblyId: view.assemblyId,
                        pump: view.number,
                        unit: view.unit,
                        booked: null,
                        positionNames: view.positionNames,
                        visitId: visit.id,
                      },
                    ]
              }),
          ),
      ),
    ]),
    visits: changeable.map(({ id, version, number, day, leadId, services }) => ({
      ...{ id, version, number, day, leadId },
      items: services.map(({ assemblyId, task, positions }) => ({ assemblyId, task, positions })),
    })),
    pinned: own.flatMap((visit) => {
      const says = whyPinned(visit)
      return says === null ? [] : [{ number: visit.number, day: visit.day, says }]
    }),
    technicians: crew.map(({ id, name }) => ({ value: id, label: name })),
    today: present(company).today,
  }
}

/** Why a visit is not changed by giving its services to another; null where it may be. */
function whyPinned({ sheet, state, winter }: VisitLine): string | null {
  if (sheet !== null) return 'its sheet is open'
  if (winter !== '') return 'it makes the machine safe for winter, or brings it back'
  return state === 'booked' && isOpen(state) ? null : 'it is approved'
}

/** What the chosen services take together, and the best or the asked day for them. */
export async function weighDecision(actor: Actor, input: WeighInput): Promise<WeighedDecision> {
  requirePermission(actor, 'visits.plan')
  const { machineId, visitId, items, day, leadId, helperId = null } = check(weighSchema, input)
  const machine = await machines.byId(machineId)
  if (!machine) throw notFound('This machine')
  const { today } = present(await ourCompany())
  const [fleet, wear, reads, placed] = await Promise.all([
    loadFleet(actor, weeksAhead),
    listWear(actor),
    readServices(),
    placeAndItems(mergedItems(items)),
  ])
  if (placed.place.machineId !== machineId)
    throw invalid({ items: `A pump of these services is not on ${machine.number} any more.` })
  const services = placed.items.flatMap(({ assemblyId, task, positions }) => {
    const view = wear.find((each) => each.assemblyId === assemblyId)
    return (view?.clocks ?? [])
      .filter((clock) => clock.task === task)
      .flatMap((clock) => {
        const own = positions.filter((position) => clock.positions.includes(position))
        return own.length > 0 ? (reads.one(view!, clock, machineId, own, today) ?? []) : []
      })
  })
  const weighed = await weighVisit(fleet, { machineId, services, visitId, day, leadId, helperId })
  const onDay = weighed.place?.day ?? today
  return { ...weighed, parts: await partsFor(placed.items, onDay, visitId) }
}

/** What the services use, and what of it would be missing on a day. */
async function partsFor(
  items: Awaited<ReturnType<typeof placeAndItems>>['items'],
  day: string,
  visitId: string | null,
): Promise<WeighedDecision['parts']> {
  const [book, modelOf, units, practices] = await Promise.all([
    loadBook(),
    modelsOfVersions(items.map(({ modelVersionId }) => modelVersionId)),
    unitsOf(items),
    companyPractices(),
  ])
  return composeOrRefuse(items, units, practices).parts.map(({ assemblyId, name, part, quantity, unit }) => {
    const version = items.find((item) => item.assemblyId === assemblyId)?.modelVersionId
    const modelId = modelOf.get(version ?? '')
    const found = modelId ? missingFor(book, { modelId, part, quantity }, day, visitId ?? undefined) : null
    return { name, quantity, unit, missing: found?.missing ?? 0, arrives: found?.earliestDay ?? null }
  })
}
