'use client'

import { unitsOf } from '@/core/units'
import { ChoiceEntry, FieldRow } from '../forms/entries'

const asOptions = (units: string[]) => units.map((unit) => ({ value: unit, label: unit }))

/** How figures are shown. Torque needs no choice: it is always shown in N·m, in-lb and ft-lb together. */
export function UnitEntries({ prefix }: { prefix: string }) {
  return (
    <FieldRow>
      <ChoiceEntry name={`${prefix}.pressure`} label="Pressure in" options={asOptions(unitsOf('pressure'))} />
      <ChoiceEntry name={`${prefix}.flow`} label="Flow in" options={asOptions(unitsOf('flow'))} />
      <ChoiceEntry name={`${prefix}.volume`} label="Volume in" options={asOptions(unitsOf('volume'))} />
      <ChoiceEntry name={`${prefix}.length`} label="Length in" options={asOptions(unitsOf('length'))} />
      <ChoiceEntry name={`${prefix}.temperature`} label="Temperature in" options={asOptions(['°C', '°F'])} />
    </FieldRow>
  )
}
