'use client'

import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { visitNumber } from '@/core/plan'
import { showAmount, stockStates, type MoveInput, type PickPage } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { useToast } from '../feedback/Toasts'
import { Link } from '../frame/Link'

/** What was laid ready and left over: it comes back, and can be promised again. */
export function PickedForNothing({
  lines,
  move,
}: {
  lines: PickPage['picked']
  move: ((input: MoveInput) => Promise<Outcome>) | null
}) {
  const toast = useToast()
  const [busy, setBusy] = useState(false)
  return (
    <ul className="line-list">
      {lines.map((line) => (
        <li key={`${line.lotId} ${line.placeId} ${line.state} ${line.visitId}`}>
          <span className="grow">
            <span className="strong">{line.number}</span> {line.name}{' '}
            <span className="second">
              lot {line.lot}, {stockStates[line.state]},{' '}
              <Link href={`/plan/${line.visitId}`}>visit {visitNumber(line.visit ?? 0)}</Link>
            </span>
          </span>
          <span className="strong nowrap">{showAmount(line.quantity, line.unit)}</span>
          {move && (
            <button
              type="button"
              className="plain-button no-print"
              disabled={busy}
              aria-label={`Bring back: ${line.number}`}
              onClick={() => {
                setBusy(true)
                void move({
                  id: uuid(),
                  partId: line.partId,
                  lotId: line.lotId,
                  placeId: line.placeId,
                  state: line.state,
                  visitId: line.visitId,
                  act: line.state === 'picked' ? 'shelve' : 'bringBack',
                  quantity: line.quantity,
                  toPlaceId: '',
                  reason: '',
                })
                  .then((outcome) =>
                    toast(
                      outcome.ok
                        ? 'Brought back.'
                        : 'message' in outcome.problem
                          ? outcome.problem.message
                          : 'That did not go.',
                    ),
                  )
                  .catch(() => toast('Atelier could not be reached. Try again in a moment.'))
                  .finally(() => setBusy(false))
              }}
            >
              Bring back
            </button>
          )}
        </li>
      ))}
    </ul>
  )
}
