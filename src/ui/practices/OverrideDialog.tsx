'use client'

import type { PracticeInput, PracticeView } from '@/core/practices'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Props = {
  practice: PracticeView
  models: Option[]
  choose: (input: PracticeInput) => Promise<Outcome>
}

/** A choice for one model, where it needs another than the rest. */
export function OverrideDialog({ practice, models, choose }: Props) {
  const free = models.filter(({ value }) => !practice.overrides.some((each) => each.modelId === value))
  const stated = practice.manuals.map(({ model }) => model)
  return (
    <DialogForm
      label="For one model"
      look="text"
      title={`${practice.name} for one model`}
      schema="practiceSchema"
      start={(): PracticeInput => ({
        practice: practice.key,
        modelId: '',
        choice: '',
        reason: '',
        version: 0,
      })}
      action={choose}
      submit="Choose for this model"
      done={`${practice.name} is chosen for this model.`}
    >
      {stated.length > 0 && (
        <p>
          For {stated.join(', ')} the manual says what is done; a choice here does not reach{' '}
          {stated.length === 1 ? 'it' : 'them'}.
        </p>
      )}
      <ChoiceEntry name="modelId" label="Model" options={free} placeholder="Choose a model" />
      <ChoiceEntry
        name="choice"
        label="What is done there"
        options={practice.choices.map(({ key, name }) => ({ value: key, label: name }))}
        placeholder="Choose one"
      />
      <TextEntry name="reason" label="Why, in one line" optional />
    </DialogForm>
  )
}
