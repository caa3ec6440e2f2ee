'use client'

import { v7 as uuid } from 'uuid'
import { fieldName, type PumpModelInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, TextEntry } from '../forms/entries'

type Props = { model?: PumpModelInput; save: (input: PumpModelInput) => Promise<Outcome> }

export function PumpModelDialog({ model, save }: Props) {
  return (
    <DialogForm
      label={model ? 'Edit' : 'Add pump model'}
      look="outlined"
      title={model ? `Edit ${model.maker} ${model.name}` : 'Add a pump model'}
      schema="pumpModelSchema"
      start={() => model ?? { id: uuid(), maker: '', name: '', design: '', note: '' }}
      action={save}
      submit="Save model"
      done="The model is saved."
      fieldName={fieldName}
    >
      <FieldRow>
        <TextEntry name="maker" label="Maker" autoFocus />
        <TextEntry name="name" label="Model" />
      </FieldRow>
      <TextEntry name="design" label="Design" optional placeholder="compact triplex, seals in the manifold" />
      <TextEntry name="note" label="Note" multiline optional />
    </DialogForm>
  )
}
