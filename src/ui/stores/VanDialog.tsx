'use client'

import { v7 as uuid } from 'uuid'
import type { VanInput } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

export function VanDialog({ yards, save }: { yards: Option[]; save: (input: VanInput) => Promise<Outcome> }) {
  return (
    <DialogForm
      label="Add a van"
      title="Add a van"
      schema="vanSchema"
      start={(): VanInput => ({ id: uuid(), name: '', yardId: yards[0]?.value ?? '' })}
      action={save}
      submit="Save"
      done="Stock can lie in it now."
    >
      <TextEntry name="name" label="Name" autoFocus />
      <ChoiceEntry name="yardId" label="Kept in" options={yards} />
    </DialogForm>
  )
}
