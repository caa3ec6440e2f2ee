'use client'

import { useState } from 'react'
import { usualDisposition, type Damage, type Disposition } from '@/core/inspection'
import { alwaysRenewed, findingOf, sortAt, soundFinding, type Finding } from '@/core/sheets'
import { Button } from '../../frame/Button'
import { FieldFrame, TextInput } from '../../forms/FieldFrame'
import { DamageChips, DecidedField, ExtentChips } from './DamageChips'
import type { SheetHandle } from './useSheet'
import { Note } from '../../feedback/States'

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
  const see = (seen: Damage[]) =>
    say({
      damages: seen,
      extent: seen.length === 0 ? '' : now.extent,
      disposition: usualDisposition(sort, seen, renewed),
    })
  const disposition = wanted ?? now.disposition
  return (
    <section className="finding" aria-label="What is seen on the part">
      <p className="second">Seen on the old part, one tap each</p>
      <DamageChips sort={sort} seen={now.damages} onChange={(seen) => void see(seen)}>
        {own && (
          <Button
            variant={entry && now.damages.length === 0 ? 'contained' : 'outlined'}
            aria-pressed={entry !== undefined && now.damages.length === 0}
            onClick={() => void say({ damages: [], extent: '', disposition: sound.disposition })}
          >
            Nothing seen
          </Button>
        )}
      </DamageChips>
      {now.damages.length > 0 && (
        <div className="finding-decide">
          <ExtentChips extent={now.extent} onChange={(extent) => void say({ extent })} />
        </div>
      )}
      {(entry || now.damages.length > 0) && (
        <div className="finding-decide decided">
          <DecidedField
            id={`decide-${position}`}
            disposition={disposition}
            onChange={(next) => void say({ disposition: next })}
          />
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
      {error && <Note tone="oxide">{error}</Note>}
    </section>
  )
}
