import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { listAssembliesStanding } from '@/services/plan'
import { EmptyState } from '@/ui/feedback/States'
import { AssembliesTable } from '@/ui/fleet/AssembliesTable'
import { FleetTabs } from '@/ui/fleet/FleetTabs'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Page } from '@/ui/frame/Page'
import { requireActor } from '../../../access/session'

export const metadata: Metadata = { title: 'Pumps and drives' }

export default async function AssembliesPage() {
  const actor = await requireActor('/fleet/pumps')
  const [assemblies, company] = await Promise.all([listAssembliesStanding(actor), getCompany(actor)])
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
        <AssembliesTable today={present(company).today} packed={pack(assemblies)} />
      )}
    </Page>
  )
}
