'use client'

import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import { ButtonLink } from '../frame/ButtonLink'
import { LifeStrip } from '../graphics/LifeStrip'
import { SettleSign } from '../inspection'
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

export function ServiceRow({ row: { pump, clock, visit }, today, actions, marks }: Shown<'service'>) {
  const pumpPath = `/fleet/pumps/${encodeURIComponent(pump.number)}`
  return (
    <Line
      className="due-row"
      mark={markOf[clock.state]}
      who={
        <Machine
          number={pump.machineNumber}
          name={pump.machineName}
          second={
            <>
              <Link href={pumpPath}>{pump.number}</Link> {pump.title}
            </>
          }
        />
      }
      what={
        <>
          {clock.name}
          <span className="visually-hidden">, {stateWords[clock.state]}</span>
          {clock.where && <span className="second block">{clock.where}</span>}
          {clock.signs.map((sign) => (
            <span key={sign.id} className="second block brass">
              {sign.words}
            </span>
          ))}
          <span className="second block oxide">{missingWords(clock)}</span>
          {limitWords(clock, pump.unit) && (
            <span className="second block">{limitWords(clock, pump.unit)}</span>
          )}
        </>
      }
      graphic={
        <>
          <LifeStrip
            share={clock.share}
            early={clock.early}
            state={clock.state}
            width={132}
            says={`${usedWords(clock, pump.unit)}, ${stateWords[clock.state]}`}
          />
          <DueFigures clock={clock} unit={pump.unit} pump={pump.number} today={today}>
            {clock.assumed ? '~' : ''}
            {usedWords(clock, pump.unit)}
          </DueFigures>
        </>
      }
      when={
        <>
          <span className={`strong ${inkOf[clock.state]}`}>{leftWords(clock, pump.unit, today)}</span>
          <span className="second block">{bandWords(clock, today)}</span>
          <span className={`second block ${actInk(clock, today)}`}>{actWords(clock, today)}</span>
        </>
      }
      action={
        <>
          {visit?.sheet ? (
            <ButtonLink href={`/sheets/${visit.sheet.id}`}>On the bench</ButtonLink>
          ) : visit ? (
            <ButtonLink href={`/plan/${visit.id}`}>On {showDay(visit.day, today)}</ButtonLink>
          ) : (
            <ButtonLink href={`${pumpPath}?book=${encodeURIComponent(clock.task)}`}>Book</ButtonLink>
          )}
          {actions &&
            clock.signs.map((sign) => (
              <SettleSign
                key={sign.id}
                sign={sign}
                label={`${pump.machineNumber ?? pump.number} ${clock.name.toLowerCase()}`}
                look="text"
                settle={actions.settleSign}
              />
            ))}
          {marks}
        </>
      }
    />
  )
}
