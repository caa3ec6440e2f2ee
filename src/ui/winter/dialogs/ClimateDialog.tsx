'use client'

import type { YardClimateInput } from '@/core/winter'
import { type Outcome } from '@/core/problem'
import { DialogForm } from '../../forms/DialogForm'
import { FieldRow, RadioEntry, TextEntry } from '../../forms/entries'
import { typed, yesNo } from './choices'

/** What is known by heart of a yard's frost, and what its places stand. */
export function ClimateDialog({
  name,
  values,
  save,
}: {
  name: string
  values: YardClimateInput
  save: (input: YardClimateInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label="Enter or change"
      title={`Frost of ${name}`}
      schema="yardClimateSchema"
      start={() =>
        ({
          ...values,
          firstFrost: values.firstFrost ?? '',
          firstSpreadDays: typed(values.firstSpreadDays),
          lastFrost: values.lastFrost ?? '',
          lastSpreadDays: typed(values.lastSpreadDays),
          designLowC: typed(values.designLowC),
          heatedStandsC: typed(values.heatedStandsC),
          hallStandsC: typed(values.hallStandsC),
          outdoorsStandsC: typed(values.outdoorsStandsC),
        }) as never
      }
      action={save}
      submit="Save"
      done="Risk and order of work follow it."
    >
      <p className="second">
        By heart, where there are no minima to import: the usual first and last frost of any year, and how
        many days either way two winters of three lie. Left blank, what was imported stays.
      </p>
      <FieldRow>
        <TextEntry name="firstFrost" label="First frost" type="date" optional />
        <TextEntry
          name="firstSpreadDays"
          label="First frost, either way"
          unit="days"
          inputMode="numeric"
          optional
        />
      </FieldRow>
      <FieldRow>
        <TextEntry name="lastFrost" label="Last frost" type="date" optional />
        <TextEntry
          name="lastSpreadDays"
          label="Last frost, either way"
          unit="days"
          inputMode="numeric"
          optional
        />
      </FieldRow>
      <TextEntry
        name="designLowC"
        label="Design low"
        unit="°C"
        optional
        hint="Passed in one winter of ten; blank: as computed"
      />
      <FieldRow>
        <TextEntry name="outdoorsStandsC" label="Outdoors freezes at" unit="°C" optional />
        <TextEntry name="outdoorsReason" label="Why, outdoors" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry name="hallStandsC" label="Unheated hall freezes at" unit="°C outside" optional />
        <TextEntry name="hallReason" label="Why, in the hall" optional />
      </FieldRow>
      <FieldRow>
        <TextEntry
          name="heatedStandsC"
          label="Heated store freezes at"
          unit="°C outside"
          optional
          hint="Blank: never"
        />
        <TextEntry name="heatedReason" label="Why, in the heated store" optional />
      </FieldRow>
      <RadioEntry name="heatedSpace" label="Is there room in a heated hall for a night?" options={yesNo} />
    </DialogForm>
  )
}
