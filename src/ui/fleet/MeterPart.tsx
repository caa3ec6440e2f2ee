'use client'

import { showAge, showDay } from '@/core/calendar'
import type { MeterPanel } from '@/core/fleet/views'
import { showNumber } from '@/core/units'
import { Part } from '../frame/Page'
import { HoursChart } from '../graphics/HoursChart'
import { showWeekly } from './MachinesTable'

/** A meter's hours so far, how it is used, and its line. */
export function MeterPart({
  meter,
  today,
  edit,
}: {
  meter: MeterPanel
  today: string
  edit?: React.ReactNode
}) {
  const { face } = meter
  const last = meter.readings.find((reading) => reading.status === 'accepted')
  const doubts = meter.readings.filter((reading) => reading.status === 'doubted')
  const differs = meter.total !== null && last && Math.abs(meter.total - last.value) > 0.001
  return (
    <Part
      title={meter.name}
      aside={
        meter.weekly === null
          ? 'too few readings for a weekly figure'
          : `${showWeekly(meter.weekly, face.unit)} a week, last six weeks`
      }
    >
      {meter.total === null ? (
        <p className="second">Not read yet.</p>
      ) : (
        <p className="meter-total">
          <span className="figure">
            {showNumber(meter.total, face.decimals)}&nbsp;{face.unit}
          </span>{' '}
          {last && (
            <span className="second">
              read {showAge(last.day, today)}
              {last.readBy && `, ${last.readBy}`}
            </span>
          )}
        </p>
      )}
      {differs && (
        <p className="second">
          The counter itself shows {showNumber(last.value, face.decimals)}&nbsp;{face.unit}: it was replaced
          or went through zero.
        </p>
      )}
      {meter.line.length >= 2 && (
        <HoursChart
          points={meter.line}
          doubts={doubts}
          events={meter.events}
          unit={face.unit}
          today={today}
        />
      )}
      {meter.events.map((event) => (
        <p key={event.id} className="second">
          {event.kind === 'change' ? 'Meter replaced' : 'Meter went through zero'} {showDay(event.day, today)}
          {event.note && `: ${event.note}`}
        </p>
      ))}
      {edit && <div className="meter-actions">{edit}</div>}
    </Part>
  )
}
