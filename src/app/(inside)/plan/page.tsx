import type { Metadata } from 'next'
import { addDays, dayNumber, isDay, showDay, showLongDay } from '@/core/calendar'
import { showMinutes } from '@/core/plan'
import { getCompany, present } from '@/services/house'
import { goingOn, listOpenVisits, listVisits } from '@/services/plan'
import { Note } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Page, Part } from '@/ui/frame/Page'
import { PlanTabs } from '@/ui/plan'
import { GoingOn } from '@/ui/plan/GoingOn'
import { VisitList } from '@/ui/plan/VisitList'
import { requireActor } from '../../access/session'

export const metadata: Metadata = { title: 'Plan' }

export default async function PlanPage({
  searchParams,
}: {
  searchParams: Promise<{ week?: string | string[] }>
}) {
  const actor = await requireActor('/plan')
  const { today } = present(await getCompany(actor))
  const { week } = await searchParams
  const monday = mondayOf(typeof week === 'string' && isDay(week) ? week : today)
  const days = Array.from({ length: 7 }, (_, index) => addDays(monday, index))
  const [visits, open] = await Promise.all([
    listVisits(actor, { from: monday, to: days[6]! }),
    listOpenVisits(actor),
  ])
  const going = await goingOn(open, monday, days[6]!)
  const late = open.filter((visit) => visit.late)
  const minutes = visits.reduce((sum, visit) => sum + visit.minutes, 0)
  return (
    <Page
      title={`Week of ${showDay(monday, today)}`}
      summary={`${visits.length} ${visits.length === 1 ? 'visit' : 'visits'}${visits.length > 0 ? `, ${showMinutes(minutes)} of work` : ''}. ${open.length} open in all. Visits are booked on a pump’s page or from Today.`}
      actions={
        <>
          <ButtonLink href={`/plan?week=${addDays(monday, -7)}`}>Earlier</ButtonLink>
          <ButtonLink href="/plan">This week</ButtonLink>
          <ButtonLink href={`/plan?week=${addDays(monday, 7)}`}>Later</ButtonLink>
        </>
      }
    >
      <PlanTabs active="week" />
      <div className="stack narrow-page">
        {late.length > 0 && (
          <Note
            tone="brass"
            title={
              late.length === 1 ? 'One visit’s day has passed.' : `${late.length} visits’ days have passed.`
            }
          >
            Move each to another day or cancel it.
            <VisitList visits={late} today={today} />
          </Note>
        )}
        {days.map((day) => {
          const own = visits.filter((visit) => visit.day === day)
          const goes = going.filter((each) => each.day === day)
          return (
            <Part key={day} title={showLongDay(day)} aside={day === today ? 'today' : undefined}>
              {goes.length > 0 && <GoingOn visits={goes} today={today} />}
              {own.length > 0 && <VisitList visits={own} today={today} withDay={false} />}
              {own.length + goes.length === 0 && <p className="second">Nothing booked.</p>}
            </Part>
          )
        })}
      </div>
    </Page>
  )
}

function mondayOf(day: string): string {
  return addDays(day, -((dayNumber(day) + 3) % 7))
}
