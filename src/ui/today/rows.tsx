'use client'

import { Link } from '../frame/Link'
import type { ReactNode } from 'react'
import { showAge, showDay } from '@/core/calendar'
import { showAmount } from '@/core/stores'
import { showMinutes, visitNumber } from '@/core/plan'
import type { TodayRow } from '@/core/today'
import { showNumber } from '@/core/units'
import { ButtonLink } from '../frame/ButtonLink'
import { LifeStrip } from '../graphics/LifeStrip'
import { PostMark, type PostMarkState } from '../graphics/PostMark'
import { EarlyCheckDialog, EarlyStrip, SettleSign } from '../inspection'
import { serviceWords } from '../plan'
import { StockMark } from '../stores'
import {
  markOf,
  DueFigures,
  actInk,
  actWords,
  bandWords,
  inkOf,
  leftWords,
  limitWords,
  stateWords,
  usedWords,
} from '../wear'
import type { TodayActions } from './actions'

type Of<Kind extends TodayRow['kind']> = Extract<TodayRow, { kind: Kind }>
type Shown<Kind extends TodayRow['kind']> = {
  row: Of<Kind>
  today: string
  /** Settles and records; null where whoever looks may not. */
  actions: TodayActions | null
  /** Who has it, and the ways to put it off or hand it on. */
  marks: ReactNode
}

/** One row of Today: what, why now, the one best action. */
export function Row(props: { row: TodayRow } & Omit<Shown<'service'>, 'row'>) {
  const { row, ...rest } = props
  switch (row.kind) {
    case 'service':
      return <ServiceRow row={row} {...rest} />
    case 'sign':
      return <SignRow row={row} {...rest} />
    case 'visit':
      return <VisitRow row={row} {...rest} />
    case 'doubt':
    case 'reading':
      return <MachineRow row={row} {...rest} />
    case 'earlyCheck':
      return <CheckRow row={row} {...rest} />
    case 'part':
      return <PartRow row={row} {...rest} />
  }
}

type LineProps = {
  className: string
  mark: PostMarkState
  who: ReactNode
  what: ReactNode
  graphic?: ReactNode
  when: ReactNode
  action: ReactNode
}

/** The one grid that every kind of row stands in. */
export function Line({ className, mark, who, what, graphic, when, action }: LineProps) {
  return (
    <li className={`today-row ${className}`}>
      <PostMark state={mark} silent />
      <div>{who}</div>
      <div>{what}</div>
      <div className="row-graphic">{graphic}</div>
      <div className="row-when">{when}</div>
      <div className="row-action">{action}</div>
    </li>
  )
}

function Machine({
  number,
  name,
  second,
}: {
  number: string | null
  name: string | null
  second: ReactNode
}) {
  return (
    <>
      {number ? (
        <Link href={`/fleet/${encodeURIComponent(number)}`} className="strong">
          {number}
        </Link>
      ) : (
        <span className="strong">Shelf</span>
      )}{' '}
      {name}
      <span className="second block">{second}</span>
    </>
  )
}

function ServiceRow({ row: { pump, clock, visit }, today, actions, marks }: Shown<'service'>) {
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
          {clock.leadTime.parts.length > 0 && (
            <span className="second block oxide">
              {clock.leadTime.parts.length === 1
                ? `${clock.leadTime.parts[0]} missing`
                : `${clock.leadTime.parts.length} parts missing`}
            </span>
          )}
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

function SignRow({ row: { sign }, today, actions, marks }: Shown<'sign'>) {
  const late = sign.by < today
  const [first] = sign.triage.checks
  const path = sign.machineNumber
    ? `/fleet/${encodeURIComponent(sign.machineNumber)}#signs`
    : `/fleet/pumps/${encodeURIComponent(sign.pump ?? '')}#signs`
  return (
    <Line
      className="sign-row"
      mark={late ? 'atRisk' : 'doubted'}
      who={<Machine number={sign.machineNumber} name={sign.machineName} second={sign.pump} />}
      what={
        <>
          {sign.name}
          <span className="second block">
            {[sign.words, sign.figures].filter(Boolean).join(', ')} · {sign.reportedBy},{' '}
            {showDay(sign.seenOn, today)}
          </span>
          {sign.triage.stop && <span className="second block oxide">{sign.triage.stop}</span>}
        </>
      }
      graphic={first && <span className="second">first: {first.text}</span>}
      when={
        <>
          <span className={`strong ${late ? 'oxide' : 'brass'}`}>
            {late ? 'since' : 'by'} {showDay(sign.by, today)}
          </span>
          <span className="second block">a sign</span>
        </>
      }
      action={
        <>
          <ButtonLink href={path}>First checks</ButtonLink>
          {actions && (
            <SettleSign
              sign={sign}
              label={`${sign.machineNumber ?? sign.pump ?? ''} ${sign.name.toLowerCase()}`}
              look="text"
              settle={actions.settleSign}
            />
          )}
          {marks}
        </>
      }
    />
  )
}

function VisitRow({ row: { visit }, today }: Shown<'visit'>) {
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
          {visit.late && <span className="second block">was on {showDay(visit.day, today)}</span>}
        </>
      }
      action={
        visit.sheet ? (
          <ButtonLink href={`/sheets/${visit.sheet.id}`}>On the bench</ButtonLink>
        ) : (
          <ButtonLink href={`/plan/${visit.id}`}>{visit.late ? 'Move' : 'Prepare'}</ButtonLink>
        )
      }
    />
  )
}

