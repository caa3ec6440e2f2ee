'use client'

import { v7 as uuid } from 'uuid'
import { receiptSchema, type ReceiptInput, type StockLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, TextEntry } from '../forms/entries'

type Props = {
  part: Pick<StockLine, 'id' | 'number' | 'name' | 'unit' | 'priceCents' | 'packSize'>
  today: string
  currency: string
  receive: (input: ReceiptInput) => Promise<Outcome<{ lot: number }>>
}

/** What came in, as a lot of its own; its number is written on the bag. */
export function ReceiveDialog({ part, today, currency, receive }: Props) {
  return (
    <DialogForm
      label="Receive"
      look="contained"
      title={`Receive ${part.number} ${part.name}`}
      schema={receiptSchema}
      start={(): ReceiptInput => ({
        id: uuid(),
        partId: part.id,
        quantity: '' as never,
        code: '',
        receivedOn: today,
        price: '' as never,
        expiresOn: '' as never,
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
      </FieldRow>
      <FieldRow>
        <TextEntry name="code" label="Maker’s lot" optional />
        <TextEntry name="expiresOn" label="Good until" type="date" optional />
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
