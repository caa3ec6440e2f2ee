import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { addDays, showDay } from '@/core/calendar'
import { storageKinds } from '@/core/fleet'
import { bookable, leastBusy, visitLeads, worseDue } from '@/core/plan'
import { methodNames, turnings, zoneNames, zonesOf, type ToldEvent } from '@/core/winter'
import { showMoney } from '@/core/units'
import { getCompany } from '@/services/house'
import { listPeople } from '@/services/access'
import { listOpenVisits } from '@/services/plan'
import { listWear } from '@/services/wear'
import { getMachineWinter } from '@/services/winter'
import { Note } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { Link } from '@/ui/frame/Link'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'
import { BookVisit } from '@/ui/plan'
import { LaidUpNote } from '@/ui/winter/LaidUpNote'
import { CircuitLine } from '@/ui/winter/CircuitLine'
import { WinterNoteDialog } from '@/ui/winter/dialogs/WinterNoteDialog'
import { showDegrees, showLitres, showWork, stateInk, stateNames } from '@/ui/winter/words'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import { bookVisit } from '../../plan/actions'
import * as actions from '../actions'
import '@/ui/winter/winter.css'

export const metadata: Metadata = { title: 'Machine in winter' }

export default async function MachineWinterPage({ params }: { params: Promise<{ machine: string }> }) {
  const { machine } = await params
  const actor = await requireActor(`/winter/${machine}`)
  const [page, company, open, people, wear] = await Promise.all([
    load(getMachineWinter(actor, machine)),
    getCompany(actor),
    listOpenVisits(actor),
    listPeople(actor),
    listWear(actor),
  ])
  const { plan, zones, circuit, today } = page
  const money = (cents: number) => showMoney(cents, company.currency)
  const zoneStates = Object.fromEntries(
    Object.entries(zones).map(([zone, standing]) => [zone, standing.state]),
  )
  return (
    <Page
      back={{ href: '/winter', label: 'Winter' }}
      title={`${page.number} ${page.name} in winter`}
      summary={`${stateNames[page.worst]}; ${storageKinds[page.storage as keyof typeof storageKinds].toLowerCase()} in ${page.yard}${page.standsC === null ? ', where it never freezes' : `, where it freezes at ${showDegrees(page.standsC)}`}. ${showLitres(page.litres)} in all${page.unknown.length > 0 ? ` and ${page.unknown.length} unknown` : ''}.`}
      actions={
        <>
          <Link href={`/fleet/${page.number}`}>The machine</Link>
          {mayDo(actor.role, 'sheets.work') && (
            <WinterNoteDialog
              machineId={page.machineId}
              number={page.number}
              zones={zonesOf(circuit)}
              today={today}
              save={actions.recordWinter}
            />
          )}
          {mayDo(actor.role, 'visits.plan') && page.worst !== 'exposed' && (
            <BookVisit
              clocks={wear
                .filter((view) => view.machineNumber === page.number && view.started)
                .flatMap((view) => bookable(view, open))
                .sort(worseDue)}
              technicians={visitLeads(people)}
              suggestedLead={leastBusy(people, open, today)}
              today={today}
              look="outlined"
              winter={{
                kind: page.worst === 'protected' || page.worst === 'left' ? 'return' : 'lay',
                machineId: page.machineId,
                day: today,
                until: addDays(today, page.worst === 'protected' ? 0 : 182),
              }}
              book={bookVisit}
            />
          )}
          {mayDo(actor.role, 'fleet.edit') && (
            <ButtonLink href={`/winter/${machine}/circuit`} filled={page.isTemplate}>
              {page.isTemplate ? 'Look at the circuit' : 'Change the circuit'}
            </ButtonLink>
          )}
        </>
      }
    >
      <div className="stack">
        <LaidUpNote state={page.worst} number={page.number} />
        <Part
          title="From tank to nozzle"
          aside={
            page.isTemplate
              ? 'the template of its kind: nobody has looked at it on the machine yet'
              : 'as it was looked at'
          }
        >
          <CircuitLine circuit={circuit} states={zoneStates} />
        </Part>
        {plan.troubles.length > 0 && (
          <Note tone="brass" title="Not like this yet.">
            <ul>
              {plan.troubles.map(({ zone, why }) => (
                <li key={zone + why}>
                  {zoneNames[zone]}: {why}
                </li>
              ))}
            </ul>
          </Note>
        )}
        <Part
          title="Zone by zone"
          aside={`${showLitres(plan.productLitres)} of ${page.product ?? 'no fluid'}${plan.waterLitres > 0.05 ? ` and ${showLitres(plan.waterLitres)} of water` : ''}, ${showWork(plan.minutes)}, ${money(plan.cents)}${page.designLowC === null ? '' : `, for ${showDegrees(page.designLowC)}`}`}
        >
          <Table>
            <TableHead>
              <TableRow>
                <HeadCell>Zone</HeadCell>
                <HeadCell>Method, and who says so</HeadCell>
                <HeadCell className="right">Holds</HeadCell>
                <HeadCell className="right">Water left</HeadCell>
                <HeadCell className="right">Mix</HeadCell>
                <HeadCell>Stands</HeadCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {plan.zones.map((zone) => {
                const standing = zones[zone.zone]
                return (
                  <TableRow key={zone.zone}>
                    <TableCell className="strong">{zoneNames[zone.zone]}</TableCell>
                    <TableCell>
                      {methodNames[zone.method]} <span className="second">{zone.from}</span>
                      {zone.unprotected.length > 0 && (
                        <span className="second brass">
                          {' '}
                          unprotected: {zone.unprotected.join(', ').toLowerCase()}
                        </span>
                      )}
                    </TableCell>
                    <TableCell className="right nowrap">{showLitres(zone.holdsLitres)}</TableCell>
                    <TableCell className="right nowrap">{showLitres(zone.residualLitres)}</TableCell>
                    <TableCell className="right nowrap">
                      {zone.ownLitres > 0
                        ? `${showLitres(zone.ownLitres)}${zone.ownWaterLitres > 0.05 ? ` + ${showLitres(zone.ownWaterLitres)} water` : ''}`
                        : zone.recipe?.ok
                          ? 'its own'
                          : '–'}
                    </TableCell>
                    <TableCell className={standing ? stateInk[standing.state] : ''}>
                      {standing && stateNames[standing.state]}
                      {standing?.says && <span className="second"> {standing.says}</span>}
                    </TableCell>
                  </TableRow>
                )
              })}
            </TableBody>
          </Table>
        </Part>
        <Part title="Methods side by side" aside="for this machine">
          <Table>
            <TableHead>
              <TableRow>
                <HeadCell>Zone</HeadCell>
                <HeadCell>Method</HeadCell>
                <HeadCell className="right">Fluid</HeadCell>
                <HeadCell className="right">Work</HeadCell>
                <HeadCell className="right">Cost</HeadCell>
                <HeadCell>Leaves</HeadCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {page.choices.flatMap(({ zone, methods }) =>
                methods.map(({ method, isChosen, plan: one }, at) => (
                  <TableRow key={zone + method}>
                    <TableCell>{at === 0 ? zoneNames[zone] : ''}</TableCell>
                    <TableCell className={isChosen ? 'strong' : ''}>
                      {methodNames[method]}
                      {isChosen && <span className="second"> chosen</span>}
                    </TableCell>
                    <TableCell className="right nowrap">
                      {one.ownLitres > 0
                        ? showLitres(one.ownLitres)
                        : one.recipe
                          ? one.recipe.ok
                            ? 'its own'
                            : 'cannot'
                          : '–'}
                    </TableCell>
                    <TableCell className="right nowrap">{showWork(one.minutes)}</TableCell>
                    <TableCell className="right nowrap">{money(one.cents)}</TableCell>
                    <TableCell>
                      {[
                        one.unprotected.length > 0 &&
                          `unprotected: ${one.unprotected.join(', ').toLowerCase()}`,
                        one.dries,
                        one.droplets,
                      ]
                        .filter(Boolean)
                        .join(' · ')}
                    </TableCell>
                  </TableRow>
                )),
              )}
            </TableBody>
          </Table>
        </Part>
        <Part
          title="The steps, in the one order that works"
          aside={`turned over: ${turnings[page.turning].toLowerCase()}`}
        >
          <ol className="winter-steps">
            {page.steps.map((step) => (
              <li key={step.key}>
                <span className="second">
                  {step.heading}
                  {step.where && `, ${step.where}`}
                </span>{' '}
                {step.text}
                {step.caution && <span className="brass"> {step.caution}</span>}
              </li>
            ))}
          </ol>
        </Part>
        <Part title="What happened">
          {page.history.length === 0 ? (
            <p className="second">Nothing is told of this winter yet.</p>
          ) : (
            <ul className="line-list">
              {page.history.map((line) => (
                <li key={line.id}>
                  <span className="nowrap">
                    {showDay(line.day, today)} {line.time}
                  </span>
                  <span className="grow">{eventWords(line.event)}</span>
                  <span className="second">{line.by}</span>
                </li>
              ))}
            </ul>
          )}
        </Part>
        <Facts facts={[['Works through winter', page.evening === '' ? null : page.eveningReason || 'yes']]} />
      </div>
    </Page>
  )
}

function eventWords(event: ToldEvent): string {
  const zone =
    'zone' in event && event.zone ? `, ${zoneNames[event.zone as keyof typeof zoneNames].toLowerCase()}` : ''
  switch (event.kind) {
    case 'protected':
      return `${event.method}${zone}${event.litres ? `, ${showLitres(event.litres)}` : ''}${event.downToC === null ? '' : `, holds to ${showDegrees(event.downToC)}`}`
    case 'proof':
      return `Proof ${event.passed ? 'passed' : 'failed'}${zone}: ${event.says}`
    case 'left':
      return `Left as it is${zone}, by ${event.by}`
    case 'frost':
      return `Frost of ${showDegrees(event.minC)}`
    case 'thawed':
      return 'Thawed and looked at'
    case 'returned':
      return `Back at work${zone}`
    case 'evening':
      return 'Evening routine done'
    case 'damage':
      return `Frost damage${zone}: ${event.says}`
    case 'reading':
      return 'Read'
    default:
      return event.says
  }
}
