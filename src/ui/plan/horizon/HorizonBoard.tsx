'use client'

import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { addDays, daysBetween, showDay } from '@/core/calendar'
import {
  benchLoad,
  fleetProblem,
  horizonRows,
  takeOf,
  weeklyLoad,
  type ApproveInput,
  type Fleet,
  type PinInput,
  type PlannerAnswers,
  type Proposal,
  type TakeInput,
  type WhatIfAnswer,
} from '@/core/plan'
import { problemWords, type Outcome } from '@/core/problem'
import { showMoney } from '@/core/units'
import { Button } from '../../frame/Button'
import { useToast } from '../../feedback/Toasts'
import { unpack, type Packed } from '../../frame/packed'
import type { DecideActions } from '../DecideVisit'
import { HorizonChart, type YardFrostDays } from './HorizonChart'
import type { Selected } from './selected'
import { HorizonPanel } from './HorizonPanel'
import { ProposalList } from './ProposalList'
import { usePlanner } from './usePlanner'
import { WhatIfForm } from './WhatIfForm'
import './horizon.css'

type Props = {
  packed: Packed<Fleet>
  yards: { id: string; name: string }[]
  frost: YardFrostDays[]
  currency: string
  mayPlan: boolean
  take: DecideActions['takePlan']
  decide: DecideActions
  approve: (input: ApproveInput) => Promise<Outcome<{ approved: number }>>
  pin: (input: PinInput) => Promise<Outcome>
}

const chartWidth = 672

