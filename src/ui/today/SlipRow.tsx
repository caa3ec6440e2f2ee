'use client'

import { showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { ButtonLink } from '../frame/ButtonLink'
import { DecideVisit, serviceWords } from '../plan'
import { type Shown, Line, Machine } from './Line'

/** A booked visit that no longer fits: why, and the smallest repair. */
export function SlipRow({ row: { visit, slip }, today, plan, marks }: Shown<'slip'>) {
  return (
    <Line
      className="visit-row"
      mark="atRisk"
      who={<Machine number={visit.machineNumber} name={visit.machineName} second={visit.place} />}
      what={
        <>
          Visit {visitNumber(visit.number)} no longer fits
          {slip.says.map((says) => (
            <span key={says} className="block brass">
              {says}
            </span>
          ))}
          <span className="second block">{serviceWords(visit)}</span>
        </>
      }
      graphic={<span className="second">{visit.lead}</span>}
      when={
        <>
          <span className="strong">on {showDay(visit.day, today)}</span>
          <span className="second block">{visit.state === 'approved' ? 'approved' : ''}</span>
        </>
      }
      action={
        <>
          {plan && visit.machineId && visit.state === 'booked' && visit.winter === '' ? (
            <DecideVisit
              label="Find a better day"
              machineId={visit.machineId}
              visitId={visit.id}
              currency={plan.currency}
              actions={plan}
            />
          ) : (
            <ButtonLink href={`/plan/${visit.id}`}>Open</ButtonLink>
          )}
          {marks}
        </>
      }
    />
  )
}
