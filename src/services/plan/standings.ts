import 'server-only'
import { dueStanding, type AssemblyStanding, type DueStanding, type MachineStanding } from '@/core/plan'
import { derived, kept } from '@/db/house'
import { listAssemblies, listMachines } from '../fleet'
import { groupBy, ourCompany, present, type Actor } from '../house'
import { listOpenSigns } from '../inspection'
import { listWear } from '../wear'
import { listOpenVisits } from './visits'

/** How every machine stands, by its number, and every pump or accessory, by its id; what has nothing has none. */
type Standings = { machines: Map<string, DueStanding>; assemblies: Map<string, DueStanding> }

/** Worst service, next visit and open signs of the whole fleet; what did not change since is not made again. */
async function listStandings(actor: Actor): Promise<Standings> {
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

/** Every machine with how it stands. */
export async function listMachinesStanding(actor: Actor): Promise<MachineStanding[]> {
  const [machines, standings] = await Promise.all([listMachines(actor), listStandings(actor)])
  return derived('machines standing', [machines, standings], () =>
    machines.map((machine) => ({ standing: standings.machines.get(machine.number) ?? null, ...machine })),
  )
}

/** Every pump, drive and accessory with where it is and how it stands. */
export async function listAssembliesStanding(actor: Actor): Promise<AssemblyStanding[]> {
  const [assemblies, standings] = await Promise.all([listAssemblies(actor), listStandings(actor)])
  return derived('assemblies standing', [assemblies, standings], () =>
    assemblies.map((assembly): AssemblyStanding => {
      const { id, number, title, kind, serial, retiredOn, usage, usedSinceTakeOver, usageScale } = assembly
      const { machineId, machineNumber, machineName, yardName, slot } = assembly.place
      return {
        id,
        number,
        title,
        kind,
        serial,
        retiredOn,
        usage,
        usedSinceTakeOver,
        usageScale,
        openingKind: assembly.openingKind,
        place: { machineId, machineNumber, machineName, yardName, slot },
        standing: standings.assemblies.get(id) ?? null,
      }
    }),
  )
}
