'use client'

import { Link } from '../frame/Link'
import { showFarDay } from '@/core/calendar'
import { showNumber } from '@/core/units'
import { ButtonLink } from '../frame/ButtonLink'
import { EarlyCheckDialog, EarlyStrip } from '../inspection'
import { type Shown, Line, Machine } from './Line'

export function CheckRow({ row: { check }, today, actions, marks }: Shown<'earlyCheck'>) {
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
          {due ? 'due' : check.aboutDay ? `about ${showFarDay(check.aboutDay, today)}` : 'not in use'}
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
