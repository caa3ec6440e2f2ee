'use client'

import { useState } from 'react'
import { causesOn, matesToLookAt } from '@/core/sheets'
import { PositionDialog } from './BenchPositions'
import type { SheetHandle } from './useSheet'

/** What the findings so far point to, why, what to check on the machine, and which mating part to look at. */
export function CausesPanel({ bench }: { bench: SheetHandle }) {
  const [open, setOpen] = useState<{ assemblyId: string; position: string } | null>(null)
  const pumps = causesOn(bench.state)
  const mates = matesToLookAt(bench.state)
  if (pumps.length === 0 && mates.length === 0) return null
  return (
    <section className="causes">
      <header>
        <h2>Points to</h2>
        <span className="second">never a certainty</span>
      </header>
      {mates.map((mate) => (
        <button
          key={`${mate.assemblyId} ${mate.position}`}
          type="button"
          className="mate-button"
          onClick={() => setOpen(mate)}
        >
          <span className="strong">Look at {mate.name.toLowerCase()}</span>
          <span className="second block">it runs against {mate.because.toLowerCase()}</span>
        </button>
      ))}
      {pumps.map(({ assemblyId, number, causes }) => (
        <ol key={assemblyId}>
          {causes.slice(0, 3).map((cause) => (
            <li key={cause.cause}>
              <details>
                <summary>
                  <Strength value={cause.strength} says={cause.says} />
                  <span>
                    {pumps.length > 1 && <span className="second">{number} </span>}
                    {cause.name}
                  </span>
                </summary>
                <ul>
                  {cause.evidence.map(({ words }) => (
                    <li key={words}>{words}</li>
                  ))}
                </ul>
                <p className="second">Check on the machine because of it:</p>
                <ul>
                  {cause.checks.map((check) => (
                    <li key={check.key}>
                      {check.text}
                      {check.caution && <em className="caution-line"> {check.caution}</em>}
                    </li>
                  ))}
                </ul>
              </details>
            </li>
          ))}
        </ol>
      ))}
      {open && <PositionDialog {...open} bench={bench} onClose={() => setOpen(null)} />}
    </section>
  )
}

/** Three blocks: how much of the evidence speaks for it. */
function Strength({ value, says }: { value: number; says: string }) {
  const filled = value >= 0.7 ? 3 : value >= 0.4 ? 2 : 1
  return (
    <svg width="22" height="12" viewBox="0 0 22 12" role="img" aria-label={says}>
      {[0, 1, 2].map((index) => (
        <rect
          key={index}
          x={index * 7 + 0.5}
          y="1.5"
          width="6"
          height="9"
          fill={index < filled ? 'var(--oxide)' : 'none'}
          stroke="var(--oxide)"
        />
      ))}
    </svg>
  )
}
