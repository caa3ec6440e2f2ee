import type { Metadata } from 'next'
import { addDays, isDay, showLongDay } from '@/core/calendar'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { dayLists, goingOn, listOpenVisits } from '@/services/plan'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Link } from '@/ui/frame/Link'
import { Page } from '@/ui/frame/Page'
import { PlanTabs } from '@/ui/plan'
import { ApproveVisits } from '@/ui/plan/Approve'
import { DayList } from '@/ui/plan/DayList'
import { PrintButton } from '@/ui/stores/PrintButton'
import { requireActor } from '../../../access/session'
import { approveVisits } from '../actions'

export const metadata: Metadata = { title: 'Day’s list' }

/** So far ahead days are offered on which something goes on. */
const daysAhead = 60

type Params = { searchParams: Promise<{ day?: string | string[]; lead?: string | string[] }> }

export default async function DayPage({ searchParams }: Params) {
  const actor = await requireActor('/plan/day')
  const { day: asked, lead } = await searchParams
  const [company, open] = await Promise.all([getCompany(actor), listOpenVisits(actor)])
  const { today } = present(company)
  const next = open.find((visit) => visit.day >= today)?.day ?? today
  const day = typeof asked === 'string' && isDay(asked) ? asked : next
  const [all, going] = await Promise.all([
    dayLists(actor, day),
    goingOn(open, today, addDays(today, daysAhead)),
  ])
  const shown = all.filter(({ leadId }) => typeof lead !== 'string' || lead === '' || leadId === lead)
  const wanted = [...open, ...going].map((each) => each.day).filter((each) => each >= today)
  const days = [...new Set([day, ...wanted])].sort().slice(0, 10)
  const waiting = shown.flatMap(({ visits, doubts }) =>
    visits
      .filter(({ visit }) => visit.state === 'booked' && day >= today)
      .map(({ visit }) => ({
        reference: { id: visit.id, version: visit.version },
        doubts: (doubts[visit.id] ?? []).map((words) => `${visit.machineNumber ?? ''}: ${words}`),
      })),
  )
  const query = (leadId: string) => `/plan/day?day=${day}${leadId === '' ? '' : `&lead=${leadId}`}`
  return (
    <Page
      title={`Day’s list, ${showLongDay(day)}`}
      summary={
        all.length === 0
          ? 'No visit on this day.'
          : 'What each van takes along: everything once, parts for each visit, in the order in which it is loaded.'
      }
      actions={
        shown.length > 0 && (
          <>
            {waiting.length > 0 && mayDo(actor.role, 'visits.plan') && (
              <ApproveVisits
                visits={waiting.map(({ reference }) => reference)}
                doubts={waiting.flatMap(({ doubts }) => doubts)}
                label={waiting.length === 1 ? 'Approve it' : `Approve ${waiting.length} visits`}
                approve={approveVisits}
              />
            )}
            <PrintButton label="Print" />
          </>
        )
      }
    >
      <PlanTabs active="day" />
      <nav className="filters no-print" aria-label="Days with visits">
        {days.map((each) => (
          <Link
            key={each}
            href={`/plan/day?day=${each}`}
            className="filter-chip"
            aria-current={each === day ? 'page' : undefined}
          >
            {showLongDay(each)}
          </Link>
        ))}
      </nav>
      {all.length > 1 && (
        <nav className="filters no-print" aria-label="Technicians">
          {[{ leadId: '', lead: 'Everybody' }, ...all].map(({ leadId, lead: name }) => (
            <Link
              key={leadId}
              href={query(leadId)}
              className="filter-chip"
              aria-current={(typeof lead === 'string' ? lead : '') === leadId ? 'page' : undefined}
            >
              {name}
            </Link>
          ))}
        </nav>
      )}
      <div className="stack">
        {shown.length === 0 ? (
          <EmptyState
            title="No visit on this day"
            action={<ButtonLink href={`/plan?week=${day}`}>Plan</ButtonLink>}
          >
            Choose a day above on which visits are booked, or book one from Today or the horizon.
          </EmptyState>
        ) : (
          shown.map((own) => <DayList key={own.leadId} own={own} today={today} />)
        )}
      </div>
    </Page>
  )
}