/** Machines against weeks, with what is due, booked and proposed; what is chosen stands beside it. */
export function HorizonBoard({ packed, yards, frost, currency, mayPlan, take, decide, approve, pin }: Props) {
  const fleet = unpack(packed)
  const router = useRouter()
  const toast = useToast()
  const planner = usePlanner()
  const [selected, setSelected] = useState<Selected | null>(null)
  const [trouble, setTrouble] = useState('')
  const perDay = chartWidth / (fleet.weeks * 7)
  const rows = useMemo(() => horizonRows(fleet, yards, Math.ceil(36 / perDay)), [fleet, yards, perDay])
  const load = useMemo(() => weeklyLoad(fleet, fleetProblem(fleet).crew), [fleet])
  const benches = useMemo(() => benchLoad(fleet, yards), [fleet, yards])
  const { state } = planner
  const proposals =
    state.kind === 'planned' ? state.planned.proposals : state.kind === 'tried' ? state.answer.proposals : []

  async function takeThese(input: TakeInput, done: string): Promise<boolean> {
    setTrouble('')
    const outcome = await take(input)
    if (!outcome.ok) {
      setTrouble(problemWords(outcome.problem))
      return false
    }
    planner.clear()
    setSelected(null)
    router.refresh()
    const { back } = outcome.data
    toast(done, async () => {
      const undone = await take(back)
      if (!undone.ok) setTrouble(problemWords(undone.problem))
      router.refresh()
    })
    return true
  }
  const takeProposals = (chosen: Proposal[]) =>
    takeThese(
      takeOf(uuid(), chosen, fleet),
      chosen.length === 1 ? 'One change is taken.' : `${chosen.length} changes are taken.`,
    )

  const lists = {
    fleet,
    look: ({ machineId, day }: Proposal) =>
      setSelected({ kind: 'day', machineId, day: daysBetween(fleet.today, day) }),
    take: takeProposals,
    leave: planner.clear,
  }

  return (
    <div className="horizon">
      <div>
        <HorizonChart
          fleet={fleet}
          yards={rows}
          frost={frost}
          load={load}
          benches={benches}
          perDay={perDay}
          width={chartWidth}
          proposals={proposals}
          selected={selected}
          select={setSelected}
          movable={mayPlan}
        />
      </div>
      <aside className="horizon-panel" aria-label="Chosen">
        {trouble !== '' && (
          <p className="oxide strong" role="alert">
            {trouble}
          </p>
        )}
        {mayPlan && planner.state.kind !== 'planned' && planner.state.kind !== 'tried' && (
          <div className="horizon-propose">
            {planner.state.kind === 'running' ? (
              <>
                <p role="status">
                  Planning{' '}
                  {Math.round(
                    (100 * (planner.state.progress?.done ?? 0)) / (planner.state.progress?.of || 1),
                  )}{' '}
                  %
                  <progress value={planner.state.progress?.done ?? 0} max={planner.state.progress?.of || 1} />
                </p>
                <Button variant="outlined" onClick={planner.stop}>
                  Stop with the best so far
                </Button>
              </>
            ) : (
              <Button variant="contained" onClick={() => planner.plan(fleet, currency)}>
                Propose {fleet.weeks} weeks
              </Button>
            )}
            {planner.state.kind === 'failed' && (
              <p className="oxide" role="alert">
                {planner.state.says}
              </p>
            )}
          </div>
        )}
        <HorizonPanel
          fleet={fleet}
          selected={selected}
          select={setSelected}
          currency={currency}
          mayPlan={mayPlan}
          {...{ decide, approve, pin }}
          move={(visitId, day, leadId) => {
            const visit = fleet.visits.find(({ id }) => id === visitId)!
            const items = fleet.services
              .filter((service) => service.visitId === visitId)
              .map(({ assemblyId, task, positions }) => ({ assemblyId, task, positions }))
            return takeThese(
              {
                id: uuid(),
                visits: [{ visitId, version: visit.version, day, leadId, items }],
                cancel: [],
                restore: [],
              },
              `Moved to ${showDay(day, fleet.today)}.`,
            )
          }}
        />
        {planner.state.kind === 'planned' && (
          <ProposalList
            proposals={proposals}
            unplaced={planner.state.planned.unplaced}
            says={goodness(planner.state.planned, currency)}
            {...lists}
          />
        )}
        {planner.state.kind === 'tried' && (
          <>
            <Broken answer={planner.state.answer} />
            <ProposalList
              proposals={proposals}
              unplaced={planner.state.answer.unplaced}
              says="The smallest repair. Nothing is stored until it is taken."
              {...lists}
            />
          </>
        )}
        {mayPlan && (planner.state.kind === 'idle' || planner.state.kind === 'failed') && (
          <WhatIfForm fleet={fleet} yards={yards} ask={(change) => planner.whatIf(fleet, currency, change)} />
        )}
        {planner.state.kind === 'idle' && selected === null && (
          <p className="second">
            Choose a block for its reasons. Drag a visit to another day, or use the arrow keys; nothing is
            moved until you say so. {showDay(fleet.today)} to{' '}
            {showDay(addDays(fleet.today, fleet.weeks * 7 - 1), fleet.today)}.
          </p>
        )}
      </aside>
    </div>
  )
}

/** How good a plan is against what no plan can be cheaper than. */
function goodness(
  { cost, lowerBound, proven }: Extract<PlannerAnswers, { kind: 'planned' }>,
  currency: string,
): string {
  const total = showMoney(Math.round(cost.total), currency)
  if (proven) return `${total}: there is no cheaper plan.`
  const gap = lowerBound > 0 ? (100 * (cost.total - lowerBound)) / cost.total : 100
  return `${total}; no plan is more than ${gap < 0.1 ? 'a tenth of a percent' : `${gap.toFixed(1)} %`} cheaper.`
}

/** What of the booked visits would not hold, and last what does not hold anyway. */
function Broken({ answer: { broken } }: { answer: WhatIfAnswer }) {
  const breaks = broken.some(({ isSo }) => !isSo)
  return (
    <section className="part" aria-label="What breaks">
      <header>
        <h2>
          {breaks ? 'What breaks' : broken.length > 0 ? 'Nothing more breaks' : 'Every booked visit holds'}
        </h2>
      </header>
      <ul className="line-list">
        {broken.map(({ machine, says, isSo }) => (
          <li key={machine + says}>
            <span className={isSo ? 'second' : undefined}>
              <strong>{machine}</strong> {says}
              {isSo && ' It is so already.'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
