import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { nextNumber } from '@/core/fleet'
import { listAssemblies } from '@/services/fleet'
import { getCompany, present } from '@/services/house'
import { listPlaceChoices } from '@/services/stores'
import { listPumpModels } from '@/services/models'
import { NewAssemblyForm } from '@/ui/fleet/AssemblyForm'
import { NotYours } from '@/ui/feedback/NotYours'
import { Page } from '@/ui/frame/Page'
import { requireActor } from '../../../../access/session'
import { addAssembly } from '../../actions'

export const metadata: Metadata = { title: 'Add pump, drive or accessory' }

export default async function NewAssemblyPage() {
  const actor = await requireActor('/fleet/pumps/new')
  const back = { href: '/fleet/pumps', label: 'Pumps and drives' }
  if (!mayDo(actor.role, 'fleet.edit')) return <NotYours title="Add a pump, drive or accessory" back={back} />
  const [company, models, choices, assemblies] = await Promise.all([
    getCompany(actor),
    listPumpModels(actor),
    listPlaceChoices(actor),
    listAssemblies(actor),
  ])
  const numbers = assemblies.map((assembly) => assembly.number)
  return (
    <Page title="Add a pump, drive or accessory" back={back}>
      <NewAssemblyForm
        models={models.map((model) => ({ value: model.id, label: `${model.maker} ${model.name}` }))}
        choices={choices}
        today={present(company).today}
        nextNumber={nextNumber('P', numbers)}
        action={addAssembly}
      />
    </Page>
  )
}
