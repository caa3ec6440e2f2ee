import type { Metadata } from 'next'
import { showLongDay } from '@/core/calendar'
import { mayDo } from '@/core/access'
import type { TodayRow, TodayView } from '@/core/today'
import { visitLeads } from '@/core/plan'
import { getCompany, present } from '@/services/house'
import { listPeople } from '@/services/access'
import { getToday } from '@/services/today'
import { listYards } from '@/services/fleet'
import { frostWatch } from '@/services/winter'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Page } from '@/ui/frame/Page'
import { TodayList } from '@/ui/today/TodayList'
import { FrostWatch } from '@/ui/winter'
import { requireActor } from '../../access/session'
import { openDecision, takePlan, weighDecision } from '../plan/actions'
import { recordWinter } from '../winter/actions'
import * as actions from './actions'

export const metadata: Metadata = { title: 'Today' }

export default async function TodayPage() {
  const actor = await requireActor('/today')
  const [company, view, yards, people, frost] = await Promise.all([
    getCompany(actor),
    getToday(actor),
    listYards(actor),
    listPeople(actor),
    frostWatch(),
  ])
  const { today } = present(company)
  const empty = yards.every((yard) => yard.machines === 0)
  return (
    <Page
      title={showLongDay(today)}
      actions={<ButtonLink href="/today/list">Due list</ButtonLink>}
      summary={summary(view)}
    >
      {empty ? (
        <EmptyState
          title="Nothing to do yet"
          action={<ButtonLink href="/fleet/new">Add the first machine</ButtonLink>}
        >
          Today fills itself from the fleet: services that come due, meters to read, readings in doubt.
        </EmptyState>
      ) : (
        <>
          <FrostWatch
            brief
            rows={frost}
            today={today}
            currency={company.currency}
            evening={mayDo(actor.role, 'sheets.work') ? recordWinter : null}
          />
          <TodayList
            packed={pack(view)}
            yards={yards}
            people={mayDo(actor.role, 'visits.plan') ? visitLeads(people) : null}
            maySettle={mayDo(actor.role, 'signs.report')}
            plan={
              mayDo(actor.role, 'visits.plan')
                ? { openDecision, weighDecision, takePlan, currency: company.currency }
                : null
            }
            actions={actions}
            today={today}
          />
        </>
      )}
    </Page>
  )
}

function summary({ rows, booked }: TodayView): string {
  const count = (number: number, one: string, many: string) => `${number} ${number === 1 ? one : many}`
  // A sentence each, and none about what is not there.
  const told = (number: number, one: string, many: string) =>
    number > 0 ? `${count(number, one, many)}.` : ''
  const services = rows.flatMap((row) =>
    row.kind === 'bundle'
      ? row.bundle.services.flatMap(({ clock, standing }) => (standing ? [clock] : []))
      : [],
  )
  const past = services.filter((clock) => clock.share > 1).length
  const of = (kind: TodayRow['kind']) => rows.filter((row) => row.kind === kind).length
  const signs = of('sign') + services.filter((clock) => clock.signs.length > 0).length
  const decide = of('bundle')
  const inHand = booked.reduce((sum, { services: own }) => sum + own.length, 0)
  return [
    told(decide, 'visit to decide', 'visits to decide'),
    services.length === 0
      ? 'No service is past its limit or near it.'
      : past === 0
        ? told(services.length, 'service comes due soon', 'services come due soon')
        : services.length === past
          ? told(past, 'service is past its limit', 'services are past their limit')
          : `${count(past, 'service is past its limit', 'services are past their limit')}, ${services.length - past} ${services.length - past === 1 ? 'comes' : 'come'} due soon.`,
    inHand > 0
      ? `${count(inHand, 'service is', 'services are')} booked on ${count(booked.length, 'visit', 'visits')}.`
      : '',
    told(of('slip'), 'booked visit no longer fits', 'booked visits no longer fit'),
    told(signs, 'sign stands open', 'signs stand open'),
    of('reading') > 0
      ? told(of('reading'), 'machine owes a reading', 'machines owe a reading')
      : 'Every meter is freshly read.',
    told(of('doubt'), 'machine has a reading in doubt', 'machines have a reading in doubt'),
  ]
    .filter(Boolean)
    .join(' ')
}
