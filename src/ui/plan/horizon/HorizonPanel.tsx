'use client'

import { useMemo } from 'react'
import { addDays, daysBetween, showDay, showLongDay } from '@/core/calendar'
import {
  isPinned,
  runningOf,
  runningWords,
  serviceId,
  showMinutes,
  slipsOf,
  tryMove,
  violationWords,
  visitNumber,
  type ApproveInput,
  type Fleet,
  type FleetService,
  type PinInput,
} from '@/core/plan'
import type { Outcome } from '@/core/problem'
import { showMoney } from '@/core/units'
import { Button } from '../../frame/Button'
import { FieldFrame, SelectInput } from '../../forms/FieldFrame'
import { Link } from '../../frame/Link'
import { ApproveVisits, VisitStanding } from '../Approve'
import { DecideVisit, type DecideActions } from '../DecideVisit'
import type { Selected } from './selected'

type Props = {
  fleet: Fleet
  selected: Selected | null
  select: (selected: Selected | null) => void
  currency: string
  mayPlan: boolean
  decide: DecideActions
  approve: (input: ApproveInput) => Promise<Outcome<{ approved: number }>>
  pin: (input: PinInput) => Promise<Outcome>
  move: (visitId: string, day: string, leadId: string) => Promise<boolean>
}

/** What was chosen on the horizon, with its reasons and what can be done. */
export function HorizonPanel(props: Props) {
  const { fleet, selected, currency, mayPlan, decide } = props
  if (selected === null || selected.kind === 'day') return null
  if (selected.kind === 'visit') return <ChosenVisit {...props} selected={selected} />
  const machine = fleet.machines.find(({ id }) => id === selected.machineId)!
  const own = fleet.services.filter(({ machineId, visitId }) => machineId === machine.id && visitId === null)
  const services =
    selected.kind === 'over'
      ? own.filter(({ isOver }) => isOver)
      : own.filter((service) => selected.keys.includes(serviceId(service)))
  return (
    <section className="part">
      <header>
        <h2>
          {machine.number} {machine.name}
        </h2>
      </header>
      <Services services={services} fleet={fleet} />
      {mayPlan && (
        <DecideVisit
          label={services.length > 1 ? 'Book all this' : 'Book it'}
          machineId={machine.id}
          chosen={services.map(({ assemblyId, task, positions }) => ({ assemblyId, task, positions }))}
          currency={currency}
          actions={decide}
        />
      )}
    </section>
  )
}

function Services({ services, fleet }: { services: FleetService[]; fleet: Fleet }) {
  return (
    <ul className="line-list">
      {services.map((service) => (
        <li key={serviceId(service)}>
          <span className="grow">
            {service.name} <span className="second">{service.where}</span>
            <span className="second block">{dueWords(service, fleet)}</span>
          </span>
        </li>
      ))}
    </ul>
  )
}

function dueWords({ due, isOver, band, window, shape, partsFrom }: FleetService, { today }: Fleet): string {
  const when = isOver
    ? `${daysBetween(due, today)} days past its due day`
    : band
      ? `due about ${showDay(due, today)}, between ${showDay(band.early, today)} and ${band.late ? showDay(band.late, today) : 'later'}`
      : `due about ${showDay(due, today)}`
  return [
    when,
    window && !isOver && `best from ${showDay(window.from, today)} to ${showDay(window.to, today)}`,
    `${showMinutes(shape.minutes)} of its own`,
    partsFrom && `parts from ${showDay(partsFrom, today)}`,
  ]
    .filter(Boolean)
    .join('; ')
}

