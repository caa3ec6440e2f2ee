import type { Metadata } from 'next'
import { Link } from '@/ui/frame/Link'
import { showDay, showLongDay } from '@/core/calendar'
import { phaseNames } from '@/core/models'
import { showAmount } from '@/core/stores'
import { mayDo } from '@/core/access'
import {
  isOpen,
  runningWords,
  showMinutes,
  visitNumber,
  visitStates,
  type PreparedStep,
  type VisitPage,
  visitLeads,
} from '@/core/plan'
import { getCompany, present } from '@/services/house'
import { listPeople } from '@/services/access'
import { approvalDoubts, getVisit } from '@/services/plan'
import { Consumables } from '@/ui/composing/Consumables'
import { WhoItTakes } from '@/ui/composing/WhoItTakes'
import { ComposedPractices } from '@/ui/composing/ComposedPractices'
import { Note } from '@/ui/feedback/States'
import { FoldedSteps } from '@/ui/composing/FoldedSteps'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { StartSheet } from '@/ui/sheets/StartSheet'
import { ApproveVisits, VisitStanding } from '@/ui/plan/Approve'
import { VisitActions } from '@/ui/plan/VisitActions'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import { startSheet } from '../../sheets/actions'
import * as actions from '../actions'

export const metadata: Metadata = { title: 'Visit' }

