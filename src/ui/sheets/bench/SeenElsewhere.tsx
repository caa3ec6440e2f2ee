'use client'

import { useState } from 'react'
import { findingSorts, usualDisposition, type Damage, type Disposition, type Extent } from '@/core/inspection'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'
import { BenchDialog } from './BenchDialog'
import { DamageChips, DecidedField, ExtentChips } from './DamageChips'
import { PumpField } from './PumpField'
import type { SheetHandle } from './useSheet'

/** What a strip-down shows besides the wearing positions. */
const elsewhere = ['manifold', 'oring', 'bush', 'bearing', 'other'] as const

/** Damage on what is no wearing position: on which pump, on what, where; by one tap each, and decided. */
export function SeenElsewhere({ bench, onClose }: { bench: SheetHandle; onClose: () => void }) {
  const { assemblies } = bench.state.content
  const [assemblyId, setAssemblyId] = useState(assemblies[0]!.id)
  const [sort, setSort] = useState<(typeof elsewhere)[number]>('manifold')
  const [where, setWhere] = useState('')
  const [seen, setSeen] = useState<Damage[]>([])
  const [extent, setExtent] = useState<Extent | ''>('')
  const [decided, setDecided] = useState<Disposition | null>(null)
  const [words, setWords] = useState('')
  const [error, setError] = useState('')
  const disposition = decided ?? usualDisposition(sort, seen, false)
  const keep = async () => {
    if (where.trim() === '') return setError('Say where it is, in words.')
    if (seen.length === 0) return setError('Say what is seen.')
    const refused = await bench.write('finding', {
      assemblyId,
      position: null,
      what: `${findingSorts[sort]}: ${where.trim()}`.slice(0, 80),
      sort,
      damages: seen,
      extent,
      disposition,
      words: words.trim(),
    })
    if (refused) setError(refused)
    else onClose()
  }
  return (
    <BenchDialog
      title="Seen on something else"
      size="sm"
      onClose={onClose}
      error={error}
      submit={{ words: 'Keep it', run: keep }}
    >
      <PumpField id="seen-pump" assemblies={assemblies} value={assemblyId} onChange={setAssemblyId} />
      <FieldFrame id="seen-sort" label="On what">
        <SelectInput
          id="seen-sort"
          options={elsewhere.map((each) => ({ value: each, label: findingSorts[each] }))}
          value={sort}
          onChange={(event) => {
            setSort(event.target.value as typeof sort)
            setSeen([])
            setDecided(null)
          }}
        />
      </FieldFrame>
      <FieldFrame id="seen-where" label="Where, in words">
        <TextInput id="seen-where" value={where} onChange={(event) => setWhere(event.target.value)} />
      </FieldFrame>
      <DamageChips
        sort={sort}
        seen={seen}
        onChange={(next) => {
          setSeen(next)
          setDecided(null)
        }}
      />
      {seen.length > 0 && (
        <>
          <ExtentChips extent={extent} onChange={setExtent} />
          <DecidedField id="seen-decided" disposition={disposition} onChange={setDecided} />
          <FieldFrame id="seen-words" label="In words" optional>
            <TextInput id="seen-words" value={words} onChange={(event) => setWords(event.target.value)} />
          </FieldFrame>
        </>
      )}
    </BenchDialog>
  )
}
