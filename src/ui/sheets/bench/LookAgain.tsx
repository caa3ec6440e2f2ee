'use client'

import { useState } from 'react'
import { lookedUp, pulledTo, type StepState } from '@/core/sheets'
import { showNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { AskDialog } from './AskDialog'
import type { SheetHandle } from './useSheet'

/** A looked-up torque was read or typed wrong: it is looked up again, and what was pulled to it counts no more. */
export function LookAgain({ bench, step }: { bench: SheetHandle; step: StepState }) {
  const [asking, setAsking] = useState(false)
  const set = lookedUp(bench.state, step)
  if (!set) return null
  const steps = pulledTo(bench.state, set)
  const { value, unit, page } = set.payload
  return (
    <>
      <Button variant="text" onClick={() => setAsking(true)}>
        Look it up again
      </Button>
      {asking && (
        <AskDialog
          title="Look it up again"
          intro={
            <p>
              {showNumber(value)}&nbsp;{unit}, {page}, by {set.byName}.{' '}
              {steps.length > 0 &&
                `What was pulled to it counts no more: ${steps.length === 1 ? 'one step' : `${steps.length} steps`} to pull again. `}
              Where it was pulled too tight, the maker’s manual says whether bolts and threads may be used
              again.
            </p>
          }
          fields={[{ name: 'reason', label: 'What was wrong with it' }]}
          submit="Look it up again"
          onClose={() => setAsking(false)}
          send={async ({ reason }) => {
            const gone = steps.flatMap(({ by, bolts }) => [...(by ? [by] : []), ...bolts])
            for (const { id } of [set, ...gone]) {
              const refused = await bench.write('takeBack', { of: id, reason: reason ?? '' })
              if (refused) return refused
            }
            return null
          }}
        />
      )}
    </>
  )
}
