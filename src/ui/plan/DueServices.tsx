'use client'

import { useState } from 'react'
import { showDay } from '@/core/calendar'
import type { DueService } from '@/core/plan'
import { ButtonLink } from '../frame/ButtonLink'
import { Link } from '../frame/Link'
import { unpack, type Packed } from '../frame/packed'
import { LifeStrip } from '../graphics/LifeStrip'
import { PostMark } from '../graphics/PostMark'
import {
  actInk,
  actWords,
  bandWords,
  DueFigures,
  inkOf,
  leftWords,
  limitWords,
  missingWords,
  markOf,
  stateWords,
  usedWords,
} from '../wear'
import './dueServices.css'

type Props = {
  services: Packed<{ now: DueService[]; later: DueService[] }>
  /** Whether there are several pumps, so that each row names its own. */
  several: boolean
  today: string
  /** The machine's page, where one is booked with the machine's other services chosen along; null for whoever may not. */
  bookOn: string | null
}

/** What is due on a machine, overdue first, each with the one thing to do about it; what is far is folded. */
export function DueServices({ services, ...rest }: Props) {
  const { now, later } = unpack(services)
  const [all, setAll] = useState(false)
  return (
    <>
      <ul className="due-services">
        {now.map((service) => (
          <Service key={keyOf(service)} service={service} {...rest} />
        ))}
      </ul>
      {later.length > 0 && (
        <details onToggle={(event) => setAll(event.currentTarget.open)}>
          <summary>{later.length === 1 ? 'One more, later' : `${later.length} more, later`}</summary>
          {all && (
            <ul className="due-services">
              {later.map((service) => (
                <Service key={keyOf(service)} service={service} {...rest} />
              ))}
            </ul>
          )}
        </details>
      )}
    </>
  )
}

const keyOf = ({ pump, clock }: DueService) => `${pump.number} ${clock.task} ${clock.where}`

function Service({ service, several, today, bookOn }: { service: DueService } & Omit<Props, 'services'>) {
  const { pump, clock, visit } = service
  const limits = limitWords(clock, pump.unit)
  return (
    <li>
      <span className="mark-line">
        <PostMark state={markOf[clock.state]} size={16} silent />
        <span>
          <span className={clock.state === 'healthy' ? undefined : 'strong'}>{clock.name}</span>
          <span className="visually-hidden">, {stateWords[clock.state]}</span>
          <span className="second block">
            {several && <Link href={`/fleet/pumps/${encodeURIComponent(pump.number)}`}>{pump.number}</Link>}
            {several && clock.where && ' · '}
            {clock.where}
          </span>
          {clock.signs.map((sign) => (
            <span key={sign.id} className="second block brass">
              {sign.words}
            </span>
          ))}
          {clock.state !== 'healthy' && <span className="second block oxide">{missingWords(clock)}</span>}
          {limits && <span className="second block">{limits}</span>}
        </span>
      </span>
      <span>
        <LifeStrip
          share={clock.share}
          early={clock.early}
          state={clock.state}
          width={112}
          says={`${usedWords(clock, pump.unit)}, ${stateWords[clock.state]}`}
        />
        <span className="second block nowrap">
          {clock.assumed ? '~' : ''}
          {usedWords(clock, pump.unit)}
        </span>
      </span>
      <span>
        <DueFigures clock={clock} unit={pump.unit} pump={pump.number} today={today}>
          <span className={`strong ${inkOf[clock.state]}`}>{leftWords(clock, pump.unit, today)}</span>
        </DueFigures>
        <span className="second block">{bandWords(clock, today)}</span>
        {clock.state !== 'healthy' && (
          <span className={`second block ${actInk(clock, today)}`}>{actWords(clock, today)}</span>
        )}
      </span>
      <span className="row-action">
        {visit?.sheet ? (
          <ButtonLink href={`/sheets/${visit.sheet.id}`}>On the bench</ButtonLink>
        ) : visit ? (
          <ButtonLink href={`/plan/${visit.id}`}>On {showDay(visit.day, today)}</ButtonLink>
        ) : (
          bookOn && <ButtonLink href={`${bookOn}?book=${encodeURIComponent(clock.task)}`}>Book</ButtonLink>
        )}
      </span>
    </li>
  )
}
