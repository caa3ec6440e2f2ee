'use client'

import { useState } from 'react'
import type { Fastener } from '@/core/models'
import type { SettledTorque } from '@/core/sheets'
import { showTorque } from '@/core/torque'
import { parseNumber, showNumber } from '@/core/units'
import { Button } from '../../frame/Button'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'
import type { SheetHandle } from './useSheet'
import { Note } from '../../feedback/States'

const torqueUnits = ['N·m', 'in-lb', 'ft-lb', 'kgf·m'].map((unit) => ({ value: unit, label: unit }))

type Typed = { value: string; unit: string }

/** What was pulled, with steppers for gloved hands. */
export function TorqueEntry({
  torque,
  label,
  hint,
  onChange,
}: {
  torque: Typed
  label: string
  hint: string
  onChange: (next: Typed) => void
}) {
  const nudge = (by: number) => {
    const parsed = parseNumber(torque.value)
    const next = Math.max(0, Math.round(((parsed.ok ? parsed.value : 0) + by) * 10) / 10)
    onChange({ ...torque, value: showNumber(next) })
  }
  return (
    <div className="torque-entry">
      <span>
        <span className="strong">{label}</span>
        <span className="second block">{hint}</span>
      </span>
      <Button variant="outlined" aria-label="Less" onClick={() => nudge(-0.5)}>
        −
      </Button>
      <TextInput
        id="torque"
        value={torque.value}
        onChange={(event) => onChange({ ...torque, value: event.target.value })}
        autoComplete="off"
        inputProps={{ inputMode: 'decimal', 'aria-label': 'Torque pulled' }}
      />
      <SelectInput
        id="torque-unit"
        options={torqueUnits}
        value={torque.unit}
        onChange={(event) => onChange({ ...torque, unit: event.target.value })}
        inputProps={{ 'aria-label': 'Unit of torque' }}
      />
      <Button variant="outlined" aria-label="More" onClick={() => nudge(0.5)}>
        +
      </Button>
    </div>
  )
}

/** A torque that is missing, or that nobody has verified, is looked up in the manual first. */
export function LookUpTorque({
  bench,
  assemblyId,
  fastener,
  before,
}: {
  bench: SheetHandle
  assemblyId: string
  fastener: Fastener
  before: SettledTorque[]
}) {
  const { torque } = fastener
  const stated = torque.state === 'stated'
  const [value, setValue] = useState('')
  const [unit, setUnit] = useState(stated ? torque.unit : 'N·m')
  const [page, setPage] = useState('')
  const [error, setError] = useState('')
  const save = async (given: { value: string; unit: string; page: string }) => {
    const parsed = parseNumber(given.value)
    if (!parsed.ok) return setError(parsed.reason)
    if (parsed.value <= 0) return setError('Enter more than 0.')
    if (given.page.trim() === '') return setError('Enter the page of the maker’s manual.')
    setError(
      (await bench.write('torqueSet', {
        assemblyId,
        fastener: fastener.key,
        value: parsed.value,
        unit: given.unit,
        page: given.page.trim(),
      })) ?? '',
    )
  }
  return (
    <section className="look-up" aria-label="Look it up first">
      <h3>{stated ? 'Verify it in the maker’s manual first' : 'Look it up in the maker’s manual first'}</h3>
      <p>
        {stated
          ? `The model says ${showTorque(torque)}, and nobody has verified it.`
          : 'The model gives no value here.'}{' '}
        {fastener.doubt && <span className="brass strong">{fastener.doubt}</span>}
      </p>
      {before.map((one) => (
        <Button
          key={`${one.sheet} ${one.value}`}
          variant="outlined"
          onClick={() => void save({ value: String(one.value), unit: one.unit, page: one.page })}
        >
          As on sheet {one.sheet}: {showNumber(one.value)} {one.unit}, {one.page} ({one.byName})
        </Button>
      ))}
      <div className="look-up-fields">
        <FieldFrame id="looked-up" label="Value">
          <TextInput
            id="looked-up"
            value={value}
            onChange={(event) => setValue(event.target.value)}
            autoComplete="off"
            inputProps={{ inputMode: 'decimal' }}
          />
        </FieldFrame>
        <FieldFrame id="looked-up-unit" label="Unit">
          <SelectInput
            id="looked-up-unit"
            options={torqueUnits}
            value={unit}
            onChange={(event) => setUnit(event.target.value)}
          />
        </FieldFrame>
        <FieldFrame id="looked-up-page" label="Manual and page">
          <TextInput id="looked-up-page" value={page} onChange={(event) => setPage(event.target.value)} />
        </FieldFrame>
      </div>
      {error && <Note tone="oxide">{error}</Note>}
      <Button variant="contained" onClick={() => void save({ value, unit, page })}>
        It says so: use this value
      </Button>
    </section>
  )
}
