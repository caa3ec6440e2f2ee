'use client'

import { showAge, showDay } from '@/core/calendar'
import type { MeterPanel } from '@/core/fleet'
import { showNumber } from '@/core/units'
import type { LimitAhead } from '@/core/wear'
import { unpack, type Packed } from '../frame/packed'
import { Part } from '../frame/Page'
import type { ChartEvent, ChartSpell } from '../graphics/HoursChart'
import { HoursAhead } from './HoursAhead'
import { showWeekly } from './usageWords'

/** A meter's hours so far, how it is used, and its line. */
export function MeterPart({
  packed,
  today,
  edit,
  limits,
  moves,
  spells,
}: {
  packed: Packed<MeterPanel>
  today: string
  /** Hour limits of what it counts. */
  limits: LimitAhead[]
  /** Pumps that came onto its machine or left it. */
  moves: ChartEvent[]
  spells: ChartSpell[]
  edit?: React.ReactNode
}) {
  const meter = unpack(packed)
  const { face } = meter
  const last = meter.readings.find((reading) => reading.status === 'accepted')
  const doubts = meter.readings.filter((reading) => reading.status === 'doubted')
  // A doubted or corrected reading shows the counter; the line shows all that was ever counted.
  const offset = meter.total !== null && last ? meter.total - last.value : 0
  const onLine = ({ at, value }: { at: string; value: number }) => ({ at, value: value + offset })
  const differs = meter.total !== null && last && Math.abs(meter.total - last.value) > 0.001
  return (
    <Part
      title={meter.name}
      aside={
        meter.retiredOn
          ? `retired ${showDay(meter.retiredOn, today)}`
          : meter.weekly === null
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
      <HoursAhead
        of={meter.id}
        line={meter.line}
        meterLine={meter.line}
        share={1}
        known={meter.known}
        limits={limits}
        doubts={doubts.map((reading) => onLine(reading))}
        corrected={meter.readings
          .filter((reading) => reading.status === 'superseded')
          .map((reading) => onLine(reading))}
        events={[
          ...meter.events.map((event) => ({
            at: event.at,
            words: event.kind === 'change' ? 'new meter' : 'through zero',
            strong: true,
          })),
          ...moves,
        ]}
        spells={spells}
        unit={face.unit}
        today={today}
      />
      {meter.events.map((event) => (
        <p key={event.id} className="second">
          {event.kind === 'change' ? 'Meter replaced' : 'Meter went through zero'} {showDay(event.day, today)}
          {event.oldLast && `, the old one at ${event.assumed ? 'about ' : ''}${event.oldLast}`}
          {event.assumed && ' (an estimate by its use: nobody read it)'}
          {event.note && `: ${event.note}`}
        </p>
      ))}
      {edit && <div className="buttons">{edit}</div>}
    </Part>
  )
}
