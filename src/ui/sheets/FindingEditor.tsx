'use client'

import Button from '@mui/material/Button'
import { useState } from 'react'
import {
  damages as damageNames,
  damagesOf,
  dispositionKeys,
  dispositions,
  extents,
  usualDisposition,
  type Damage,
  type Disposition,
  type Extent,
} from '@/core/inspection'
import { alwaysRenewed, findingOf, sortAt, soundFinding, type Finding } from '@/core/sheet'
import { FieldFrame, SelectInput, TextInput } from '../forms/FieldFrame'
import type { SheetHandle } from './useSheet'

type Props = {
  bench: SheetHandle
  assemblyId: string
  position: string
  stepKey?: string | null
  /** Offers "nothing seen" as a tap of its own, where no step is confirmed with it. */
  own?: boolean
}

/** What was seen on one part, by one tap each, and what is decided. Every tap is kept at once. */
export function FindingEditor({ bench, assemblyId, position, stepKey = null, own = false }: Props) {
  const { state } = bench
  const entry = findingOf(state, assemblyId, position)
  const sort = sortAt(state, assemblyId, position)
  const renewed = alwaysRenewed(state, { assemblyId, position })
  const sound = soundFinding(state, assemblyId, position)
  const now: Finding = entry?.payload ?? sound
  const [error, setError] = useState('')
  const [wanted, setWanted] = useState<Disposition | null>(null)
  const [words, setWords] = useState(now.words)
  const say = async (change: Partial<Finding>) => {
    const next = { ...now, words: words.trim(), ...change }
    const refused = await bench.write('finding', next, stepKey)
    setError(refused ?? '')
    setWanted(refused && change.disposition ? change.disposition : null)
  }
  const toggle = (damage: Damage) => {
    const seen = now.damages.includes(damage)
      ? now.damages.filter((each) => each !== damage)
      : [...now.damages, damage]
    void say({
      damages: seen,
      extent: seen.length === 0 ? '' : now.extent,
      disposition: usualDisposition(sort, seen, renewed),
    })
  }
  const disposition = wanted ?? now.disposition
  return (
    <section className="finding" aria-label="What is seen on the part">
      <p className="second">Seen on the old part, one tap each</p>
      <div className="damage-chips">
        {own && (
          <Button
            variant={entry && now.damages.length === 0 ? 'contained' : 'outlined'}
            aria-pressed={entry !== undefined && now.damages.length === 0}
            onClick={() => void say({ damages: [], extent: '', disposition: sound.disposition })}
          >
            Nothing seen
          </Button>
        )}
        {damagesOf[sort].map((damage) => (
          <Button
            key={damage}
            variant={now.damages.includes(damage) ? 'contained' : 'outlined'}
            aria-pressed={now.damages.includes(damage)}
            onClick={() => toggle(damage)}
          >
            {damageNames[damage]}
          </Button>
        ))}
      </div>
      {now.damages.length > 0 && (
        <div className="finding-decide">
          <div className="extents" role="group" aria-label="How much">
            {(Object.keys(extents) as Extent[]).map((extent) => (
              <Button
                key={extent}
                variant={now.extent === extent ? 'contained' : 'outlined'}
                aria-pressed={now.extent === extent}
                onClick={() => void say({ extent: now.extent === extent ? '' : extent })}
              >
                {extents[extent]}
              </Button>
            ))}
          </div>
        </div>
      )}
      {(entry || now.damages.length > 0) && (
        <div className="finding-decide decided">
          <FieldFrame id={`decide-${position}`} label="Decided">
            <SelectInput
              id={`decide-${position}`}
              options={dispositionKeys.map((key) => ({ value: key, label: dispositions[key] }))}
              value={disposition}
              onChange={(event) => void say({ disposition: event.target.value as Disposition })}
            />
          </FieldFrame>
          <FieldFrame id={`words-${position}`} label="In words" optional={!error}>
            <TextInput
              id={`words-${position}`}
              value={words}
              onChange={(event) => setWords(event.target.value)}
              onBlur={() => {
                if (words.trim() !== now.words) void say({ disposition })
              }}
            />
          </FieldFrame>
        </div>
      )}
      {error && (
        <p role="alert" className="note note-oxide">
          {error}
        </p>
      )}
    </section>
  )
}
