import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { showDay } from '@/core/calendar'
import { qualificationNames, qualifications } from '@/core/models'
import { showMinutes, weekdayNames } from '@/core/plan'
import { getCompany, present } from '@/services/house'
import { listYards } from '@/services/fleet'
import { getPlanTerms, loadCrew } from '@/services/plan'
import { EmptyState } from '@/ui/feedback/States'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { PlanTabs } from '@/ui/plan'
import { CrewDialog, PlanTermsDialog } from '@/ui/plan/CrewDialogs'
import { HeadCell, RowHead, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'

export const metadata: Metadata = { title: 'Crew and terms' }

export default async function CrewPage() {
  const actor = await requireActor('/plan/crew')
  const [crew, terms, yardRows, company] = await Promise.all([
    loadCrew(),
    getPlanTerms(actor),
    listYards(actor),
    getCompany(actor),
  ])
  const { today } = present(company)
  const yards = yardRows.map(({ id, name }) => ({ value: id, label: name }))
  const yardName = (id: string | null) => yards.find(({ value }) => value === id)?.label
  const mayPlan = mayDo(actor.role, 'visits.plan')
  const unsaid = crew.filter(({ isKnown }) => !isKnown).length
  const money = (amount: string) => `${amount} ${company.currency}`
  return (
    <Page
      title="Crew and terms"
      summary={`${crew.length} technicians.${unsaid > 0 ? ` Of ${unsaid} nobody has said when they work: Monday to Friday, eight hours, for any work (ours).` : ''}`}
      actions={
        mayPlan && (
          <PlanTermsDialog
            terms={terms}
            yards={yards}
            currency={company.currency}
            save={actions.savePlanTerms}
          />
        )
      }
    >
      <PlanTabs active="crew" />
      <div className="stack">
        {crew.length === 0 ? (
          <EmptyState title="Nobody to plan yet">Add technicians under Settings, People.</EmptyState>
        ) : (
          <div className="scrolls">
            <Table>
              <TableHead>
                <TableRow>
                  <HeadCell>Technician</HeadCell>
                  <HeadCell>Days</HeadCell>
                  <HeadCell className="right">A day</HeadCell>
                  <HeadCell>Starts from</HeadCell>
                  <HeadCell>Qualified for</HeadCell>
                  <HeadCell>Away</HeadCell>
                  <HeadCell>
                    <span className="visually-hidden">Change</span>
                  </HeadCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {crew.map((member) => (
                  <TableRow key={member.id}>
                    <RowHead>{member.name}</RowHead>
                    <TableCell>
                      {member.days.map((day) => weekdayNames[day - 1]).join(', ') || 'none'}
                    </TableCell>
                    <TableCell className="right nowrap">{showMinutes(member.minutes)}</TableCell>
                    <TableCell>{yardName(member.yardId) ?? '–'}</TableCell>
                    <TableCell>
                      {member.skills === null
                        ? 'not said: taken for any'
                        : member.skills
                            .map((skill) =>
                              qualificationNames[skill as (typeof qualifications)[number]].replace(
                                /^qualified for /,
                                '',
                              ),
                            )
                            .join(', ') || 'nothing that local codes ask for'}
                    </TableCell>
                    <TableCell>
                      {member.leave
                        .filter(({ to }) => to >= today)
                        .map(({ from, to }) => `${showDay(from, today)} to ${showDay(to, today)}`)
                        .join('; ') || '–'}
                    </TableCell>
                    <TableCell className="right">
                      {mayPlan && (
                        <CrewDialog
                          name={member.name}
                          start={{
                            personId: member.id,
                            version: member.version,
                            yardId: member.yardId,
                            days: member.days,
                            minutes: member.minutes,
                            skills: (member.skills ?? [
                              ...qualifications,
                            ]) as (typeof qualifications)[number][],
                            leave: member.leave,
                          }}
                          yards={yards}
                          save={actions.saveCrew}
                        />
                      )}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </div>
        )}
        <Part
          title="What planning goes by"
          aside={terms.version === undefined ? 'ours, until somebody says better' : ''}
        >
          <Facts
            facts={[
              ['An hour of work', money(terms.hourCost)],
              ['A visit besides', money(terms.visitCost)],
              ['A day the machine stands', money(terms.downtimeCost)],
              ['Moving what people were told', money(terms.moveCost)],
              ['Stays free for breakdowns', `${terms.freePercent} % of each day`],
              ['Nothing is moved within', `${terms.frozenDays} days`],
              [
                'Bench places',
                terms.benches
                  .filter(({ places }) => places !== null)
                  .map(({ yardId, places }) => `${yardName(yardId)} ${places}`)
                  .join(', ') || 'no limit',
              ],
              [
                'Ways',
                terms.travel
                  .filter(({ minutes }) => minutes > 0)
                  .map(({ from, to, minutes }) => `${yardName(from)} to ${yardName(to)} ${minutes} min`)
                  .join(', '),
              ],
              [
                'Closed',
                terms.closed
                  .map(({ from, to }) => `${showDay(from, today)} to ${showDay(to, today)}`)
                  .join('; '),
              ],
            ]}
          />
          <p className="second">
            A day early gives up that share of the parts and of the work. A day late costs what a failure
            costs above the planned renewal (four times it, and two days’ standing) by a chance that rises to
            a third at the end of the late tolerance. All of it ours.
          </p>
        </Part>
      </div>
    </Page>
  )
}
