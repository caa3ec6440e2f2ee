import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { getRound } from '@/services/round'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Page } from '@/ui/frame/Page'
import { ReadingRound } from '@/ui/hours/ReadingRound'
import { requireActor } from '../../access/session'
import * as actions from './actions'

export const metadata: Metadata = { title: 'Hours' }

export default async function HoursPage() {
  const actor = await requireActor('/hours')
  const [rows, company] = await Promise.all([getRound(actor), getCompany(actor)])
  if (rows.length === 0)
    return (
      <Page title="Reading round">
        <EmptyState
          title="No meter yet"
          action={<ButtonLink href="/fleet/new">Add the first machine</ButtonLink>}
        >
          Every machine has a meter; the round asks for those that owe a reading, in walking order.
        </EmptyState>
      </Page>
    )
  return (
    <ReadingRound
      start={pack(rows)}
      present={present(company)}
      reader={actor.name}
      mayEnter={mayDo(actor.role, 'readings.enter')}
      actions={actions}
    />
  )
}
