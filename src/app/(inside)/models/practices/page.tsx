import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { getPractices } from '@/services/practices'
import { Page } from '@/ui/frame/Page'
import { ModelsTabs } from '@/ui/models/ModelsTabs'
import { PracticeList } from '@/ui/practices/PracticeList'
import { requireActor } from '../../../access/session'
import { choosePractice } from '../actions'

export const metadata: Metadata = { title: 'Practices' }

export default async function PracticesPage() {
  const actor = await requireActor('/models/practices')
  const [{ practices, models }, company] = await Promise.all([getPractices(actor), getCompany(actor)])
  return (
    <Page
      title="Practices"
      summary="Where good workshops differ. The company chooses, a model may have its own, and the maker’s manual wins."
    >
      <ModelsTabs active="practices" />
      <PracticeList
        practices={practices}
        models={models}
        today={present(company).today}
        choose={mayDo(actor.role, 'models.edit') ? choosePractice : null}
      />
    </Page>
  )
}
