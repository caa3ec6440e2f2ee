'use client'

import { useWatch } from 'react-hook-form'
import { openingKinds } from '@/core/fleet'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

/** Serial number and what was on it when it was taken over. */
export function OpeningFields({ prefix = '' }: { prefix?: string }) {
  const kind = useWatch({ name: `${prefix}openingKind` }) as string
  const known = kind === 'known' || kind === 'assumed'
  return (
    <FieldRow>
      <ChoiceEntry name={`${prefix}openingKind`} label="Taken over" options={options(openingKinds)} />
      {known && (
        <TextEntry
          name={`${prefix}openingUsage`}
          label="Hours on it then"
          inputMode="decimal"
          unit="h"
          hint={kind === 'assumed' ? 'Shown as an estimate from now on' : undefined}
        />
      )}
      <TextEntry name={`${prefix}takenOverOn`} label="Taken over on" type="date" />
    </FieldRow>
  )
}

export function ModelEntry({
  name,
  models,
  label = 'Pump model',
}: {
  name: string
  models: Option[]
  label?: string
}) {
  return (
    <ChoiceEntry
      name={name}
      label={label}
      options={models}
      placeholder="Choose a model"
      hint={models.length === 0 ? 'Add a model under Models first' : undefined}
    />
  )
}

/** How a fitted assembly's hours come from a meter. */
export function DutyFields({ prefix = '' }: { prefix?: string }) {
  const basis = useWatch({ name: `${prefix}shareBasis` }) as string
  return (
    <FieldRow>
      <ChoiceEntry
        name={`${prefix}shareBasis`}
        label="How the meter counts it"
        options={[
          { value: 'own', label: 'All the time the meter runs' },
          { value: 'assumed', label: 'A share of it, assumed' },
          { value: 'measured', label: 'A share of it, measured' },
        ]}
      />
      {basis !== 'own' && (
        <TextEntry
          name={`${prefix}share`}
          label="Duty share"
          inputMode="decimal"
          unit="%"
          hint="Part of the meter’s time the pump is loaded"
        />
      )}
    </FieldRow>
  )
}
