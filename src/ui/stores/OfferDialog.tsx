'use client'

import { v7 as uuid } from 'uuid'
import type { OfferInput } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Offered = {
  id: string
  version: number
  supplierId: string
  supplierNumber: string
  unitCents: number
  packSize: number
  minimumOrder: number
  said: number | null
}
type Props = {
  partId: string
  number: string
  suppliers: Option[]
  currency: string
  offer?: Offered
  save: (input: OfferInput) => Promise<Outcome>
}

/** Who sells a part, under which number and on what terms. */
export function OfferDialog({ partId, number, suppliers, currency, offer, save }: Props) {
  return (
    <DialogForm
      label={offer ? 'Change' : 'Add a supplier'}
      look={offer ? 'text' : 'outlined'}
      title={`Who sells ${number}`}
      schema="offerSchema"
      start={() =>
        ({
          id: offer?.id ?? uuid(),
          version: offer?.version,
          supplierId: offer?.supplierId ?? '',
          partId,
          supplierNumber: offer?.supplierNumber ?? '',
          price: offer ? (offer.unitCents / 100).toFixed(2) : '',
          packSize: offer?.packSize ?? 1,
          minimumOrder: offer?.minimumOrder || ('' as never),
          leadDays: offer?.said ?? ('' as never),
        }) as OfferInput
      }
      action={save}
      submit="Save"
      done="Orders reckon with it from now on."
    >
      <FieldRow>
        <ChoiceEntry name="supplierId" label="Supplier" placeholder="Choose" options={suppliers} />
        <TextEntry name="supplierNumber" label="Its number" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="price" label="Price of one" unit={currency} inputMode="decimal" />
        <TextEntry name="packSize" label="In a pack" inputMode="numeric" />
        <TextEntry name="minimumOrder" label="At least" inputMode="decimal" optional />
      </FieldRow>
      <TextEntry
        name="leadDays"
        label="Comes within"
        unit="days"
        inputMode="numeric"
        hint="Blank: as the supplier says for all"
        optional
      />
    </DialogForm>
  )
}
