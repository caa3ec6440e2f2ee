import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany } from '@/services/house'
import { listYards } from '@/services/fleet'
import { loadFleet } from '@/services/plan'
import { getWinter } from '@/services/winter'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Page } from '@/ui/frame/Page'
import { pack } from '@/ui/frame/packed'
import { PlanTabs } from '@/ui/plan'
import { HorizonBoard } from '@/ui/plan/horizon/HorizonBoard'
import { requireActor } from '../../../access/session'
import { approveVisits, openDecision, pinVisit, takePlan, weighDecision } from '../actions'

export const metadata: Metadata = { title: 'Horizon' }

const zooms = [2, 6, 12, 26, 52]

export default async function HorizonPage({
  searchParams,
}: {
  searchParams: Promise<{ weeks?: string | string[] }>
}) {
  const actor = await requireActor('/plan/horizon')
  const { weeks: asked } = await searchParams
  const weeks = zooms.includes(Number(asked)) ? Number(asked) : 12
  const [fleet, company, yards, winter] = await Promise.all([
    loadFleet(actor, weeks),
    getCompany(actor),
    listYards(actor),
    getWinter(actor),
  ])
  const due = fleet.services.filter(({ visitId }) => visitId === null)
  return (
    <Page
      title="Horizon"
      summary={`${due.filter(({ isOver }) => isOver).length} services past their limit and ${due.filter(({ isOver }) => !isOver).length} due in ${weeks} weeks are on no visit; ${fleet.visits.length} visits are booked.`}
      actions={zooms.map((zoom) => (
        <ButtonLink key={zoom} href={`/plan/horizon?weeks=${zoom}`} filled={zoom === weeks}>
          {zoom} wk
        </ButtonLink>
      ))}
    >
      <PlanTabs active="horizon" />
      {fleet.machines.length === 0 ? (
        <EmptyState title="No machine yet">
          Add a machine in Fleet, and start the clocks of its pump.
        </EmptyState>
      ) : (
        <HorizonBoard
          packed={pack(fleet)}
          yards={yards.map(({ id, name }) => ({ id, name }))}
          frost={winter.yards.map(({ id, odds }) => ({
            yardId: id,
            odds: odds.flatMap(({ chance, day }) => (day === null ? [] : [{ chance, day }])),
          }))}
          currency={company.currency}
          mayPlan={mayDo(actor.role, 'visits.plan')}
          take={takePlan}
          decide={{ openDecision, weighDecision, takePlan }}
          approve={approveVisits}
          pin={pinVisit}
        />
      )}
    </Page>
  )
}
