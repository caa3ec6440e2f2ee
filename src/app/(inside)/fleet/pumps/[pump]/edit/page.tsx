import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getAssembly } from '@/services/fleet'
import { listPumpModels } from '@/services/models'
import { EditAssemblyForm } from '@/ui/fleet/AssemblyForm'
import { NotYours } from '@/ui/feedback/NotYours'
import { Page } from '@/ui/frame/Page'
import { load } from '../../../../../access/act'
import { referenceIn } from '../../../../../access/reference'
import { requireActor } from '../../../../../access/session'
import { saveAssembly } from '../../../actions'

export const metadata: Metadata = { title: 'Edit pump or accessory' }

export default async function EditAssemblyPage({ params }: { params: Promise<{ pump: string }> }) {
  const reference = referenceIn((await params).pump)
  const path = `/fleet/pumps/${encodeURIComponent(reference)}`
  const actor = await requireActor(`${path}/edit`)
  if (!mayDo(actor.role, 'fleet.edit'))
    return <NotYours title={`Edit ${reference}`} back={{ href: path, label: reference }} />
  const [page, models] = await Promise.all([load(getAssembly(actor, reference)), listPumpModels(actor)])
  const {
    id,
    version,
    number,
    kind,
    modelId,
    name,
    serial,
    usageScale,
    openingKind,
    openingUsage,
    takenOverOn,
    note,
  } = page
  return (
    <Page title={`Edit ${number}`} summary={page.title} back={{ href: path, label: number }}>
      <EditAssemblyForm
        assembly={{
          id,
          version,
          number,
          kind,
          modelId,
          name,
          serial,
          usageScale,
          openingKind,
          openingUsage,
          takenOverOn,
          note,
        }}
        models={models.map((model) => ({ value: model.id, label: `${model.maker} ${model.name}` }))}
        action={saveAssembly}
      />
    </Page>
  )
}
