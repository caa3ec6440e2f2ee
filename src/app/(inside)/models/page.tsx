import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { listPumpModels } from '@/services/models'
import { EmptyState } from '@/ui/feedback/States'
import { Page } from '@/ui/frame/Page'
import { ModelsTable } from '@/ui/models/ModelsTable'
import { ModelsTabs } from '@/ui/models/ModelsTabs'
import { PublishModel } from '@/ui/models/PublishModel'
import { PumpModelDialog } from '@/ui/models/PumpModelDialog'
import { requireActor } from '../../access/session'
import { previewPumpModel, publishPumpModel, savePumpModel } from './actions'

export const metadata: Metadata = { title: 'Models' }

export default async function ModelsPage() {
  const actor = await requireActor('/models')
  const models = await listPumpModels(actor)
  const mayEdit = mayDo(actor.role, 'models.edit')
  return (
    <Page
      title="Pump models"
      summary="The makers’ models in the fleet. Each pump is one of them, and every sheet is composed from it."
      actions={
        mayEdit && (
          <>
            <PumpModelDialog save={savePumpModel} />
            <PublishModel
              label="Import a model"
              look="contained"
              preview={previewPumpModel}
              publish={publishPumpModel}
            />
          </>
        )
      }
    >
      <ModelsTabs active="models" />
      {models.length === 0 ? (
        <EmptyState title="No models yet">
          Import a model’s data, or add the models of the pumps you own first: maker, name and what kind of
          pump it is.
        </EmptyState>
      ) : (
        <ModelsTable models={models} mayEdit={mayEdit} save={savePumpModel} />
      )}
    </Page>
  )
}
