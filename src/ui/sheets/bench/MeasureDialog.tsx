'use client'

import { useState } from 'react'
import { benchMeasures, type SheetPage } from '@/core/sheets'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'
import { blankMeasure, MeasureEntry, readMeasure } from './MeasureEntry'
import { BenchDialog } from './BenchDialog'
import { PumpField } from './PumpField'
import type { SheetHandle } from './useSheet'

type Props = { sheet: SheetPage; bench: SheetHandle; onClose: () => void }

/** A measure that no step asks for: drips, oil, a gasket, a spring; with what it was before. */
export function MeasureDialog({ sheet, bench, onClose }: Props) {
  const { assemblies } = bench.state.content
  const [key, setKey] = useState<string>('drips')
  const measure = benchMeasures.find((each) => each.key === key)!
  const [assemblyId, setAssemblyId] = useState(assemblies[0]!.id)
  const [position, setPosition] = useState('')
  const [what, setWhat] = useState('')
  const [ownUnit, setOwnUnit] = useState('')
  const [typed, setTyped] = useState(() => blankMeasure(measure.unit))
  const [words, setWords] = useState('')
  const [error, setError] = useState('')
  const assembly = assemblies.find((each) => each.id === assemblyId)!
  const name = measure.what || what.trim()
  const unit = measure.unit || ownUnit.trim()
  const save = async () => {
    const value = readMeasure({ ...typed, unit: typed.unit || unit })
    if (typeof value === 'string') return setError(value)
    if (value === null) return setError('Enter what was measured.')
    if (name === '') return setError('Say what was measured.')
    if (value.unit === '') return setError('Say in which unit.')
    const refused = await bench.write('measured', {
      assemblyId,
      position: position || null,
      what: name,
      words: words.trim(),
      ...value,
    })
    if (refused) setError(refused)
    else onClose()
  }
  return (
    <BenchDialog
      title="Measure"
      size="sm"
      onClose={onClose}
      error={error}
      submit={{ words: 'Keep it', run: save }}
    >
      <FieldFrame id="measure-what" label="What">
        <SelectInput
          id="measure-what"
          options={benchMeasures.map((each) => ({
            value: each.key,
            label: each.what ? `${each.what.charAt(0).toUpperCase()}${each.what.slice(1)}` : 'Something else',
          }))}
          value={key}
          onChange={(event) => {
            setKey(event.target.value)
            setTyped(blankMeasure(benchMeasures.find((each) => each.key === event.target.value)!.unit))
          }}
        />
      </FieldFrame>
      {measure.key === 'other' && (
        <div className="measure-fields">
          <FieldFrame id="measure-name" label="Name">
            <TextInput id="measure-name" value={what} onChange={(event) => setWhat(event.target.value)} />
          </FieldFrame>
          <FieldFrame id="measure-own-unit" label="In">
            <TextInput
              id="measure-own-unit"
              value={ownUnit}
              onChange={(event) => setOwnUnit(event.target.value)}
            />
          </FieldFrame>
        </div>
      )}
      <PumpField id="measure-pump" assemblies={assemblies} value={assemblyId} onChange={setAssemblyId} />
      <FieldFrame id="measure-where" label="Where">
        <SelectInput
          id="measure-where"
          options={[
            { value: '', label: 'The pump as a whole' },
            ...assembly.positions.map((each) => ({ value: each.key, label: each.name })),
          ]}
          value={position}
          onChange={(event) => setPosition(event.target.value)}
        />
      </FieldFrame>
      <MeasureEntry
        bench={bench}
        earlier={sheet.earlier}
        about={{ assemblyId, what: name || 'value', where: position }}
        limits={{ unit, min: null, max: null }}
        value={typed}
        onChange={setTyped}
        stepKey="measure"
      />
      <FieldFrame id="measure-words" label="In words" optional>
        <TextInput id="measure-words" value={words} onChange={(event) => setWords(event.target.value)} />
      </FieldFrame>
    </BenchDialog>
  )
}
