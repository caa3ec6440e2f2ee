'use client'

import { useState } from 'react'
import {
  conditionOutcomes,
  notReady,
  outcomeWords,
  partName,
  partsOpen,
  proofStops,
  sortAt,
  soundFinding,
  stopped,
  stoppedBy,
  toRenew,
  unseen,
  wentBack,
  type Finding,
  type StepState,
  type SheetPage,
} from '@/core/sheets'
import { dispositions } from '@/core/inspection'
import { showAmount } from '@/core/stores'
import { Button } from '../../frame/Button'
import { ButtonLink } from '../../frame/ButtonLink'
import { AskDialog } from '../bench/AskDialog'
import { PositionDialog } from '../bench/BenchPositions'
import { takeAtOnce } from '../bench/BenchSide'
import { PartDialog, type OpenKit, type PartStart } from '../bench/PartDialog'
import type { SheetHandle } from '../bench/useSheet'
import { soundWords } from '../words'

/** What a part that stopped the job can be decided to. */
const decidable = ['renew', 'reuse', 'clean'] as const

type Props = {
  sheet: SheetPage
  bench: SheetHandle
  openKit: OpenKit | null
  more: (start: { assemblyId: string; task: string; positions: string[] } | null) => void
}

/** What is left before signing, each with the tap that settles it. */
export function EndOfSheet({ sheet, bench, openKit, more }: Props) {
  const { state } = bench
  const [open, setOpen] = useState<{ assemblyId: string; position: string } | null>(null)
  const [using, setUsing] = useState<PartStart | null>(null)
  const [deciding, setDeciding] = useState<Finding | null>(null)
  const [without, setWithout] = useState<{ assemblyId: string; part: string; name: string } | null>(null)
  const reasons = notReady(state)
  const stops = proofStops(state)
  const [givingBack, setGivingBack] = useState<StepState | null>(null)
  const old = unseen(state)
  const parts = partsOpen(state)
  const undecided = [...stopped(state), ...toRenew(state), ...wentBack(state)]
  const nothingSeen = async (list: typeof old) => {
    for (const { assemblyId, position } of list)
      await bench.write('finding', soundFinding(state, assemblyId, position))
  }
  const startOf = (need: (typeof parts)[number]): PartStart => ({
    assemblyId: need.assemblyId,
    modelId: state.content.assemblies.find((each) => each.id === need.assemblyId)?.modelId ?? null,
    part: need.part,
    name: need.name,
    unit: need.unit,
    quantity: need.quantity,
    uses: [],
  })
  const take = async (list: typeof parts) => {
    for (const need of list) {
      const start = startOf(need)
      if ((await takeAtOnce(bench, sheet.parts, start)) === 'ask' && list.length === 1) setUsing(start)
    }
  }
  return (
    <div className="bench-step">
      <h2 className="step-title">
        {reasons.length === 0 ? 'Everything is done' : 'Not ready to be signed yet'}
      </h2>
      {reasons.length > 0 ? (
        <ul className="bench-list">
          {reasons.map((reason) => (
            <li key={reason}>{reason}</li>
          ))}
        </ul>
      ) : (
        <p>
          Look at positions and parts on the right once more: what they say is what will be recorded. Then
          sign.
        </p>
      )}
      {conditionOutcomes(state).map((outcome) => (
        <p key={`${outcome.assemblyId} ${outcome.name}`}>
          {outcome.name}: <span className="strong">{outcomeWords(outcome)}</span>{' '}
          {state.content.assemblies.length > 1 && <span className="second">{outcome.pump}</span>}
        </p>
      ))}
      {undecided.length > 0 && (
        <section>
          <h3>To decide</h3>
          <ul className="end-rows">
            {undecided.map(({ id, payload }) => (
              <li key={id}>
                <span className="grow">{partName(state, payload)}</span>
                {payload.position && (
                  <Button
                    variant="outlined"
                    onClick={() => setOpen({ assemblyId: payload.assemblyId, position: payload.position! })}
                  >
                    Decide
                  </Button>
                )}
                {payload.position === null && (
                  <Button variant="outlined" onClick={() => setDeciding(payload)}>
                    Decide
                  </Button>
                )}
                {payload.position && payload.disposition !== 'stop' && (
                  <Button
                    variant="contained"
                    onClick={() =>
                      more({
                        assemblyId: payload.assemblyId,
                        task: renewingTask(sheet, payload.assemblyId, payload.position!),
                        positions: [payload.position!],
                      })
                    }
                  >
                    Add it
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      {stops.length > 0 && (
        <section>
          <h3>Proving was stopped</h3>
          <ul className="end-rows">
            {stops.map((stop) => (
              <li key={stop.step.key}>
                <span className="grow">{stoppedBy(stop)}</span>
                <Button variant="outlined" onClick={() => setGivingBack(stop)}>
                  It goes back so
                </Button>
                <Button variant="contained" onClick={() => more(null)}>
                  Add work
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {old.length > 0 && (
        <section>
          <h3>What was seen on the old parts</h3>
          <ul className="end-rows">
            {old.map((each) => (
              <li key={`${each.assemblyId} ${each.position}`}>
                <span className="grow">{each.name}</span>
                <Button variant="outlined" onClick={() => setOpen(each)}>
                  Damage
                </Button>
                <Button variant="outlined" onClick={() => void nothingSeen([each])}>
                  {soundWords(sortAt(state, each.assemblyId, each.position)).split(',')[0]}
                </Button>
              </li>
            ))}
          </ul>
          {old.length > 1 && (
            <Button variant="outlined" onClick={() => void nothingSeen(old)}>
              Nothing seen on all {old.length}
            </Button>
          )}
        </section>
      )}
      {parts.length > 0 && (
        <section>
          <h3>Parts this work uses up</h3>
          <ul className="end-rows">
            {parts.map((need) => (
              <li key={`${need.assemblyId} ${need.part}`}>
                <span className="grow">
                  {need.name} <span className="second">{showAmount(need.quantity, need.unit)}</span>
                </span>
                <Button variant="outlined" onClick={() => setWithout(need)}>
                  Not used
                </Button>
                <Button variant="outlined" onClick={() => void take([need])}>
                  Used
                </Button>
              </li>
            ))}
          </ul>
          {parts.length > 1 && (
            <Button variant="outlined" onClick={() => void take(parts)}>
              All {parts.length} used as expected
            </Button>
          )}
        </section>
      )}
      <div className="bench-buttons">
        {reasons.length === 0 && (
          <ButtonLink
            href={`/sheets/${sheet.id}/sign`}
            filled
            disabled={bench.waiting > 0}
            className="confirm"
          >
            Look at it and sign
          </ButtonLink>
        )}
        {bench.waiting > 0 && (
          <p className="brass strong">{bench.waiting} entries are still on this device.</p>
        )}
      </div>
      {open && <PositionDialog {...open} bench={bench} onClose={() => setOpen(null)} />}
      {using && (
        <PartDialog
          start={using}
          stock={sheet.parts}
          bench={bench}
          openKit={openKit}
          onClose={() => setUsing(null)}
        />
      )}
      {deciding && (
        <AskDialog
          title={partName(state, deciding)}
          intro="What is to be renewed and is no position of the pump stands open as a sign from the signature on, until somebody has seen to it."
          fields={[
            {
              name: 'disposition',
              label: 'Decided',
              options: decidable.map((each) => dispositions[each]),
            },
            { name: 'words', label: 'By whom, and why' },
          ]}
          submit="It is decided"
          onClose={() => setDeciding(null)}
          send={({ disposition, words }) =>
            bench.write('finding', {
              ...deciding,
              disposition: decidable.find((each) => dispositions[each] === disposition) ?? 'renew',
              words: words ?? '',
            })
          }
        />
      )}
      {givingBack && (
        <AskDialog
          title={`Goes back with ${stoppedBy(givingBack)}`}
          intro="Only where the maker’s manual and whoever is responsible allow it."
          fields={[{ name: 'reason', label: 'By whom, and why' }]}
          submit="It goes back so"
          onClose={() => setGivingBack(null)}
          send={({ reason }) =>
            bench.write(
              'done',
              { measure: null, torque: null, answer: '', reason: reason ?? '' },
              givingBack.step.key,
            )
          }
        />
      )}
      {without && (
        <AskDialog
          title={`${without.name} was not used`}
          fields={[{ name: 'reason', label: 'Why' }]}
          submit="Note it"
          onClose={() => setWithout(null)}
          send={({ reason }) =>
            bench.write('notUsed', {
              assemblyId: without.assemblyId,
              part: without.part,
              reason: reason ?? '',
            })
          }
        />
      )}
    </div>
  )
}

/** The service of a pump that renews a position, as its clocks know it. */
function renewingTask(sheet: SheetPage, assemblyId: string, position: string): string {
  const view = sheet.wear.find((each) => each.assemblyId === assemblyId)
  return (
    view?.renewals.find((each) => each.positions.some((one) => one.key === position))?.task ??
    view?.clocks.find((clock) => clock.kind === 'renew' && clock.positions.includes(position))?.task ??
    ''
  )
}
