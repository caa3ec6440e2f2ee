'use client'

import { v7 as uuid } from 'uuid'
import type { FrostNightInput } from '@/core/winter'
import { type Outcome } from '@/core/problem'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../../forms/entries'
import { type Option } from '../../forms/FieldFrame'

/** A night that was colder than anybody thought. */
export function FrostNightDialog({
  yards,
  today,
  save,
}: {
  yards: Option[]
  today: string
  save: (input: FrostNightInput) => Promise<Outcome<{ machines: number }>>
}) {
  return (
    <DialogForm
      label="It froze"
      title="A night of frost"
      schema="frostNightSchema"
      start={(): FrostNightInput => ({
        id: uuid(),
        yardId: yards[0]?.value ?? '',
        day: today,
        minC: '' as never,
      })}
      action={save}
      submit="Note it"
      done="Noted: machines that stood in it unprotected are exposed until they were looked at."
    >
      <ChoiceEntry name="yardId" label="Yard" options={yards} />
      <FieldRow>
        <TextEntry name="day" label="Morning of" type="date" />
        <TextEntry name="minC" label="Lowest" unit="°C" />
      </FieldRow>
    </DialogForm>
  )
}
