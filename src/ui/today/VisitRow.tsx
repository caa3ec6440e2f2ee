'use client'

import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber } from '@/core/plan'
import { ButtonLink } from '../frame/ButtonLink'
import { DecideVisit, serviceWords } from '../plan'
import { type Shown, Line, Machine, unique } from './Line'

export function VisitRow({ row: { visit }, today, plan }: Shown<'visit'>) {
  return (
    <Line
      className="visit-row"
      mark={visit.late ? 'atRisk' : visit.sheet ? 'waiting' : 'planned'}
      who={
        <Machine
          number={visit.machineNumber}
          name={visit.machineName}
          second={visit.services
            .map((service) => service.pump)
            .filter(unique)
            .join(', ')}
        />
      }
      what={
        <>
          Visit {visitNumber(visit.number)}
          <span className="second block">{serviceWords(visit)}</span>
          {visit.sheet?.added.map((words) => (
            <span key={words} className="block brass">
              Added on the bench: {words}
            </span>
          ))}
        </>
      }
      graphic={
        <span className="second">
          {visit.lead}, {showMinutes(visit.minutes)}
        </span>
      }
      when={
        <>
          <span className={visit.late ? 'brass strong' : 'strong'}>
            {visit.late
              ? 'day has passed'
              : visit.day < today
                ? `since ${showDay(visit.day, today)}`
                : visit.startTime
                  ? `today ${visit.startTime}`
                  : 'today'}
          </span>
          {visit.late && (
            <span className="second block">was on {showDay(visit.day, today)}: what became of it?</span>
          )}
        </>
      }
      action={
        visit.sheet ? (
          <ButtonLink href={`/sheets/${visit.sheet.id}`}>On the bench</ButtonLink>
        ) : (
          <>
            {visit.late && plan && visit.machineId && visit.state === 'booked' && visit.winter === '' && (
              <DecideVisit
                label="Plan anew"
                machineId={visit.machineId}
                visitId={visit.id}
                currency={plan.currency}
                actions={plan}
              />
            )}
            <ButtonLink href={`/plan/${visit.id}`}>
              {visit.late ? 'Done or called off' : 'Prepare'}
            </ButtonLink>
          </>
        )
      }
    />
  )
}
