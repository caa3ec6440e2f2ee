import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { showDay } from '@/core/calendar'
import { visitLeads } from '@/core/plan'
import type { WinterYard } from '@/core/winter'
import { getCompany, present } from '@/services/house'
import { listPeople } from '@/services/access'
import { getWinter } from '@/services/winter'
import { EmptyState } from '@/ui/feedback/States'
import { Page, Part } from '@/ui/frame/Page'
import { PrintButton } from '@/ui/stores'
import { AskWeather } from '@/ui/winter/dialogs/AskWeather'
import { BookCampaign } from '@/ui/winter/dialogs/BookCampaign'
import { FrostNightDialog } from '@/ui/winter/dialogs/FrostNightDialog'
import { FluidPanel } from '@/ui/winter/FluidPanel'
import { WhatIfTable } from '@/ui/winter/WhatIfTable'
import { FrostWatch } from '@/ui/winter/FrostWatch'
import { WinterTabs } from '@/ui/winter/WinterTabs'
import { YardPanel } from '@/ui/winter/YardPanel'
import { requireActor } from '../../access/session'
import * as actions from './actions'
import '@/ui/winter/winter.css'

export const metadata: Metadata = { title: 'Winter' }

export default async function WinterPage() {
  const actor = await requireActor('/winter')
  const [winter, company, people] = await Promise.all([
    getWinter(actor),
    getCompany(actor),
    listPeople(actor),
  ])
  const mayPlan = mayDo(actor.role, 'visits.plan')
  const { today } = present(company)
  const { yards, counts, fluid, whatIf, riskPercent } = winter
  const mayWork = mayDo(actor.role, 'sheets.work')
  const watched = yards
    .flatMap(({ rows }) => rows)
    .filter(({ alarm, evening, state }) => alarm !== null || evening?.wanted === true || state === 'exposed')
  return (
    <Page
      title="Winter campaign"
      summary={summary(winter, today)}
      actions={
        <>
          <PrintButton label="Print yard list" />
          {mayPlan && <AskWeather ask={actions.askWeather} />}
          {mayDo(actor.role, 'readings.enter') && yards.length > 0 && (
            <FrostNightDialog
              yards={yards.map(({ id, name }) => ({ value: id, label: name }))}
              today={today}
              save={actions.recordFrost}
            />
          )}
        </>
      }
    >
      <WinterTabs active="campaign" />
      {counts.machines === 0 ? (
        <EmptyState title="No machine yet">
          Add a machine in Fleet first; its circuit then stands here with the litres it holds.
        </EmptyState>
      ) : (
        <div className="stack">
          <FrostWatch
            rows={watched}
            today={today}
            currency={company.currency}
            evening={mayWork ? actions.recordWinter : null}
          />
          <div className="winter-yards">
            {yards.map((yard) => (
              <YardPanel
                key={yard.id}
                yard={yard}
                today={today}
                currency={company.currency}
                riskPercent={riskPercent}
                book={
                  mayPlan && waitingIn(yard) > 0 ? (
                    <BookCampaign
                      // Not the whole yard: all its rows would go along.
                      yard={{ id: yard.id, name: yard.name }}
                      waiting={waitingIn(yard)}
                      technicians={visitLeads(people)}
                      save={actions.bookCampaign}
                    />
                  ) : undefined
                }
              />
            ))}
          </div>
          <FluidPanel fluid={fluid} today={today} currency={company.currency} />
          <Part title="What would change it" aside="each beside how it is">
            <WhatIfTable rows={whatIf} today={today} currency={company.currency} />
          </Part>
        </div>
      )}
    </Page>
  )
}

/** Machines that wait and are on no visit yet. */
const waitingIn = ({ rows }: WinterYard) =>
  rows.filter((row) => row.risk !== null && row.day !== null && row.booked === null).length

function summary({ counts, yards }: Awaited<ReturnType<typeof getWinter>>, today: string): string {
  const { machines, safe, waiting, atRisk, working } = counts
  const words = [
    `${machines} ${machines === 1 ? 'machine' : 'machines'}: ${safe} protected, ${waiting} to do`,
    atRisk > 0 && `${atRisk} at risk`,
    working > 0 && `${working} working on`,
  ]
    .filter(Boolean)
    .join(', ')
  const first = yards.find(({ odds }) => odds.some(({ chance, day }) => chance === 0.5 && day !== null))
  const finish = first?.finish ? `; its crew is done on ${showDay(first.finish, today)}` : ''
  return `${words}.${first ? ` ${first.name} freezes first${finish}.` : ''}`
}
