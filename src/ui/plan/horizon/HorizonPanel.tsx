'use client'

import Button from '@mui/material/Button'
import { useMemo } from 'react'
import { addDays, daysBetween, showDay, showLongDay } from '@/core/calendar'
import {
  isPinned,
  serviceId,
  showMinutes,
  tryMove,
  violationWords,
  visitNumber,
  type Fleet,
  type FleetService,
} from '@/core/plan'
import { showMoney } from '@/core/units'
import { FieldFrame, SelectInput } from '../../forms/FieldFrame'
import { Link } from '../../frame/Link'
import type { Selected } from './HorizonChart'

type Props = {
  fleet: Fleet
  selected: Selected | null
  select: (selected: Selected | null) => void
  currency: string
  mayPlan: boolean
  move: (visitId: string, day: string, leadId: string) => Promise<boolean>
}

/** What was chosen on the horizon, with its reasons and what can be done. */
export function HorizonPanel({ fleet, selected, select, currency, mayPlan, move }: Props) {
  if (selected === null || selected.kind === 'day') return null
  if (selected.kind === 'visit')
    return <ChosenVisit {...{ fleet, selected, select, currency, mayPlan, move }} />
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
      <Link href={`/fleet/${encodeURIComponent(machine.number)}`}>Book on the machine’s page</Link>
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
  if (!visit) return null
  const machine = fleet.machines.find(({ id }) => id === visit.machineId)
  const services = fleet.services.filter(({ visitId }) => visitId === visit.id)
  const lead = fleet.crew.find(({ id }) => id === visit.leadId)
  const pinned = isPinned(visit, fleet)
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
        </span>
      </p>
      <Services services={services} fleet={fleet} />
      {mayPlan &&
        (pinned ? (
          <p className="second">
            {visit.winter !== '' || visit.state !== 'booked'
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
                <Button variant="contained" onClick={() => move(visit.id, day, selected.leadId)}>
                  {visit.day === day ? 'Hand it over' : `Move to ${showDay(day, fleet.today)}`}
                </Button>{' '}
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
            )}
          </>
        ))}
    </section>
  )
}
