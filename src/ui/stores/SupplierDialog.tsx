'use client'

import { v7 as uuid } from 'uuid'
import type { SupplierInput, SupplierLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, TextEntry } from '../forms/entries'

type Props = {
  supplier?: SupplierLine
  currency: string
  save: (input: SupplierInput) => Promise<Outcome>
}

/** Who one buys from: how long it says that things take, and its least order. */
export function SupplierDialog({ supplier, currency, save }: Props) {
  return (
    <DialogForm
      label={supplier ? 'Edit' : 'Add a supplier'}
      look={supplier ? 'outlined' : 'contained'}
      title={supplier ? `Edit ${supplier.name}` : 'Add a supplier'}
      schema="supplierSchema"
      start={() =>
        ({
          id: supplier?.id ?? uuid(),
          version: supplier?.version,
          name: supplier?.name ?? '',
          leadDays: supplier?.leadDays ?? ('' as never),
          least: supplier && supplier.leastCents > 0 ? (supplier.leastCents / 100).toFixed(2) : '',
          contact: supplier?.contact ?? '',
          note: supplier?.note ?? '',
        }) as SupplierInput
      }
      action={save}
      submit="Save"
      done={
        supplier
          ? 'The supplier is changed.'
          : 'The supplier is in the list. Say on a part’s page that it sells it.'
      }
    >
      <TextEntry name="name" label="Name" />
      <FieldRow>
        <TextEntry name="leadDays" label="Things come within" unit="days" inputMode="numeric" />
        <TextEntry name="least" label="Least order" unit={currency} inputMode="decimal" optional />
      </FieldRow>
      <TextEntry name="contact" label="Whom to call or write" optional />
      <TextEntry name="note" label="Note" optional />
    </DialogForm>
  )
}
