'use client'

import { useFormContext } from 'react-hook-form'
import { metricUnits, unitsOf, usUnits } from '@/core/units'
import { Button } from '../frame/Button'
import { ChoiceEntry, FieldRow } from '../forms/entries'

const asOptions = (units: string[]) => units.map((unit) => ({ value: unit, label: unit }))

/** How figures are shown. Torque needs no choice: it is always shown in N·m, in-lb and ft-lb together. */
export function UnitEntries({ prefix }: { prefix: string }) {
  const { setValue } = useFormContext()
  return (
    <>
      <div className="cell-actions start">
        <Button variant="text" onClick={() => setValue(prefix, metricUnits, { shouldDirty: true })}>
          All metric
        </Button>
        <Button variant="text" onClick={() => setValue(prefix, usUnits, { shouldDirty: true })}>
          All US
        </Button>
      </div>
      <FieldRow>
        <ChoiceEntry
          name={`${prefix}.pressure`}
          label="Pressure in"
          options={asOptions(unitsOf('pressure'))}
        />
        <ChoiceEntry name={`${prefix}.flow`} label="Flow in" options={asOptions(unitsOf('flow'))} />
        <ChoiceEntry name={`${prefix}.volume`} label="Volume in" options={asOptions(unitsOf('volume'))} />
        <ChoiceEntry name={`${prefix}.length`} label="Length in" options={asOptions(unitsOf('length'))} />
        <ChoiceEntry
          name={`${prefix}.temperature`}
          label="Temperature in"
          options={asOptions(['°C', '°F'])}
        />
      </FieldRow>
    </>
  )
}
