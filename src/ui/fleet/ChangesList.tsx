'use client'

import Button from '@mui/material/Button'
import { useState } from 'react'
import { fieldName, isWorthShowing, showValue, type ChangeLine } from '@/core/fleet'
import { showDay } from '@/core/calendar'

const few = 6

/** Who changed what, when, before and after. */
export function ChangesList({ changes, today }: { changes: ChangeLine[]; today: string }) {
  const [all, setAll] = useState(false)
  return (
    <>
      <ol className="changes">
        {(all ? changes : changes.slice(0, few)).map((change) => (
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
      {changes.length > few && (
        <div className="actions">
          <Button variant="text" onClick={() => setAll(!all)}>
            {all ? 'Show the newest only' : `Show all ${changes.length} changes`}
          </Button>
        </div>
      )}
    </>
  )
}
