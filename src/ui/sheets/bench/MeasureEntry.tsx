'use client'

import { comparable, converted, offLimits, unitsFor, unlikeBefore, type EarlierMeasure } from '@/core/sheets'
import { parseNumber, showNumber } from '@/core/units'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'
import { MeasureTrend } from '../../graphics/MeasureTrend'
import { BucketAndWatch, DripsAndWatch } from './MeasureByWatch'
import type { SheetHandle } from './useSheet'

export type MeasureTyped = { value: string; unit: string; how: string }
export const blankMeasure = (unit: string): MeasureTyped => ({ value: '', unit, how: '' })

/** What was typed as a value; null for nothing, or the sentence that says what cannot be read. */
export function readMeasure({
  value,
  unit,
  how,
}: MeasureTyped): { value: number; unit: string; how: string } | null | string {
  if (value.trim() === '') return null
  const parsed = parseNumber(value)
  return parsed.ok ? { value: parsed.value, unit, how } : parsed.reason
}

type Props = {
  bench: SheetHandle
  earlier: EarlierMeasure[]
  about: { assemblyId: string; what: string; where: string }
  limits: { unit: string; min: number | null; max: number | null }
  value: MeasureTyped
  onChange: (next: MeasureTyped) => void
  stepKey: string | null
}

/** A measure with its limits, the unit it is typed in, and what it was before. */
export function MeasureEntry({ bench, earlier, about, limits, value, onChange, stepKey }: Props) {
  const units = unitsFor(limits.unit)
  const read = readMeasure(value)
  const now = read !== null && typeof read !== 'string' ? converted(read.value, read.unit, limits.unit) : null
  const before = comparable(earlier, { ...about, unit: limits.unit, how: value.how })
  const off = now === null ? null : offLimits(limits, now)
  const unlike = now === null || off ? null : unlikeBefore(before, now)
  const take = (measured: string, how: string) => onChange({ value: measured, unit: limits.unit, how })
  return (
    <section className="measure">
      <div className="measure-fields">
        <FieldFrame id="measure" label={sentence(about.what)} hint={limitWords(limits)} error={off ?? ''}>
          <TextInput
            id="measure"
            value={value.value}
            onChange={(event) => onChange({ ...value, value: event.target.value, how: '' })}
            autoComplete="off"
            inputProps={{ inputMode: 'decimal' }}
            endAdornment={units.length === 1 ? <span className="unit">{limits.unit}</span> : undefined}
          />
        </FieldFrame>
        {units.length > 1 && (
          <FieldFrame id="measure-unit" label="Unit">
            <SelectInput
              id="measure-unit"
              options={units.map((unit) => ({ value: unit, label: unit }))}
              value={value.unit}
              onChange={(event) => onChange({ ...value, unit: event.target.value })}
            />
          </FieldFrame>
        )}
      </div>
      {limits.unit === 'L/min' && <BucketAndWatch bench={bench} stepKey={stepKey} take={take} />}
      {limits.unit === 'drips/min' && <DripsAndWatch bench={bench} stepKey={stepKey} take={take} />}
      {unlike && <p className="brass strong">{unlike}</p>}
      {(before.length > 0 || limits.min !== null || limits.max !== null) && (
        <MeasureTrend earlier={before} now={now} {...limits} />
      )}
    </section>
  )
}

const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1)

function limitWords({ unit, min, max }: { unit: string; min: number | null; max: number | null }): string {
  if (min !== null && max !== null) return `${showNumber(min)} to ${showNumber(max)}\u00a0${unit}`
  if (min !== null) return `${showNumber(min)}\u00a0${unit} or more`
  return max === null ? '' : `${showNumber(max)}\u00a0${unit} or less`
}