export default async function VisitDetails({ params }: { params: Promise<{ visit: string }> }) {
  const { visit: reference } = await params
  const actor = await requireActor(`/plan/${reference}`)
  const [visit, people, company] = await Promise.all([
    load(getVisit(actor, reference)),
    listPeople(actor),
    getCompany(actor),
  ])
  const { id } = visit
  const doubts = await approvalDoubts(actor, [id])
  const { today } = present(company)
  const { number, day, startTime, leadId, note, version } = visit
  const late = visit.parts.filter((part) => part.stock && !part.stock.inTime)
  return (
    <Page
      title={`Visit ${visitNumber(number)}: ${visit.machineNumber ? `${visit.machineNumber} ${visit.machineName}` : visit.services[0]?.pump}`}
      summary={[showLongDay(day), startTime, visit.lead, visit.place].filter(Boolean).join(' · ')}
      back={{ href: `/plan?week=${day}`, label: 'Plan' }}
      actions={
        isOpen(visit.state) && (
          <>
            {mayDo(actor.role, 'visits.plan') && (
              <VisitActions
                visit={{ id, number, day, startTime, leadId, note, version }}
                technicians={visitLeads(people)}
                change={actions.changeVisit}
                cancel={actions.cancelVisit}
                restore={actions.restoreVisit}
              />
            )}
            {mayDo(actor.role, 'visits.plan') && !visit.sheet && (
              <>
                <VisitStanding
                  visit={{ id, version, approved: visit.state === 'approved', pinned: visit.pinned }}
                  approve={actions.approveVisits}
                  pin={actions.pinVisit}
                />
                {visit.state === 'booked' && !visit.late && (
                  <ApproveVisits
                    visits={[{ id, version }]}
                    doubts={doubts.get(id) ?? []}
                    label="Approve"
                    approve={actions.approveVisits}
                  />
                )}
              </>
            )}
            <ButtonLink href={`/plan/${id}/packet`}>Packet</ButtonLink>
            {visit.parts.length > 0 && <ButtonLink href={`/stores/picks/${id}`}>Pick list</ButtonLink>}
            {visit.sheet ? (
              <ButtonLink href={`/sheets/${visit.sheet.id}`} filled>
                {`Go on with sheet ${visitNumber(visit.sheet.number)}`}
              </ButtonLink>
            ) : (
              mayDo(actor.role, 'sheets.work') && <StartSheet visitId={id} start={startSheet} />
            )}
          </>
        )
      }
    >
      <div className="stack">
        {visit.state === 'cancelled' && <Note title="Cancelled.">{visit.endReason}</Note>}
        {visit.sheet?.state === 'signed' && (
          <Note tone="moss" title="Done.">
            <Link href={`/sheets/${visit.sheet.id}`}>Sheet {visitNumber(visit.sheet.number)}</Link> is its
            record.
          </Note>
        )}
        {visit.held && (
          <Note tone="oxide" title="Do not start.">
            {visit.held} <Link href={`/winter/${visit.machineNumber}`}>Its winter</Link>
          </Note>
        )}
        {late.length > 0 && isOpen(visit.state) && (
          <Note tone="oxide" title="Parts that will not arrive in time:">
            {late
              .map(
                (part) =>
                  `${part.name} (${showAmount(part.stock!.missing, part.unit)} missing, ordered today it comes ${showDay(part.stock!.arrives!, today)})`,
              )
              .join(', ')}
            . Move the visit, or find them elsewhere.
          </Note>
        )}
        {visit.notice && (
          <Note tone="brass" title="Mind:">
            {visit.notice}
          </Note>
        )}
        <div className="columns">
          <div className="stack">
            <Part
              title="Services"
              aside={[
                visit.approvedBy ? `approved by ${visit.approvedBy}` : visitStates[visit.state].toLowerCase(),
                visit.pinned && visit.state === 'booked' && 'held in place',
              ]
                .filter(Boolean)
                .join(', ')}
            >
              <ul className="line-list">
                {visit.services.map((service) => (
                  <li key={`${service.assemblyId} ${service.task} ${service.where}`}>
                    <span className="grow">
                      {service.name} <span className="second">{service.where}</span>
                    </span>
                    <Link href={`/fleet/pumps/${encodeURIComponent(service.pump)}`}>{service.pump}</Link>
                  </li>
                ))}
                {visit.implied.map(({ name, where, why }) => (
                  <li key={`${name} ${where}`}>
                    <span className="grow">
                      {name}{' '}
                      <span className="second">
                        {[where, 'comes with it', why].filter(Boolean).join(', ')}
                      </span>
                    </span>
                  </li>
                ))}
              </ul>
            </Part>
            <Part title="Time" aside="the shared way in counted once">
              <Facts facts={times(visit, today)} />
              <WhoItTakes {...visit} />
            </Part>
            <Part title="Parts to lay ready">
              <ul className="line-list">
                {visit.parts.map((part) => (
                  <li key={`${part.assemblyId} ${part.part}`}>
                    <span className="grow">
                      {part.name}{' '}
                      <span className="second">
                        {part.stock
                          ? [part.stock.number, part.stock.bin && `bin ${part.stock.bin}`]
                              .filter(Boolean)
                              .join(', ')
                          : 'not kept in the stores'}
                      </span>
                    </span>
                    {part.stock && part.stock.available !== null && (
                      <span className={part.stock.missing > 0 ? 'brass strong nowrap' : 'second nowrap'}>
                        {part.stock.missing > 0
                          ? `${showAmount(part.stock.missing, part.unit)} missing`
                          : 'there'}
                      </span>
                    )}
                    <span className="strong nowrap">{showAmount(part.quantity, part.unit)}</span>
                  </li>
                ))}
              </ul>
            </Part>
            {visit.spares.length > 0 && (
              <Part title="To take along" aside="used only where a finding asks for it">
                <ul className="line-list">
                  {visit.spares.map((part) => (
                    <li key={`${part.assemblyId} ${part.part}`}>
                      <span className="grow">
                        {part.name} <span className="second">{part.likely}</span>
                      </span>
                      <span className="nowrap">up to {showAmount(part.quantity, part.unit)}</span>
                    </li>
                  ))}
                </ul>
              </Part>
            )}
            {visit.consumables.length > 0 && (
              <Part title="Bottles and tubes" aside="about so much">
                <Consumables needs={visit.consumables} head={false} />
              </Part>
            )}
            <Part title="Tools">
              <ul className="line-list">
                {visit.tools.map((tool) => (
                  <li key={tool.key}>
                    <span className="grow">{tool.name}</span>
                    <span className="second">
                      {[
                        tool.special && 'special',
                        tool.temporary && 'counted back',
                        tool.removalOnly && 'removal only',
                        tool.contingency && 'in case',
                      ]
                        .filter(Boolean)
                        .join(', ')}
                    </span>
                  </li>
                ))}
              </ul>
            </Part>
            <Part title="Practices that shape it" aside="the maker’s manual wins">
              <ComposedPractices practices={visit.practices} />
            </Part>
          </div>
          <Part title="Steps, in order" aside={`${visit.steps.length} steps`}>
            <FoldedSteps
              steps={visit.steps}
              phaseName={(phase) => phaseNames[phase as keyof typeof phaseNames] ?? phase}
              likeness={({ key: _key, where: _where, stretch: _stretch, ...told }) => JSON.stringify(told)}
              line={(step, where) => <StepLine step={step} where={where} />}
            />
          </Part>
        </div>
      </div>
    </Page>
  )
}

function times(visit: VisitPage, today: string): [string, React.ReactNode][] {
  const saved = Math.round(visit.minutesOneByOne - visit.minutes)
  return [
    ['Together', <span className="strong" key="together">{`about ${showMinutes(visit.minutes)}`}</span>],
    ['One by one', `about ${showMinutes(visit.minutesOneByOne)}`],
    ['Saved', saved > 0 ? showMinutes(saved) : ''],
    ['Helps', visit.helpers.join(', ')],
    ['Runs', runningWords(visit.running, today)],
    ['Note', visit.note],
  ]
}

function StepLine({ step, where }: { step: PreparedStep; where: string }) {
  return (
    <>
      {step.onlyIf && <span className="second">Only if {step.onlyIf}: </span>}
      {step.text} <span className="second">{where}</span>
      {step.torque && (
        <div className="strong">
          {step.torque}
          {step.unverified && <span className="brass"> · not verified yet</span>}
          {step.wrench && <span className="second"> {step.wrench}</span>}
        </div>
      )}
      {step.caution && <p className="caution">{step.caution}</p>}
    </>
  )
}
