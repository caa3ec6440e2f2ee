'use client'

import Button from '@mui/material/Button'
import { useState } from 'react'
import { showAmount, tidy } from '@/core/parts'
import type { SheetPage } from '@/core/sheet/views'
import { AskDialog } from './AskDialog'
import { BenchPositions } from './BenchPositions'
import { PartDialog, type PartStart } from './PartDialog'
import type { SheetHandle } from './useSheet'
import { clockTime } from './words'

type Props = { sheet: SheetPage; bench: SheetHandle; timeZone: string }

/** What stands beside the work: the positions, the parts expected and used, the remarks. */
export function BenchSide({ sheet, bench, timeZone }: Props) {
  const { state } = bench
  const [using, setUsing] = useState<PartStart | null>(null)
  const [remarking, setRemarking] = useState(false)
  const several = state.content.assemblies.length > 1
  const usedOf = (assemblyId: string, part: string) =>
    state.uses.filter(({ payload }) => payload.assemblyId === assemblyId && payload.part === part)
  const others = state.uses.filter(
    ({ payload }) =>
      !state.content.parts.some(
        (need) => need.assemblyId === payload.assemblyId && need.part === payload.part,
      ),
  )
  return (
    <aside className="bench-side" aria-label="Positions and parts">
      {state.content.assemblies.map((assembly) => (
        <BenchPositions
          key={assembly.id}
          assembly={assembly}
          bench={bench}
          wear={sheet.wear.find((view) => view.assemblyId === assembly.id) ?? null}
        />
      ))}
      <section>
        <header>
          <h2>Parts used</h2>
          <span className="second">tap when it is taken</span>
        </header>
        <ul className="bench-parts">
          {state.content.parts.map((need) => {
            const uses = usedOf(need.assemblyId, need.part)
            const used = tidy(uses.reduce((sum, { payload }) => sum + payload.quantity, 0))
            const enough = used >= need.quantity
            const pump = state.content.assemblies.find((assembly) => assembly.id === need.assemblyId)
            return (
              <li key={`${need.assemblyId} ${need.part}`}>
                <button
                  type="button"
                  onClick={() =>
                    setUsing({
                      assemblyId: need.assemblyId,
                      modelId: pump?.modelId ?? null,
                      part: need.part,
                      name: need.name,
                      unit: need.unit,
                      quantity: tidy(Math.max(0, need.quantity - used)) || need.quantity,
                      uses,
                    })
                  }
                >
                  <PartMark used={enough} />
                  <span>
                    {need.name}
                    {several && <span className="second"> {pump?.number}</span>}
                  </span>
                  <span className="strong num">
                    {used > 0 && used !== need.quantity ? `${showAmount(used, need.unit)} of ` : ''}
                    {showAmount(need.quantity, need.unit)}
                  </span>
                </button>
              </li>
            )
          })}
          {others.map((use) => (
            <li key={use.id}>
              <button
                type="button"
                onClick={() =>
                  setUsing({
                    assemblyId: use.payload.assemblyId,
                    modelId: null,
                    part: use.payload.part,
                    name: use.payload.name,
                    unit: use.payload.unit,
                    quantity: use.payload.quantity,
                    uses: [use],
                  })
                }
              >
                <PartMark used />
                <span>
                  {use.payload.name} <span className="second">besides</span>
                </span>
                <span className="strong num">{showAmount(use.payload.quantity, use.payload.unit)}</span>
              </button>
            </li>
          ))}
        </ul>
        <div className="bench-pair">
          <Button
            variant="outlined"
            onClick={() => setUsing(freePart(state.content.assemblies[0]?.id ?? null))}
          >
            Other part
          </Button>
          <Button variant="outlined" onClick={() => setRemarking(true)}>
            Remark
          </Button>
        </div>
      </section>
      {state.remarks.length > 0 && (
        <section>
          <header>
            <h2>Remarks</h2>
          </header>
          <ul>
            {state.remarks.map((entry) => (
              <li key={entry.id} className="bench-remark">
                <span className="second">
                  {entry.byName}, {clockTime(entry.at, timeZone)}
                </span>{' '}
                {entry.payload.text}{' '}
                <button
                  type="button"
                  className="plain-button"
                  onClick={() => void bench.write('takeBack', { of: entry.id, reason: '' })}
                >
                  Take back
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
      {using && <PartDialog start={using} stock={sheet.parts} bench={bench} onClose={() => setUsing(null)} />}
      {remarking && (
        <AskDialog
          title="Remark"
          fields={[{ name: 'text', label: 'Remark', lines: 4 }]}
          submit="Keep it"
          onClose={() => setRemarking(false)}
          send={({ text }) => bench.write('remark', { text: text ?? '' })}
        />
      )}
    </aside>
  )
}

function freePart(assemblyId: string | null): PartStart {
  return { assemblyId, modelId: null, part: null, name: '', unit: 'piece', quantity: 1, uses: [] }
}

function PartMark({ used }: { used: boolean }) {
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" role="img" aria-label={used ? 'used' : 'expected'}>
      {used ? (
        <path d="m3 9.5 4 4 8-9" fill="none" stroke="var(--moss)" strokeWidth="2.2" />
      ) : (
        <rect x="3.5" y="5.5" width="11" height="7" fill="none" stroke="var(--edge)" />
      )}
    </svg>
  )
}
