import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import type { AssemblyView } from '@/core/fleet'
import { listAssemblies } from '@/services/fleet'
import { getCompany, present } from '@/services/house'
import { listStandings, type Standings } from '@/services/plan'
import { EmptyState } from '@/ui/feedback/States'
import { AssembliesTable, type AssemblyLine } from '@/ui/fleet/AssembliesTable'
import { FleetTabs } from '@/ui/fleet/FleetTabs'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Page } from '@/ui/frame/Page'
import { requireActor } from '../../../access/session'

export const metadata: Metadata = { title: 'Pumps and drives' }

export default async function AssembliesPage() {
  const actor = await requireActor('/fleet/pumps')
  const [assemblies, standings, company] = await Promise.all([
    listAssemblies(actor),
    listStandings(actor),
    getCompany(actor),
  ])
  const inService = assemblies.filter((assembly) => !assembly.retiredOn)
  const shelved = inService.filter((assembly) => assembly.place.machineId === null).length
  const mayEdit = mayDo(actor.role, 'fleet.edit')
  return (
    <Page
      title="Fleet"
      summary={`${inService.length} pumps and drives, ${shelved} of them on the shelf.`}
      actions={
        mayEdit && (
          <ButtonLink href="/fleet/pumps/new" filled>
            Add pump, drive or accessory
          </ButtonLink>
        )
      }
    >
      <FleetTabs active="pumps" />
      {assemblies.length === 0 ? (
        <EmptyState
          title="No pumps yet"
          action={mayEdit && <ButtonLink href="/fleet/new">Add a machine with its pump</ButtonLink>}
        >
          A pump is usually added together with its machine. Spare pumps and drives are added here, onto a
          shelf.
        </EmptyState>
      ) : (
        <AssembliesTable
          today={present(company).today}
          assemblies={assemblies.map((assembly) => lineOf(assembly, standings))}
        />
      )}
    </Page>
  )
}

/** What the list tells of an assembly; the rest of it stays behind. */
function lineOf(assembly: AssemblyView, standings: Standings): AssemblyLine {
  const { id, number, title, kind, serial, retiredOn, usage, usedSinceTakeOver, usageScale } = assembly
  return {
    ...{ id, number, title, kind, serial, retiredOn, usage, usedSinceTakeOver, usageScale },
    openingKind: assembly.openingKind,
    place: assembly.place,
    standing: standings.assemblies.get(id) ?? null,
  }
}
