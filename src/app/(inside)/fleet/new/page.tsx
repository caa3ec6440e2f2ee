import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { listAssemblies, listYards } from '@/services/fleet'
import { getCompany, present } from '@/services/house'
import { listPumpModels } from '@/services/models'
import { NewMachineForm } from '@/ui/fleet/NewMachineForm'
import { NotYours } from '@/ui/feedback/NotYours'
import { Page } from '@/ui/frame/Page'
import { nextNumber } from '@/core/fleet'
import { requireActor } from '../../../access/session'
import { addMachine } from '../actions'

export const metadata: Metadata = { title: 'Add machine' }

export default async function NewMachinePage() {
  const actor = await requireActor('/fleet/new')
  const back = { href: '/fleet', label: 'Fleet' }
  if (!mayDo(actor.role, 'fleet.edit')) return <NotYours title="Add a machine" back={back} />
  const [company, yards, models, assemblies] = await Promise.all([
    getCompany(actor),
    listYards(actor),
    listPumpModels(actor),
    listAssemblies(actor),
  ])
  return (
    <Page title="Add a machine" back={back} summary="With its meter and its pump, in one go.">
      <NewMachineForm
        yards={yards.map((yard) => ({ value: yard.id, label: yard.name }))}
        models={models.map((model) => ({ value: model.id, label: `${model.maker} ${model.name}` }))}
        units={company.units}
        today={present(company).today}
        nextPumpNumber={nextNumber(
          'P',
          assemblies.map((assembly) => assembly.number),
        )}
        action={addMachine}
      />
    </Page>
  )
}
