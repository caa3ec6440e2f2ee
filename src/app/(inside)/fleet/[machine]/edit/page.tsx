import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany } from '@/services/house'
import { getMachine, listYards } from '@/services/fleet'
import { EditMachineForm } from '@/ui/fleet/EditMachineForm'
import { NotYours } from '@/ui/feedback/NotYours'
import { Page } from '@/ui/frame/Page'
import { load } from '../../../../access/act'
import { referenceIn } from '../../../../access/reference'
import { requireActor } from '../../../../access/session'
import { saveMachine } from '../../actions'

export const metadata: Metadata = { title: 'Edit machine' }

export default async function EditMachinePage({ params }: { params: Promise<{ machine: string }> }) {
  const reference = referenceIn((await params).machine)
  const path = `/fleet/${encodeURIComponent(reference)}`
  const actor = await requireActor(`${path}/edit`)
  if (!mayDo(actor.role, 'fleet.edit'))
    return <NotYours title={`Edit ${reference}`} back={{ href: path, label: reference }} />
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
