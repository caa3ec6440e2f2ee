import 'server-only'
import { dueStanding, type DueStanding } from '@/core/plan'
import { derived, kept } from '@/db/house'
import { groupBy, ourCompany, present, type Actor } from '../house'
import { listOpenSigns } from '../inspection'
import { listWear } from '../wear'
import { listOpenVisits } from './visits'

/** How every machine stands, by its number, and every pump or accessory, by its id; what has nothing has none. */
export type Standings = { machines: Map<string, DueStanding>; assemblies: Map<string, DueStanding> }

/** Worst service, next visit and open signs of the whole fleet; what did not change since is not made again. */
export async function listStandings(actor: Actor): Promise<Standings> {
  const { today } = present(await ourCompany())
  return kept(`standings ${today}`, () => loadStandings(actor, today))
}

async function loadStandings(actor: Actor, today: string): Promise<Standings> {
  const [wear, visits, signs] = await Promise.all([
    listWear(actor),
    listOpenVisits(actor),
    listOpenSigns(actor),
  ])
  return derived(`standings`, [wear, visits, signs, today], () => {
    const running = wear.filter((view) => view.started)
    const viewsOn = groupBy(running, (view) => view.machineNumber ?? '')
    const visitsTo = groupBy(visits, (visit) => visit.machineNumber ?? '')
    const signsOn = groupBy(signs, (sign) => sign.machineNumber ?? '')
    const machines = new Set([...viewsOn.keys(), ...visitsTo.keys(), ...signsOn.keys()])
    machines.delete('')
    const visitsOf = groupBy(
      visits.flatMap((visit) =>
        [...new Set(visit.services.map(({ assemblyId }) => assemblyId))].map((id) => ({ id, visit })),
      ),
      ({ id }) => id,
    )
    const signsOf = groupBy(signs, (sign) => sign.assemblyId ?? '')
    const assemblies = new Set([...running.map(({ assemblyId }) => assemblyId), ...visitsOf.keys()])
    for (const id of signsOf.keys()) if (id !== '') assemblies.add(id)
    const viewOf = groupBy(running, (view) => view.assemblyId)
    return {
      machines: new Map(
        [...machines].map((number) => [
          number,
          dueStanding(
            viewsOn.get(number) ?? [],
            visitsTo.get(number) ?? [],
            signsOn.get(number) ?? [],
            today,
          ),
        ]),
      ),
      assemblies: new Map(
        [...assemblies].map((id) => [
          id,
          dueStanding(
            viewOf.get(id) ?? [],
            (visitsOf.get(id) ?? []).map(({ visit }) => visit),
            signsOf.get(id) ?? [],
            today,
          ),
        ]),
      ),
    }
  })
}
