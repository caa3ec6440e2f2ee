'use client'

import Autocomplete from '@mui/material/Autocomplete'
import { useRouter } from 'next/navigation'
import { useController } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { fieldName } from '@/core/fleet'
import { partSchema, partUnits, type PartForm, type PartChoice, type StockLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import { FieldFrame, TextInput } from '../forms/FieldFrame'

type Props = {
  part?: StockLine
  choices: PartChoice[]
  currency: string
  save: (input: PartForm) => Promise<Outcome>
}

/** A part of the stores: ours by number, with price, lead days, minimum, and what it serves as. */
export function PartDialog({ part, choices, currency, save }: Props) {
  const router = useRouter()
  return (
    <DialogForm
      label={part ? 'Edit' : 'Add part'}
      look={part ? 'outlined' : 'contained'}
      title={part ? `Edit ${part.number}` : 'Add a part'}
      schema={partSchema}
      start={(): PartForm => ({
        id: part?.id ?? uuid(),
        version: part?.version,
        number: part?.number ?? '',
        name: part?.name ?? '',
        makersNumber: part?.makersNumber ?? '',
        unit: part?.unit ?? 'piece',
        packSize: part?.packSize ?? 1,
        price: part ? (part.priceCents / 100).toFixed(2) : '',
        leadDays: part?.leadDays ?? ('' as never),
        minimum: part?.minimum ?? ('' as never),
        bin: part?.bin ?? '',
        fits: part?.fits ?? [],
        note: part?.note ?? '',
      })}
      action={async (input) => {
        const outcome = await save(input)
        // The page's address is the part's number.
        if (outcome.ok && part && part.number !== input.number)
          router.replace(`/stores/${encodeURIComponent(input.number)}`)
        return outcome
      }}
      submit="Save"
      done={part ? 'The part is changed.' : 'The part is in the list. Receive what lies in its bin.'}
      fieldName={fieldName}
      fromRow={asForm}
    >
      <FieldRow>
        <TextEntry name="number" label="Our number" />
        <TextEntry name="name" label="Name" />
      </FieldRow>
      <FitsEntry choices={choices} />
      <FieldRow>
        <ChoiceEntry name="unit" label="Counted in" options={options(partUnits)} />
        <TextEntry
          name="packSize"
          label="In a pack or kit"
          inputMode="numeric"
          hint="Pieces as they come; 1 for loose ones"
        />
        <TextEntry name="bin" label="Bin" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry name="price" label="Price of one" unit={currency} inputMode="decimal" optional />
        <TextEntry name="leadDays" label="Comes within" unit="days" inputMode="numeric" optional />
        <TextEntry name="minimum" label="Least to have" inputMode="decimal" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry name="makersNumber" label="Maker’s number" optional />
        <TextEntry name="note" label="Note" optional />
      </FieldRow>
    </DialogForm>
  )
}

/** A stored part as the form holds it: its price as people type it. */
function asForm(row: Record<string, unknown>): Partial<PartForm> {
  const { number, name, makersNumber, unit, packSize, leadDays, minimum, bin, fits, note, priceCents } =
    row as StockLine
  const price = (priceCents / 100).toFixed(2)
  return { number, name, makersNumber, unit, packSize, leadDays, minimum, bin, fits, note, price }
}

/** Which parts of which pump models it serves as: sheets then offer it where it is needed. */
function FitsEntry({ choices }: { choices: PartChoice[] }) {
  const { field } = useController<PartForm, 'fits'>({ name: 'fits' })
  const same = (a: { modelId: string; part: string }, b: { modelId: string; part: string }) =>
    a.modelId === b.modelId && a.part === b.part
  return (
    <FieldFrame
      id="field-fits"
      label="Serves as"
      optional
      hint="Sheets and visits offer it where this part of the model is needed"
    >
      <Autocomplete
        id="field-fits"
        multiple
        size="small"
        options={choices}
        groupBy={(choice) => choice.model}
        getOptionLabel={(choice) => `${choice.name}, ${choice.model}`}
        getOptionKey={(choice) => `${choice.modelId} ${choice.part}`}
        isOptionEqualToValue={(one: PartChoice, other: PartChoice) => same(one, other)}
        value={choices.filter((choice) => field.value.some((fit) => same(fit, choice)))}
        onChange={(_event, chosen) => field.onChange(chosen.map(({ modelId, part }) => ({ modelId, part })))}
        renderInput={({ id, slotProps }) => (
          <TextInput id={id} {...slotProps.input} inputProps={slotProps.htmlInput} />
        )}
      />
    </FieldFrame>
  )
}
