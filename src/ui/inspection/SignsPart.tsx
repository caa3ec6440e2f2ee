'use client'

import { Button } from '../frame/Button'
import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import { signOutcomes, type SettleSignInput, type SignInput, type SignView } from '@/core/inspection'
import type { Outcome } from '@/core/problem'
import { useToast } from '../feedback/Toasts'
import { PostMark } from '../graphics/PostMark'
import { FirstChecks } from './FirstChecks'
import { ReportSign, type SignPump } from './ReportSign'
import { SettleSign } from './SettleSign'

export type SignActions = {
  reportSign: (input: SignInput) => Promise<Outcome>
  settleSign: (input: SettleSignInput) => Promise<Outcome>
  reopenSign: (input: { id: string; version: number }) => Promise<Outcome>
}

type Props = {
  signs: SignView[]
  machineId: string | null
  pumps: SignPump[]
  today: string
  mayReport: boolean
  actions: SignActions
}

/** What was seen: open signs with what to check first, and those settled. */
export function SignsPart({ signs, machineId, pumps, today, mayReport, actions }: Props) {
  const open = signs.filter((sign) => sign.settled === null)
  const settled = signs.filter((sign) => sign.settled !== null)
  return (
    <div id="signs">
      {open.length === 0 && <p className="second">Nothing is reported that still stands.</p>}
      <ul className="line-list signs">
        {open.map((sign) => (
          <li key={sign.id}>
            <PostMark state={sign.by < today ? 'atRisk' : 'doubted'} silent />
            <div className="grow">
              <SignWords sign={sign} today={today} />
              <details>
                <summary>First checks</summary>
                <FirstChecks triage={sign.triage} positionsWords />
              </details>
            </div>
            {mayReport && (
              <SettleSign sign={sign} label={sign.name.toLowerCase()} settle={actions.settleSign} />
            )}
          </li>
        ))}
      </ul>
      {mayReport && (
        <div className="actions">
          <ReportSign machineId={machineId} pumps={pumps} today={today} report={actions.reportSign} />
        </div>
      )}
      {settled.length > 0 && (
        <details className="settled-signs">
          <summary>{settled.length === 1 ? 'One settled' : `${settled.length} settled`}</summary>
          <ul className="line-list">
            {settled.map((sign) => (
              <SettledSign key={sign.id} sign={sign} today={today} mayReport={mayReport} actions={actions} />
            ))}
          </ul>
        </details>
      )}
    </div>
  )
}

/** What was seen, by whom, when, and what it brings forward. */
export function SignWords({ sign, today }: { sign: SignView; today: string }) {
  return (
    <>
      <span className="strong">{sign.name}</span>
      {sign.pump && <span className="second"> {sign.pump}</span>}
      <div>{[sign.words, sign.figures].filter(Boolean).join(', ')}</div>
      <div className="second">
        {sign.reportedBy}, {showDay(sign.seenOn, today)}
        {sign.sheet && (
          <>
            {' '}
            · after the service on <Link href={`/sheets/${sign.sheet.id}`}>sheet {sign.sheet.number}</Link>
          </>
        )}
        {!sign.settled && (
          <>
            {' · '}
            <span className={sign.by < today ? 'oxide strong' : 'brass strong'}>
              to be seen to by {showDay(sign.by, today)}
            </span>
          </>
        )}
      </div>
      {sign.service && <div className="second">brings forward: {sign.service}</div>}
    </>
  )
}

function SettledSign({
  sign,
  today,
  mayReport,
  actions,
}: { sign: SignView } & Pick<Props, 'today' | 'mayReport' | 'actions'>) {
  const toast = useToast()
  const { settled } = sign
  if (!settled) return null
  const reopen = async () => {
    const outcome = await actions.reopenSign({ id: sign.id, version: sign.version })
    toast(outcome.ok ? 'It stands on Today again.' : outcome.problem.message)
  }
  return (
    <li className="receding">
      <PostMark state="done" silent size={16} />
      <div className="grow">
        <SignWords sign={sign} today={today} />
        <div>
          {signOutcomes[settled.outcome]}: {settled.words}{' '}
          <span className="second">
            {settled.by}, {showDay(settled.day, today)}
          </span>
        </div>
      </div>
      {mayReport && (
        <Button variant="text" onClick={() => void reopen()}>
          Open again
        </Button>
      )}
    </li>
  )
}
