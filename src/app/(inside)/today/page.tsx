import type { Metadata } from 'next'
import { addDays, showLongDay } from '@/core/calendar'
import type { ClockView } from '@/core/wear/views'
import { mayDo } from '@/core/people'
import { getCompany, present } from '@/services/company'
import { listMachines } from '@/services/fleet'
import { listStock } from '@/services/stores'
import { listWear } from '@/services/wear'
import { listOpenVisits } from '@/services/visits'
import { listMarks } from '@/services/marks'
import { listPeople } from '@/services/people'
import { listYards } from '@/services/yards'
import { visitFor } from '@/ui/plan/bookable'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Page } from '@/ui/frame/Page'
import { TodayList } from '@/ui/today/TodayList'
import { requireActor } from '../../access/session'
import * as actions from './actions'

export const metadata: Metadata = { title: 'Today' }

export default async function TodayPage() {
  const actor = await requireActor('/today')
  const [company, wear, machines, open, stock, yards, marks, people] = await Promise.all([
    getCompany(actor),
    listWear(actor),
    listMachines(actor),
    listOpenVisits(actor),
    listStock(actor),
    listYards(actor),
    listMarks(actor),
    listPeople(actor),
  ])
  const { today } = present(company)
  const due = wear.flatMap((view) =>
    view.clocks.filter((clock) => wantsDeciding(clock, today)).map((clock) => ({ view, clock })),
  )
  const past = due.filter(({ clock }) => clock.share > 1).length
  const owing = machines.filter((machine) => machine.owesReading)
  const doubtful = machines.filter((machine) => machine.doubts > 0 && !machine.retiredOn)
  return (
    <Page
      title={showLongDay(today)}
      actions={<ButtonLink href="/today/list">Due list</ButtonLink>}
      summary={summary(past, due.length - past, owing.length, doubtful.length)}
    >
      {machines.length === 0 ? (
        <EmptyState
          title="Nothing to do yet"
          action={<ButtonLink href="/fleet/new">Add the first machine</ButtonLink>}
        >
          Today fills itself from the fleet: services that come due, meters to read, readings in doubt.
        </EmptyState>
      ) : (
        <TodayList
          due={due.map((item) => ({ ...item, visit: visitFor(item.view, item.clock, open) }))}
          visits={open.filter((visit) => visit.day <= today)}
          owing={owing}
          doubtful={doubtful}
          parts={stock.filter(
            (part) => !part.retiredOn && (part.short > 0 || part.missing > 0 || part.below),
          )}
          yards={yards}
          marks={marks}
          people={
            mayDo(actor.role, 'visits.plan')
              ? people
                  .filter((person) => person.role !== 'viewer' && !person.retiredOn)
                  .map((person) => ({ value: person.id, label: person.name }))
              : null
          }
          actions={actions}
          today={today}
        />
      )}
    </Page>
  )
}

/** Inside its tolerance or past it, or so far from its parts that it has to be decided this week. */
function wantsDeciding(clock: ClockView, today: string): boolean {
  return (
    clock.state !== 'healthy' ||
    (clock.lastResponsibleDay !== null && clock.lastResponsibleDay <= addDays(today, 7))
  )
}

function summary(past: number, soon: number, owing: number, doubtful: number): string {
  const count = (number: number, one: string, many: string) =>
    `${number === 0 ? 'No' : number} ${number === 1 ? one : many}`
  const parts = [
    `${count(past, 'service is', 'services are')} past the limit, ${count(soon, 'comes', 'come').toLowerCase()} due soon.`,
    `${count(owing, 'machine owes', 'machines owe')} a reading.`,
  ]
  if (doubtful > 0) parts.push(`${count(doubtful, 'machine has', 'machines have')} a reading in doubt.`)
  return parts.join(' ')
}
