import type { Metadata } from 'next'
import { addDays, isDay, showLongDay } from '@/core/calendar'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { listOpenVisits, pickListsOfDay } from '@/services/plan'
import { listOldParts, pickedForNothing } from '@/services/stores'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Link } from '@/ui/frame/Link'
import { Page, Part } from '@/ui/frame/Page'
import { OldParts } from '@/ui/stores/OldParts'
import { PickList } from '@/ui/stores/PickList'
import { PickedForNothing } from '@/ui/stores/PickedForNothing'
import { PrintButton } from '@/ui/stores/PrintButton'
import { StoresTabs } from '@/ui/stores/StoresTabs'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'

export const metadata: Metadata = { title: 'Pick lists' }

type Params = { searchParams: Promise<{ day?: string }> }

export default async function PicksPage({ searchParams }: Params) {
  const actor = await requireActor('/stores/picks')
  const { day: asked } = await searchParams
  const [company, open, old, left] = await Promise.all([
    getCompany(actor),
    listOpenVisits(actor),
    listOldParts(actor),
    pickedForNothing(actor),
  ])
  const { today } = present(company)
  const next = open.find((visit) => visit.day >= today)?.day ?? today
  const day = asked !== undefined && isDay(asked) ? asked : next
  const lists = await pickListsOfDay(actor, day)
  const mayPick = mayDo(actor.role, 'stores.count')
  const days = [...new Set(open.map((visit) => visit.day))]
    .filter((each) => each >= addDays(today, -7))
    .slice(0, 8)
  return (
    <Page
      title={`Pick lists, ${showLongDay(day)}`}
      summary={`${lists.length} ${lists.length === 1 ? 'visit' : 'visits'}. Loose and left-over pieces first, then kits; the earlier visit takes first.`}
      actions={lists.length > 0 && <PrintButton label="Print the day’s lists" />}
    >
      <StoresTabs active="picks" />
      <nav className="filters no-print" aria-label="Days with visits">
        {[...new Set([day, ...days])].sort().map((each) => (
          <Link
            key={each}
            href={`/stores/picks?day=${each}`}
            className="filter-chip"
            aria-current={each === day ? 'page' : undefined}
          >
            {showLongDay(each)}
          </Link>
        ))}
      </nav>
      <div className="stack">
        {lists.length === 0 ? (
          <EmptyState title="No visit on this day" action={<ButtonLink href="/plan">Plan</ButtonLink>}>
            Choose a day above on which visits are booked, or book one.
          </EmptyState>
        ) : (
          lists.map((list) => (
            <PickList
              key={list.visitId}
              list={list}
              today={today}
              pick={mayPick ? actions.pickForVisit : null}
              move={mayPick ? actions.moveByHand : null}
            />
          ))
        )}
        {left.length > 0 && (
          <Part title="Picked, and not wanted any more" aside="their visits are done or called off">
            <PickedForNothing lines={left} move={mayPick ? actions.moveByHand : null} />
          </Part>
        )}
        {old.length > 0 && (
          <Part title="Old parts kept" aside="until the job is closed or the claim is settled">
            <OldParts parts={old} today={today} end={mayPick ? actions.endOldPart : null} />
          </Part>
        )}
      </div>
    </Page>
  )
}
