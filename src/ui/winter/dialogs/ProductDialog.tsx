'use client'

import { v7 as uuid } from 'uuid'
import { fluidNames, soldNames, type Antifreeze, type AntifreezeInput } from '@/core/winter'
import { type Outcome } from '@/core/problem'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../../forms/entries'
import { type Option } from '../../forms/FieldFrame'
import { typed } from './choices'

/** What a product's own sheet states. */
export function ProductDialog({
  product,
  parts,
  currency,
  save,
}: {
  product?: Antifreeze & { id: string; version: number; partId: string | null; note: string }
  parts: Option[]
  currency: string
  save: (input: AntifreezeInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label={product ? 'Edit' : 'Add an antifreeze'}
      look={product ? 'outlined' : 'contained'}
      title={product ? `Edit ${product.name}` : 'Add an antifreeze, as its own sheet states it'}
      schema="antifreezeSchema"
      start={() =>
        ({
          id: product?.id ?? uuid(),
          version: product?.version,
          name: product?.name ?? '',
          fluid: product?.fluid ?? 'propylene',
          sold: product?.sold ?? 'concentrate',
          contentPercent: typed(product?.contentPercent),
          freezesAtC: typed(product?.freezesAtC),
          burstsAtC: typed(product?.burstsAtC),
          packLitres: typed(product?.packLitres),
          price: product ? (product.packCents / 100).toFixed(2) : '',
          partId: product?.partId ?? '',
          note: product?.note ?? '',
        }) as AntifreezeInput
      }
      action={save}
      submit="Save"
      done="Recipes and litres follow it."
    >
      <TextEntry name="name" label="Name" />
      <FieldRow>
        <ChoiceEntry name="fluid" label="Fluid" options={options(fluidNames)} />
        <ChoiceEntry name="sold" label="Sold as" options={options(soldNames)} />
      </FieldRow>
      <FieldRow>
        <TextEntry
          name="contentPercent"
          label="Glycol in it"
          unit="vol %"
          inputMode="decimal"
          optional
          hint="A concentrate must state it"
        />
        <TextEntry name="freezesAtC" label="Freezes at, as sold" unit="°C" optional />
        <TextEntry name="burstsAtC" label="Bursts at, as sold" unit="°C" optional hint="Never planned by" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="packLitres" label="Pack" unit="L" inputMode="decimal" />
        <TextEntry name="price" label="Price of a pack" unit={currency} inputMode="decimal" />
      </FieldRow>
      <ChoiceEntry
        name="partId"
        label="Part of the stores"
        options={[{ value: '', label: 'Not stocked' }, ...parts]}
      />
      <TextEntry name="note" label="Note" optional />
    </DialogForm>
  )
}
