'use client'

import { showDay } from '@/core/calendar'
import { ButtonLink } from '../frame/ButtonLink'
import { SettleSign } from '../inspection'
import { type Shown, Line, Machine } from './Line'

export function SignRow({ row: { sign }, today, actions, marks }: Shown<'sign'>) {
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
