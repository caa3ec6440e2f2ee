'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { fieldName, assemblyKinds, type AssemblyInput, type NewAssemblyInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import type { Option } from '../forms/FieldFrame'
import { FormPart } from '../forms/FormPart'
import { ButtonLink } from '../frame/ButtonLink'
import { PlaceFields, type PlaceChoices } from './PlaceFields'
import { ModelEntry, OpeningFields } from './PumpFields'

const pageOf = (number: string) => `/fleet/pumps/${encodeURIComponent(number.trim().toUpperCase())}`

type NewProps = {
  models: Option[]
  choices: PlaceChoices
  today: string
  nextNumber: string
  action: (input: NewAssemblyInput) => Promise<Outcome>
}

export function NewAssemblyForm({ models, choices, today, nextNumber, action }: NewProps) {
  const router = useRouter()
  const toast = useToast()
  const [values] = useState<NewAssemblyInput>(() => ({
    id: uuid(),
    number: nextNumber,
    kind: 'pump',
    modelId: '',
    name: '',
    serial: '',
    usageScale: 'h',
    openingKind: 'new',
    openingUsage: '' as never,
    takenOverOn: today,
    note: '',
    place: { where: 'shelf', yardId: choices.yards[0]?.value ?? '', bin: '' },
  }))
  return (
    <EntryForm
      schema="newAssemblySchema"
      values={values}
      action={action}
      onDone={(_result, typed) => {
        toast(`${typed.number.toUpperCase()} is added.`)
        router.push(pageOf(typed.number))
      }}
      submit="Add it"
      cancel={<ButtonLink href="/fleet/pumps">Cancel</ButtonLink>}
    >
      <AssemblyFields models={models} />
      <FormPart title="Place" about="Where it is from that day on.">
        <PlaceFields choices={choices} />
      </FormPart>
    </EntryForm>
  )
}

type EditProps = {
  assembly: AssemblyInput
  models: Option[]
  action: (input: AssemblyInput) => Promise<Outcome>
}

export function EditAssemblyForm({ assembly, models, action }: EditProps) {
  const router = useRouter()
  const toast = useToast()
  return (
    <EntryForm
      schema="assemblySchema"
      values={assembly}
      action={action}
      onDone={(_result, typed) => {
        toast(`${typed.number.toUpperCase()} is saved.`)
        router.push(pageOf(typed.number))
      }}
      submit="Save"
      cancel={<ButtonLink href={pageOf(assembly.number)}>Cancel</ButtonLink>}
      fieldName={fieldName}
    >
      <AssemblyFields models={models} />
    </EntryForm>
  )
}

function AssemblyFields({ models }: { models: Option[] }) {
  const kind = useWatch({ name: 'kind' }) as string
  return (
    <FormPart
      title="Pump, drive or accessory"
      about="What wears as one thing and moves as one. Its hours and its record go with it."
    >
      <FieldRow>
        <ChoiceEntry name="kind" label="Kind" options={options(assemblyKinds)} />
        <TextEntry name="number" label="Number" />
        {kind === 'pump' ? (
          <ModelEntry name="modelId" models={models} />
        ) : (
          <>
            <TextEntry
              name="name"
              label="What is it?"
              placeholder="unloader, two-cylinder diesel, hose reel …"
            />
            <ModelEntry
              name="modelId"
              label="Model"
              models={[{ value: '', label: 'not written down' }, ...models]}
            />
          </>
        )}
        <TextEntry name="serial" label="Serial number" optional />
      </FieldRow>
      <OpeningFields />
      <FieldRow>
        <ChoiceEntry
          name="usageScale"
          label="Counted in"
          options={[
            { value: 'h', label: 'Hours' },
            { value: 'strokes', label: 'Strokes' },
          ]}
        />
      </FieldRow>
      <TextEntry name="note" label="Note" multiline optional />
    </FormPart>
  )
}
