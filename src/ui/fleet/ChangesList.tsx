'use client'

import { useState } from 'react'
import { fieldName, isWorthShowing, showValue, type ChangeLine, type ChangesAbout } from '@/core/fleet'
import { showDay } from '@/core/calendar'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'

const few = 6

type Props = {
  about: ChangesAbout
  /** The newest. */
  changes: ChangeLine[]
  today: string
  showAll: (about: ChangesAbout) => Promise<Outcome<ChangeLine[]>>
}

/** Who changed what, when, before and after: the newest, and all of them when somebody asks. */
export function ChangesList({ about, changes, today, showAll }: Props) {
  const [all, setAll] = useState<ChangeLine[] | null>(null)
  const [error, setError] = useState('')
  const [asking, setAsking] = useState(false)
  const ask = async () => {
    setAsking(true)
    const outcome = await showAll(about).catch(() => null)
    setAsking(false)
    if (outcome?.ok) setAll(outcome.data)
    setError(outcome?.ok ? '' : (outcome?.problem.message ?? 'Atelier could not be reached. Try again.'))
  }
  return (
    <>
      <ol className="changes">
        {(all ?? changes.slice(0, few)).map((change) => (
          <li key={change.id}>
            <span className="second num nowrap">
              {showDay(change.day, today)} {change.time}
            </span>
            <div>
              {change.summary}
              {change.changes
                .filter(({ field }) => isWorthShowing(field))
                .map(({ field, before, after }) => (
                  <div key={field} className="second">
                    {fieldName(field)}: <span className="struck">{showValue(field, before)}</span> →{' '}
                    <span className="strong">{showValue(field, after)}</span>
                  </div>
                ))}
              {change.reason && <div className="second">“{change.reason}”</div>}
            </div>
            <span className="second">{change.by}</span>
          </li>
        ))}
      </ol>
      {error && <Note tone="oxide">{error}</Note>}
      {changes.length > few && (
        <div className="actions">
          <Button variant="text" disabled={asking} onClick={() => (all ? setAll(null) : void ask())}>
            {all ? 'Show the newest only' : 'Show all changes'}
          </Button>
        </div>
      )}
    </>
  )
}
