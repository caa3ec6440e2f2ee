'use client'

import { v7 as uuid } from 'uuid'
import type { ReceiptInput, StockLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Props = {
  part: Pick<StockLine, 'id' | 'number' | 'name' | 'unit' | 'priceCents' | 'packSize' | 'shelfGroup'>
  places: Option[]
  today: string
  currency: string
  receive: (input: ReceiptInput) => Promise<Outcome<{ lot: number }>>
}

/** What came in, as a lot of its own; its number is written on the bag. */
export function ReceiveDialog({ part, places, today, currency, receive }: Props) {
  return (
    <DialogForm
      label="Receive"
      look="contained"
      title={`Receive ${part.number} ${part.name}`}
      schema="receiptSchema"
      start={(): ReceiptInput => ({
        id: uuid(),
        partId: part.id,
        quantity: '' as never,
        code: '',
        receivedOn: today,
        price: '' as never,
        expiresOn: '' as never,
        curedOn: '',
        placeId: places[0]?.value ?? '',
        note: '',
      })}
      action={receive}
      submit="Receive"
      done="Received. Its lot number stands in the list: write it on the bag."
    >
      <FieldRow>
        <TextEntry
          name="quantity"
          label="How much"
          unit={part.unit === 'piece' ? 'pieces' : part.unit}
          inputMode="decimal"
          hint={part.packSize > 1 ? `A pack holds ${part.packSize}` : undefined}
        />
        <TextEntry name="receivedOn" label="Came in on" type="date" />
        {places.length > 1 && <ChoiceEntry name="placeId" label="Lies in" options={places} />}
      </FieldRow>
      <FieldRow>
        <TextEntry name="code" label="Maker’s lot" optional />
        {part.shelfGroup !== 'none' && (
          <TextEntry
            name="curedOn"
            label="Cured or made"
            hint="As on the bag: 2Q26, 2026-05 or a day. Blank: assumed from its receipt"
            optional
          />
        )}
        <TextEntry
          name="expiresOn"
          label="Good until"
          type="date"
          hint={part.shelfGroup === 'none' ? undefined : 'If it is printed; else reckoned'}
          optional
        />
        <TextEntry
          name="price"
          label="Price of one"
          unit={currency}
          inputMode="decimal"
          optional
          hint={`Left blank: ${(part.priceCents / 100).toFixed(2)}`}
        />
      </FieldRow>
      <TextEntry name="note" label="Note" optional />
    </DialogForm>
  )
}
