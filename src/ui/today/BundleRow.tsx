'use client'

import { useState } from 'react'
import { showDay } from '@/core/calendar'
import { showMinutes } from '@/core/plan'
import type { Bundled } from '@/core/today'
import { stateRank } from '@/core/wear'
import { ButtonLink } from '../frame/ButtonLink'
import { Link } from '../frame/Link'
import { LifeStrip } from '../graphics/LifeStrip'
import { SettleSign } from '../inspection'
import { DecideVisit } from '../plan'
import {
  markOf,
  DueFigures,
  actInk,
  actWords,
  bandWords,
  inkOf,
  leftWords,
  limitWords,
  missingWords,
  stateWords,
  usedWords,
} from '../wear'
import { type Shown, Line, Machine } from './Line'

/** So many services of a visit stand open; the rest is one press away. */
const atOnce = 6

/** What is due on one machine and shares a day: what, why now, together against one by one, one action. */
export function BundleRow({ row, today, actions, plan, marks }: Shown<'bundle'>) {
  const { bundle, pump, machineId } = row
  const [isOpen, setOpen] = useState(false)
  const { services, minutes, minutesAlone, day } = bundle
  const leading = services[0]!
  const several = new Set(services.map((each) => each.pump.assemblyId)).size > 1
  const shown = isOpen || services.length <= atOnce + 1 ? services : services.slice(0, atOnce)
  const worst = services.reduce((a, b) => (stateRank[b.clock.state] > stateRank[a.clock.state] ? b : a))
  const pumpPath = `/fleet/pumps/${encodeURIComponent(pump.number)}`
  const due = services.filter((each) => each.standing !== null)
  return (
    <Line
      className="due-row"
      mark={markOf[worst.clock.state]}
      who={
        <Machine
          number={pump.machineNumber}
          name={pump.machineName}
          second={
            several ? (
              `${new Set(services.map((each) => each.pump.assemblyId)).size} pumps`
            ) : (
              <>
                <Link href={pumpPath}>{pump.number}</Link> {pump.title}
              </>
            )
          }
        />
      }
      what={
        <ul className="bundle">
          {shown.map((service) => (
            <Service
              key={`${service.pump.assemblyId} ${service.clock.task} ${service.clock.positions[0]}`}
              service={service}
              several={several}
              machine={pump.machineNumber}
              today={today}
              full={services.length === 1}
              settle={actions?.settleSign}
            />
          ))}
          {shown.length < services.length && (
            <li>
              <button type="button" className="figure-button" onClick={() => setOpen(true)}>
                {services.length - shown.length} more on it
              </button>
            </li>
          )}
        </ul>
      }
      when={
        <>
          <span className={`strong ${inkOf[leading.clock.state]}`}>
            {leftWords(leading.clock, leading.pump.unit, today)}
          </span>
          <span className="second block">{bandWords(leading.clock, today)}</span>
          <span className={`second block ${actInk(leading.clock, today)}`}>
            {actWords(leading.clock, today)}
          </span>
          {minutes > 0 && (
            <span className="block">
              {services.length > 1 ? 'together ' : ''}
              <strong>{showMinutes(minutes)}</strong>
              {minutesAlone > minutes && (
                <span className="second block">one by one {showMinutes(minutesAlone)}</span>
              )}
            </span>
          )}
          {day !== null && day > today && <span className="second block">wanted {showDay(day, today)}</span>}
        </>
      }
      action={
        <>
          {plan && machineId !== null ? (
            <DecideVisit
              label={due.length > 1 || services.length > 1 ? 'Book all this' : 'Book'}
              machineId={machineId}
              chosen={services.map(({ pump, clock, positions }) => ({
                assemblyId: pump.assemblyId,
                task: clock.task,
                positions,
              }))}
              currency={plan.currency}
              actions={plan}
            />
          ) : (
            <ButtonLink href={`${pumpPath}?book=${encodeURIComponent(leading.clock.task)}`}>Book</ButtonLink>
          )}
          {marks}
        </>
      }
    />
  )
}

type ServiceProps = {
  service: Bundled
  several: boolean
  machine: string | null
  today: string
  /** It is alone on its row, and tells all it has to tell. */
  full: boolean
  settle: React.ComponentProps<typeof SettleSign>['settle'] | undefined
}

function Service({
  service: { clock, pump, standing },
  several,
  machine,
  today,
  full,
  settle,
}: ServiceProps) {
  const { unit } = pump
  return (
    <li className="bundle-service">
      <div>
        {several && <span className="strong">{pump.number} </span>}
        {clock.name}
        <span className="visually-hidden">, {stateWords[clock.state]}</span>
        {clock.where && <span className="second"> {clock.where}</span>}
        {standing === null && (
          <span className="second block">
            goes along: {leftWords(clock, unit, today)}, and saves a visit of its own
          </span>
        )}
        {clock.signs.map((sign) => (
          <span key={sign.id} className="second block brass">
            {sign.words}{' '}
            {settle && (
              <SettleSign
                sign={sign}
                label={`${machine ?? pump.number} ${clock.name.toLowerCase()}`}
                look="text"
                settle={settle}
              />
            )}
          </span>
        ))}
        {missingWords(clock) && <span className="second block oxide">{missingWords(clock)}</span>}
        {full && limitWords(clock, unit) && <span className="second block">{limitWords(clock, unit)}</span>}
      </div>
      <LifeStrip
        share={clock.share}
        early={clock.early}
        state={clock.state}
        width={100}
        says={`${usedWords(clock, unit)}, ${stateWords[clock.state]}`}
      />
      <span className="num">
        <DueFigures clock={clock} unit={unit} pump={pump.number} today={today}>
          {clock.assumed ? '~' : ''}
          {usedWords(clock, unit)}
        </DueFigures>
      </span>
    </li>
  )
}
