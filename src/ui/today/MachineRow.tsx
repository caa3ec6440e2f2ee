'use client'

import { showAge, showDay } from '@/core/calendar'
import { ButtonLink } from '../frame/ButtonLink'
import { type Shown, Line, Machine } from './Line'

export function MachineRow({ row, today, marks }: Shown<'doubt' | 'reading'>) {
  const { machine } = row
  const doubt = row.kind === 'doubt'
  return (
    <Line
      className="machine-row"
      mark={doubt ? 'doubted' : 'notRead'}
      who={<Machine number={machine.number} name={machine.name} second={machine.yardName} />}
      what={
        doubt ? (
          <>
            {machine.doubts === 1 ? 'One reading in doubt' : `${machine.doubts} readings in doubt`}
            <span className="second block">hours stand on the last good one until it is settled</span>
          </>
        ) : (
          <>
            Read the meter
            <span className="second block">
              {machine.lastReading ? `last read ${showAge(machine.lastReading.day, today)}` : 'never read'}
              {machine.weekly !== null &&
                machine.lastReading &&
                `, about +${Math.round((machine.weekly / 7) * machine.lastReading.ageDays)}\u00a0h since`}
            </span>
          </>
        )
      }
      when={
        <span className={doubt ? 'oxide strong' : 'second'}>
          {doubt ? 'today' : machine.owesSince ? `owed since ${showDay(machine.owesSince, today)}` : 'owed'}
        </span>
      }
      action={
        <>
          <ButtonLink href={`/fleet/${encodeURIComponent(machine.number)}`}>
            {doubt ? 'Settle' : 'Read'}
          </ButtonLink>
          {marks}
        </>
      }
    />
  )
}
