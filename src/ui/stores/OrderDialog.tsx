'use client'

import { useRouter } from 'next/navigation'
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { visitNumber } from '@/core/plan'
import { showAmount, type OrderInput, type SupplierLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Props = {
  label: string
  look?: 'outlined' | 'contained'
  suppliers: SupplierLine[]
  yards: Option[]
  /** What stands in it already; a new one where it is left out. */
  order?: Omit<OrderInput, 'id'> & { id?: string }
  save: (input: OrderInput) => Promise<Outcome<{ number: number }>>
}

/** An order to one supplier: lines of what it sells, in packs as they come. */
export function OrderDialog({ label, look, suppliers, yards, order, save }: Props) {
  const router = useRouter()
  return (
    <DialogForm
      label={label}
      look={look}
      title={order?.id ? 'Change the order' : 'Write an order'}
      schema="orderSchema"
      start={(): OrderInput => ({
        supplierId: order?.supplierId ?? '',
        yardId: order?.yardId ?? yards[0]?.value ?? '',
        note: order?.note ?? '',
        version: order?.version,
        id: order?.id ?? uuid(),
        lines: order?.lines ?? [{ id: uuid(), partId: '', quantity: '' as never, neededBy: null }],
      })}
      action={async (input) => {
        const outcome = await save(input)
        if (outcome.ok) router.push(`/stores/orders/${visitNumber(outcome.data.number)}`)
        return outcome
      }}
      submit="Write it"
      done="It is a draft. Look it over, then send it."
    >
      <FieldRow>
        <ChoiceEntry
          name="supplierId"
          label="Supplier"
          placeholder="Choose"
          options={suppliers
            .filter((supplier) => supplier.offers.length > 0 && supplier.retiredOn === null)
            .map(({ id, name }) => ({ value: id, label: name }))}
        />
        <ChoiceEntry name="yardId" label="Comes to" options={yards} />
      </FieldRow>
      <Lines suppliers={suppliers} />
      <TextEntry name="note" label="Note for the supplier" optional />
    </DialogForm>
  )
}

function Lines({ suppliers }: { suppliers: SupplierLine[] }) {
  const { control, formState } = useFormContext<OrderInput>()
  const { fields, append, remove } = useFieldArray({ control, name: 'lines' })
  const supplierId = useWatch({ control, name: 'supplierId' })
  const lines = useWatch({ control, name: 'lines' })
  const offers = suppliers.find((supplier) => supplier.id === supplierId)?.offers ?? []
  const fault = formState.errors.lines as { message?: string } | undefined
  return (
    <fieldset className="field">
      <legend>Lines</legend>
      {fields.map((field, at) => {
        const offer = offers.find((each) => each.partId === lines[at]?.partId)
        return (
          <FieldRow key={field.id}>
            <ChoiceEntry
              name={`lines.${at}.partId`}
              label="Part"
              about={`line ${at + 1}`}
              placeholder="Choose"
              options={offers.map((each) => ({
                value: each.partId,
                label: `${each.number} ${each.name} (${each.supplierNumber})`,
              }))}
            />
            <TextEntry
              name={`lines.${at}.quantity`}
              label="How many"
              about={`line ${at + 1}`}
              inputMode="decimal"
              unit={offer && offer.unit !== 'piece' ? offer.unit : undefined}
              hint={
                offer && (offer.packSize > 1 || offer.minimumOrder > 0)
                  ? [
                      offer.packSize > 1 && `packs of ${offer.packSize}`,
                      offer.minimumOrder > 0 && `at least ${showAmount(offer.minimumOrder, offer.unit)}`,
                    ]
                      .filter(Boolean)
                      .join(', ')
                  : undefined
              }
            />
            {fields.length > 1 && (
              <Button onClick={() => remove(at)} aria-label={`Take away: line ${at + 1}`}>
                Take away
              </Button>
            )}
          </FieldRow>
        )
      })}
      {fault?.message && (
        <p className="oxide" role="alert">
          {fault.message}
        </p>
      )}
      <Button
        variant="outlined"
        onClick={() => append({ id: uuid(), partId: '', quantity: '' as never, neededBy: null })}
      >
        One more line
      </Button>
    </fieldset>
  )
}
