'use client'

import Autocomplete from '@mui/material/Autocomplete'
import { useRouter } from 'next/navigation'
import { useController, useFieldArray, useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { fieldName } from '@/core/fleet'
import { partUnits, shelfGroups, type PartForm, type PartChoice, type StockLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import { FieldFrame, SelectInput, TextInput } from '../forms/FieldFrame'

type NamedPart = Pick<StockLine, 'id' | 'number' | 'name' | 'fits'>

type Props = {
  part?: StockLine
  choices: PartChoice[]
  /** Every part of the list: what a kit may hold, and what it may stand for. */
  parts: NamedPart[]
  currency: string
  save: (input: PartForm) => Promise<Outcome>
}

/** A part of the stores: ours by number, with price, lead days, minimum, and what it serves as. */
export function PartDialog({ part, choices, parts, currency, save }: Props) {
  const router = useRouter()
  return (
    <DialogForm
      label={part ? 'Edit' : 'Add part'}
      look={part ? 'outlined' : 'contained'}
      title={part ? `Edit ${part.number}` : 'Add a part'}
      schema="partSchema"
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
        contents: part?.contents ?? [],
        insteadOf: part?.insteadOf ?? [],
        means: part?.means ?? '',
        material: part?.material ?? '',
        shelfGroup: part?.shelfGroup ?? 'none',
        keepsMonths: part?.keepsMonths || ('' as never),
        openedMonths: part?.openedMonths || ('' as never),
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
        <TextEntry name="material" label="Material" optional />
        <ChoiceEntry name="shelfGroup" label="On the shelf" options={options(shelfGroups)} />
      </FieldRow>
      <Ageing />
      <TextEntry
        name="means"
        label="Bottle or tube of"
        hint="As sheets name it, such as assembly lubricant: pick lists then say which is there"
        optional
      />
      <KitEntry parts={parts.filter((each) => each.id !== part?.id)} />
      <InsteadEntry parts={parts.filter((each) => each.id !== part?.id)} choices={choices} />
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
  const { contents, insteadOf, means, material, shelfGroup, keepsMonths, openedMonths } = row as StockLine
  const price = (priceCents / 100).toFixed(2)
  return {
    number,
    name,
    makersNumber,
    unit,
    packSize,
    leadDays,
    minimum,
    bin,
    fits,
    note,
    price,
    ...{ contents, insteadOf, means, material, shelfGroup, keepsMonths, openedMonths },
  }
}

/** How long it keeps, where that is its own, and once it is open. */
function Ageing() {
  const group = useWatch<PartForm>({ name: 'shelfGroup' })
  return (
    <FieldRow>
      {group === 'own' && <TextEntry name="keepsMonths" label="Keeps" unit="months" inputMode="numeric" />}
      {group !== 'none' && (
        <TextEntry
          name="openedMonths"
          label="Once it is open"
          unit="months"
          inputMode="numeric"
          hint="A bottle or tube; blank where that makes no difference"
          optional
        />
      )}
    </FieldRow>
  )
}

type Named = Pick<StockLine, 'id' | 'number' | 'name'>
const asOptions = (parts: Named[]) =>
  parts.map(({ id, number, name }) => ({ value: id, label: `${number} ${name}` }))

/** What a kit of unlike pieces holds. */
function KitEntry({ parts }: { parts: Named[] }) {
  const { control, formState } = useFormContext<PartForm>()
  const { fields, append, remove } = useFieldArray({ control, name: 'contents' })
  const fault = formState.errors.contents as { message?: string } | undefined
  return (
    <fieldset className="field">
      <legend>
        Kit of unlike pieces <span className="second">· optional</span>
      </legend>
      {fields.map((field, at) => (
        <FieldRow key={field.id}>
          <ChoiceEntry
            name={`contents.${at}.partId`}
            label="Holds"
            about={`piece ${at + 1}`}
            placeholder="Choose"
            options={asOptions(parts)}
          />
          <TextEntry
            name={`contents.${at}.quantity`}
            label="How many"
            about={`piece ${at + 1}`}
            inputMode="numeric"
          />
          <Button onClick={() => remove(at)} aria-label={`Take out: piece ${at + 1}`}>
            Take out
          </Button>
        </FieldRow>
      ))}
      {fault?.message && (
        <p className="oxide" role="alert">
          {fault.message}
        </p>
      )}
      <Button variant="outlined" onClick={() => append({ partId: '', quantity: '' as never })}>
        It holds a piece
      </Button>
    </fieldset>
  )
}

/** What it may be used instead of, and who has approved of it. */
function InsteadEntry({ parts, choices }: { parts: NamedPart[]; choices: PartChoice[] }) {
  const { control } = useFormContext<PartForm>()
  const { fields, append, remove } = useFieldArray({ control, name: 'insteadOf' })
  const models = [...new Map(choices.map((choice) => [choice.modelId, choice.model]))]
  return (
    <fieldset className="field">
      <legend>
        Stands for another part <span className="second">· optional</span>
      </legend>
      {fields.map((field, at) => (
        <FieldRow key={field.id}>
          <ChoiceEntry
            name={`insteadOf.${at}.partId`}
            label="Instead of"
            about={`line ${at + 1}`}
            placeholder="Choose"
            options={asOptions(parts)}
          />
          <ChoiceEntry
            name={`insteadOf.${at}.kind`}
            label="As"
            about={`line ${at + 1}`}
            options={[
              { value: 'supersedes', label: 'it supersedes it' },
              { value: 'alternative', label: 'it does as well' },
            ]}
          />
          <ChoiceEntry
            name={`insteadOf.${at}.modelId`}
            label="On"
            about={`line ${at + 1}`}
            placeholder="every model"
            options={models.map(([value, label]) => ({ value, label }))}
          />
          <PlaceEntry at={at} parts={parts} choices={choices} />
          <TextEntry name={`insteadOf.${at}.approval`} label="Approved by" about={`line ${at + 1}`} />
          <Button onClick={() => remove(at)} aria-label={`Take away: line ${at + 1}`}>
            Take away
          </Button>
        </FieldRow>
      ))}
      <Button
        variant="outlined"
        onClick={() => append({ partId: '', kind: 'supersedes', modelId: null, positions: [], approval: '' })}
      >
        It stands for a part
      </Button>
    </fieldset>
  )
}

/** The one place of the chosen model that an approval is about; offered where the other part has several. */
function PlaceEntry({ at, parts, choices }: { at: number; parts: NamedPart[]; choices: PartChoice[] }) {
  const [partId, modelId] = useWatch<PartForm, [`insteadOf.${number}.partId`, `insteadOf.${number}.modelId`]>(
    { name: [`insteadOf.${at}.partId`, `insteadOf.${at}.modelId`] },
  )
  const { field, fieldState } = useController<PartForm, `insteadOf.${number}.positions`>({
    name: `insteadOf.${at}.positions`,
  })
  const fits = parts.find(({ id }) => id === partId)?.fits ?? []
  const places = choices.filter(
    (choice) =>
      choice.modelId === modelId && fits.some((fit) => fit.part === choice.part && fit.modelId === modelId),
  )
  const chosen = field.value?.[0] ?? ''
  // A place chosen before stays to be seen and taken back, whatever was chosen beside it since.
  if (places.length < 2 && chosen === '') return null
  const known = places.some(({ part }) => part === chosen)
  return (
    <FieldFrame
      id={`field-${field.name}`}
      label="At"
      about={`line ${at + 1}`}
      error={fieldState.error?.message ?? ''}
    >
      <SelectInput
        id={`field-${field.name}`}
        name={field.name}
        placeholder="every place it serves"
        options={[
          ...places.map(({ part, name }) => ({ value: part, label: name })),
          ...(chosen === '' || known ? [] : [{ value: chosen, label: chosen }]),
        ]}
        value={chosen}
        onChange={({ target: { value } }) => field.onChange(value === '' ? [] : [value])}
        onBlur={field.onBlur}
        inputRef={field.ref}
        error={Boolean(fieldState.error)}
      />
    </FieldFrame>
  )
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
