'use client'

import { useState } from 'react'
import { safeAnew } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'
import { firstTap } from './firstTap'
import { LocksPanel } from './LocksPanel'
import type { SheetHandle } from './useSheet'
import { clockTime, flagWords } from '../words'

type Props = { bench: SheetHandle; author: string; timeZone: string; onDone: () => void }

/** The gate after making safe: somebody says with their name that it is so. */
export function MakeSafeGate({ bench, author, timeZone, onDone }: Props) {
  const [name, setName] = useState(author)
  const [error, setError] = useState('')
  const { safeRound, steps } = bench.state
  // Energised in between: what was confirmed before says nothing about now.
  const again = safeAnew(bench.state)
  const madeSafe = again ? null : bench.state.madeSafe
  const flagged = steps.filter((each) => each.state === 'open' && flagWords(each).length > 0)
  const confirm = async () => {
    if (name.trim() === '') {
      setError('Confirm it with your name.')
      return
    }
    const refused = await bench.write('madeSafe', { name: name.trim(), round: safeRound })
    setError(refused ?? '')
    if (!refused) onDone()
  }
  return (
    <div className="bench-step">
      <p className="second">Make safe, confirmed by name</p>
      <h2 className="step-title">Is everything safe to open?</h2>
      <p>
        Isolated and locked out, ignition disabled, pressure relieved and zero verified, cooled, drained.
        Nothing else opens before this is confirmed.
      </p>
      <p className="caution bench-caution">
        For trained and authorised people under local codes; the maker’s manual goes first. Atelier records,
        it does not authorise.
      </p>
      {again && (
        <Note tone="brass" title="It was energised again.">
          Go through all of it once more: locks, ignition, zero pressure at the gauge, heat, water.
        </Note>
      )}
      <LocksPanel bench={bench} stepKey={null} goes="on" />
      {flagged.length > 0 && (
        <Note tone="brass" title="Before you start:">
          {flagged.map((each) => `${flagWords(each).join(', ')} for “${each.step.step.text}”`).join(' ')}
        </Note>
      )}
      {madeSafe ? (
        <Note tone="moss" title={`Confirmed by ${madeSafe.payload.name},`}>
          {clockTime(madeSafe.at, timeZone)}
        </Note>
      ) : (
        <FieldFrame id="safe-name" label="Name" error={error}>
          <TextInput id="safe-name" value={name} onChange={(event) => setName(event.target.value)} />
        </FieldFrame>
      )}
      <div className="bench-buttons">
        {madeSafe ? (
          <Button variant="contained" className="confirm" onClick={onDone}>
            Go on
          </Button>
        ) : (
          <Button variant="contained" className="confirm" onClick={firstTap(() => void confirm())}>
            {name.trim() === '' ? 'Made safe' : `Made safe: ${name.trim()}`}
          </Button>
        )}
      </div>
    </div>
  )
}
