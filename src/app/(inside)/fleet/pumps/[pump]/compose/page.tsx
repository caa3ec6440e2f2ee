import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getAssembly } from '@/services/fleet'
import { getCompany, present } from '@/services/house'
import { getComposePage, listOpenVisits } from '@/services/plan'
import { listPeople } from '@/services/access'
import { getWear } from '@/services/wear'
import { ComposeBench } from '@/ui/composing/ComposeBench'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Page } from '@/ui/frame/Page'
import { leastBusy, visitLeads } from '@/core/plan'
import { load } from '../../../../../access/act'
import { referenceIn } from '../../../../../access/reference'
import { requireActor } from '../../../../../access/session'
import { bookVisit } from '../../../../plan/actions'

type Params = { params: Promise<{ pump: string }> }

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Compose work on ${referenceIn((await params).pump)}` }
}

export default async function ComposeWork({ params }: Params) {
  const reference = referenceIn((await params).pump)
  const path = `/fleet/pumps/${encodeURIComponent(reference)}`
  const actor = await requireActor(`${path}/compose`)
  const [assembly, company] = await Promise.all([load(getAssembly(actor, reference)), getCompany(actor)])
  const { today } = present(company)
  const wear = await getWear(actor, assembly.id)
  const [page, people, open] = await Promise.all([
    wear && getComposePage(actor, wear),
    listPeople(actor),
    listOpenVisits(actor),
  ])
  return (
    <Page
      title={`Compose work on ${assembly.number}`}
      summary={[
        assembly.title,
        assembly.place.machineNumber
          ? `on ${assembly.place.machineNumber} ${assembly.place.machineName}`
          : 'on the shelf',
      ].join(' · ')}
      back={{ href: path, label: assembly.number }}
    >
      {wear && page ? (
        <ComposeBench
          pump={{ id: assembly.id, number: assembly.number }}
          packed={pack({ page, wear })}
          today={today}
          booking={
            mayDo(actor.role, 'visits.plan') && !assembly.retiredOn
              ? {
                  technicians: visitLeads(people),
                  suggestedLead: leastBusy(people, open, today),
                  book: bookVisit,
                }
              : null
          }
        />
      ) : (
        <EmptyState
          title="Its model has no data yet"
          action={<ButtonLink href="/models">To the models</ButtonLink>}
        >
          Work is composed from the model’s data: how the pump comes apart, what each service takes. Publish
          it under Models first.
        </EmptyState>
      )}
    </Page>
  )
}
