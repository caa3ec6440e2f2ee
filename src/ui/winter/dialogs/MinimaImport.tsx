'use client'

import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { type MinimaInput } from '@/core/winter'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../../frame/Button'
import { Note } from '../../feedback/States'
import { SelectInput } from '../../forms/FieldFrame'

/** A file of daily minima: all of it or nothing. */
export function MinimaImport({
  yardId,
  name,
  take,
}: {
  yardId: string
  name: string
  take: (
    input: MinimaInput,
  ) => Promise<Outcome<{ days: number; winters: number; leftOut: number; gaps: number }>>
}) {
  const router = useRouter()
  const input = useRef<HTMLInputElement>(null)
  const [unit, setUnit] = useState('')
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null)
  const hand = async (file: File | undefined) => {
    if (!file) return
    const outcome = await take({
      yardId,
      fileName: file.name.slice(0, 120),
      text: await file.text(),
      unit: unit === '' ? null : (unit as 'C' | 'F'),
    }).catch(() => null)
    if (!outcome) return setSaid({ ok: false, words: 'Atelier could not be reached. Nothing is changed.' })
    if (!outcome.ok)
      return setSaid({ ok: false, words: `Nothing was taken of it. ${problemWords(outcome.problem)}` })
    const { days, winters, leftOut, gaps } = outcome.data
    setSaid({
      ok: true,
      words: `${days} days taken: ${winters} whole ${winters === 1 ? 'winter' : 'winters'}${leftOut ? `, ${leftOut} left out for missing days` : ''}${gaps ? `, ${gaps} gaps` : ''}.`,
    })
    router.refresh()
  }
  return (
    <div className="stack-tight">
      <div className="winter-import">
        <input
          ref={input}
          type="file"
          accept=".csv,text/csv,text/plain"
          className="visually-hidden"
          tabIndex={-1}
          aria-label={`Minima of ${name} as a file`}
          onChange={(event) => {
            const file = event.target.files?.[0]
            event.target.value = ''
            void hand(file)
          }}
        />
        <Button variant="outlined" onClick={() => input.current?.click()}>
          Import minima
        </Button>
        <SelectInput
          id={`unit-${yardId}`}
          options={[
            { value: '', label: 'unit as the file says' },
            { value: 'C', label: '°C' },
            { value: 'F', label: '°F' },
          ]}
          value={unit}
          onChange={(event) => setUnit(event.target.value)}
          inputProps={{ 'aria-label': `Unit of the minima of ${name}` }}
        />
      </div>
      {said &&
        (said.ok ? (
          <p role="status" className="moss">
            {said.words}
          </p>
        ) : (
          <Note tone="oxide">{said.words}</Note>
        ))}
    </div>
  )
}