const unique = (value: string, index: number, all: string[]) => all.indexOf(value) === index

function MachineRow({ row, today, marks }: Shown<'doubt' | 'reading'>) {
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

function CheckRow({ row: { check }, today, actions, marks }: Shown<'earlyCheck'>) {
  const due = check.worked >= check.afterHours
  return (
    <Line
      className="check-row"
      mark={due ? 'dueSoon' : 'open'}
      who={<Machine number={check.machineNumber} name={check.machineName} second={check.pump} />}
      what={
        <>
          Early check
          <span className="second block">
            after sheet <Link href={`/sheets/${check.sheet.id}`}>{check.sheet.number}</Link>: {check.services}
          </span>
        </>
      }
      graphic={
        <>
          <EarlyStrip worked={check.worked} afterHours={check.afterHours} unit={check.unit} />
          <span className="second block">
            {showNumber(Math.round(check.worked))} of {showNumber(check.afterHours)}
            {'\u00a0'}
            {check.unit}
          </span>
        </>
      }
      when={
        <span className={`strong ${due ? 'brass' : ''}`}>
          {due ? 'due' : check.aboutDay ? `about ${showDay(check.aboutDay, today)}` : 'not in use'}
        </span>
      }
      action={
        <>
          {actions ? (
            <EarlyCheckDialog check={check} record={actions.recordEarlyCheck} />
          ) : (
            <ButtonLink href={`/fleet/pumps/${encodeURIComponent(check.pump)}`}>Look</ButtonLink>
          )}
          {marks}
        </>
      }
    />
  )
}

function PartRow({ row: { part, coming, actBy }, today, marks }: Shown<'part'>) {
  const wanted = part.short > 0 || part.missing > 0 || part.below
  const late = actBy !== null && actBy < today
  return (
    <Line
      className="part-row"
      mark={part.short > 0 ? 'doubted' : part.tooLate ? 'atRisk' : 'waiting'}
      who={
        <>
          <Link href={`/stores/${encodeURIComponent(part.number)}`} className="strong">
            {part.number}
          </Link>
          <span className="second block">{showAmount(part.onHand, part.unit)} on hand</span>
        </>
      }
      what={
        <>
          {part.name}
          {coming && (
            <span className="second block">
              about {showAmount(coming.expected, part.unit)} wanted in eight weeks for {listed(coming.for)};
              below the {showAmount(coming.minimum, part.unit)} to keep on {showDay(coming.wantedOn, today)}
            </span>
          )}
        </>
      }
      graphic={wanted ? <StockMark part={part} /> : undefined}
      when={
        coming ? (
          <>
            <span className={`strong ${late ? 'oxide' : 'brass'}`}>
              order {late ? 'now' : `by ${showDay(coming.orderBy, today)}`}
            </span>
            <span className="second block">
              {showAmount(coming.order, part.unit)}, {part.leadDays} days to come
            </span>
          </>
        ) : (
          <span className={part.missing > 0 && part.short === 0 ? 'oxide strong' : 'second'}>
            {part.short > 0 || part.missing === 0
              ? 'today'
              : actBy !== null && actBy < today
                ? `order now, late since ${showDay(actBy, today)}`
                : `order by ${showDay(actBy ?? today, today)}`}
          </span>
        )
      }
      action={
        <>
          <ButtonLink href={`/stores/${encodeURIComponent(part.number)}`}>
            {part.short > 0 ? 'Count' : 'Look'}
          </ButtonLink>
          {marks}
        </>
      }
    />
  )
}

function listed(names: string[]): string {
  return names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ')
}
