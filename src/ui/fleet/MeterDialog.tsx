'use client'

import { v7 as uuid } from 'uuid'
import { fieldName } from '@/core/fleet'
import type { MeterInput } from '@/core/hours'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { MeterFields } from './MeterFields'

type Props = { meter?: MeterInput; save: (input: MeterInput) => Promise<Outcome> }

const blank = (): MeterInput => ({
  id: uuid(),
  name: '',
  kind: 'pump',
  digits: 5,
  decimals: 1,
  readingIntervalDays: 7,
})

/** Adds a meter, or edits one. */
export function MeterDialog({ meter, save }: Props) {
  return (
    <DialogForm
      label={meter ? 'Edit meter' : 'Add meter'}
      look="text"
      title={meter ? `Edit ${meter.name}` : 'Add a meter'}
      schema="meterSchema"
      start={() => {
        if (!meter) return blank()
        const { id, version, name, kind, digits, decimals, readingIntervalDays } = meter
        return { id, version, name, kind, digits, decimals, readingIntervalDays }
      }}
      action={save}
      submit={meter ? 'Save meter' : 'Add meter'}
      done={meter ? 'The meter is saved.' : 'The meter is added.'}
      fieldName={fieldName}
    >
      <MeterFields />
    </DialogForm>
  )
}
