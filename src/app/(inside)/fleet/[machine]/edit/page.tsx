import type { Metadata } from 'next'
import { getCompany } from '@/services/company'
import { getMachine } from '@/services/fleet'
import { listYards } from '@/services/yards'
import { EditMachineForm } from '@/ui/fleet/EditMachineForm'
import { Page } from '@/ui/frame/Page'
import { load } from '../../../../access/act'
import { requireActor } from '../../../../access/session'
import { saveMachine } from '../../actions'

export const metadata: Metadata = { title: 'Edit machine' }

export default async function EditMachinePage({ params }: { params: Promise<{ machine: string }> }) {
  const reference = decodeURIComponent((await params).machine)
  const path = `/fleet/${encodeURIComponent(reference)}`
  const actor = await requireActor(`${path}/edit`)
  const [page, yards, company] = await Promise.all([
    load(getMachine(actor, reference)),
    listYards(actor),
    getCompany(actor),
  ])
  const { meters: _meters, fitted: _fitted, past: _past, changes: _changes, ...machine } = page
  return (
    <Page
      title={`Edit ${machine.number}`}
      summary={machine.name}
      back={{ href: path, label: machine.number }}
    >
      <EditMachineForm
        machine={machine}
        yards={yards.map((yard) => ({ value: yard.id, label: yard.name }))}
        units={company.units}
        action={saveMachine}
      />
    </Page>
  )
}