function ChosenVisit({
  fleet,
  selected,
  select,
  currency,
  mayPlan,
  decide,
  approve,
  pin,
  move,
}: Omit<Props, 'selected'> & { selected: Extract<Selected, { kind: 'visit' }> }) {
  const visit = fleet.visits.find(({ id }) => id === selected.visitId)
  const day = addDays(fleet.today, selected.day)
  const trial = useMemo(
    () =>
      visit && (visit.day !== day || visit.leadId !== selected.leadId)
        ? tryMove(fleet, visit.id, { day, leadId: selected.leadId })
        : null,
    [fleet, visit, day, selected.leadId],
  )
  const slip = useMemo(
    () => slipsOf(fleet).find(({ visitId }) => visitId === selected.visitId),
    [fleet, selected],
  )
  if (!visit) return null
  const machine = fleet.machines.find(({ id }) => id === visit.machineId)
  const services = fleet.services.filter(({ visitId }) => visitId === visit.id)
  const lead = fleet.crew.find(({ id }) => id === visit.leadId)
  const pinned = isPinned(visit, fleet)
  const running = runningOf(fleet, visit)
  return (
    <section className="part" aria-label={`Visit ${visitNumber(visit.number)}`}>
      <header>
        <h2>
          {machine?.number} {machine?.name}
        </h2>
      </header>
      <p>
        <Link href={`/plan/${visit.id}`} className="strong">
          Visit {visitNumber(visit.number)}
        </Link>
        , {showLongDay(visit.day)}
        <span className="second block">
          {lead?.name ?? 'nobody of the crew'}, {showMinutes(visit.minutes)}
          {visit.winter !== '' && ', winter'}
          {visit.state === 'approved' && ', approved'}
          {visit.pinned && ', held in place'}
        </span>
        {runningWords(running, fleet.today) !== '' && (
          <span className="second block">{runningWords(running, fleet.today)}</span>
        )}
      </p>
      <Services services={services} fleet={fleet} />
      {mayPlan && visit.state === 'booked' && visit.winter === '' && !visit.hasSheet && (
        <DecideVisit
          label="Add, take off, split or merge"
          machineId={visit.machineId}
          visitId={visit.id}
          currency={currency}
          actions={decide}
        />
      )}
      {mayPlan && !visit.hasSheet && (visit.state === 'booked' || visit.state === 'approved') && (
        <p className="horizon-standing">
          <VisitStanding
            visit={{
              ...{ id: visit.id, version: visit.version },
              ...{ approved: visit.state === 'approved', pinned: visit.pinned },
            }}
            approve={approve}
            pin={pin}
          />
          {visit.state === 'booked' && visit.day >= fleet.today && (
            <ApproveVisits
              visits={[{ id: visit.id, version: visit.version }]}
              doubts={slip?.says ?? []}
              label="Approve"
              approve={approve}
            />
          )}
        </p>
      )}
      {slip && (
        <ul className="line-list" aria-label="No longer fits">
          {slip.says.map((says) => (
            <li key={says} className="brass">
              {says}
            </li>
          ))}
        </ul>
      )}
      {mayPlan &&
        (pinned ? (
          <p className="second">
            {visit.winter !== '' || visit.state !== 'booked' || visit.pinned
              ? 'It stays where it is: change it on its own page.'
              : `The next ${fleet.terms.frozenDays} days are not moved here: change it on its own page.`}
          </p>
        ) : (
          <>
            <FieldFrame id="horizon-lead" label="Technician">
              <SelectInput
                id="horizon-lead"
                options={fleet.crew.map(({ id, name }) => ({ value: id, label: name }))}
                value={selected.leadId}
                onChange={({ target: { value } }) => select({ ...selected, leadId: value })}
              />
            </FieldFrame>
            {trial && (
              <div className="horizon-trial" role="status">
                <p>
                  <strong>If moved to {showDay(day, fleet.today)}</strong>
                  <span className="second block">
                    {trial.cents === 0
                      ? 'It costs the same.'
                      : `It costs ${showMoney(Math.abs(trial.cents), currency)} ${trial.cents > 0 ? 'more' : 'less'}.`}
                  </span>
                </p>
                {trial.breaks.length > 0 && (
                  <ul>
                    {[...new Set(trial.breaks.map((each) => violationWords(each, fleet)))].map((words) => (
                      <li key={words} className="oxide">
                        {words}
                      </li>
                    ))}
                  </ul>
                )}
                <div className="buttons">
                  <Button variant="contained" onClick={() => move(visit.id, day, selected.leadId)}>
                    {visit.day === day ? 'Hand it over' : `Move to ${showDay(day, fleet.today)}`}
                  </Button>
                  <Button
                    variant="outlined"
                    onClick={() =>
                      select({
                        ...selected,
                        day: Math.max(0, daysBetween(fleet.today, visit.day)),
                        leadId: visit.leadId,
                      })
                    }
                  >
                    Leave it
                  </Button>
                </div>
              </div>
            )}
          </>
        ))}
    </section>
  )
}
