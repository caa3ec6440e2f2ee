import type { Metadata } from 'next'
import { mayDo } from '@/core/people'
import { getPumpModel } from '@/services/pumpModels'
import { EmptyState } from '@/ui/feedback/States'
import { Page } from '@/ui/frame/Page'
import { ModelData } from '@/ui/models/ModelData'
import { PublishDialog } from '@/ui/models/PublishDialog'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import { publishPumpModel } from '../actions'

export const metadata: Metadata = { title: 'Pump model' }

export default async function ModelPage({ params }: { params: Promise<{ model: string }> }) {
  const { model: id } = await params
  const actor = await requireActor(`/models/${id}`)
  const model = await load(getPumpModel(actor, id))
  const version = model.versions[0]?.version ?? 0
  return (
    <Page
      title={`${model.maker} ${model.name}`}
      summary={[model.design, `${model.pumps} pumps in service`, version > 0 && `version ${version}`]
        .filter(Boolean)
        .join(' · ')}
      back={{ href: '/models', label: 'Models' }}
      actions={
        mayDo(actor.role, 'models.edit') && (
          <PublishDialog key={version} modelId={id} next={version + 1} publish={publishPumpModel} />
        )
      }
    >
      {model.newest ? (
        <ModelData model={model.newest} />
      ) : (
        <EmptyState title="No data yet">
          Until its data is published, its pumps have hours but no clocks. The data says which parts wear
          where, how the pump comes apart, and when each service is due.
        </EmptyState>
      )}
    </Page>
  )
}
