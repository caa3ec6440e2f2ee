'use client'

import type { WinterTermsInput } from '@/core/winter'
import { type Outcome } from '@/core/problem'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, FieldRow, RadioEntry, TextEntry } from '../../forms/entries'
import { type Option } from '../../forms/FieldFrame'
import { yesNo } from './choices'

/** How the company goes about its winter. */
export function TermsDialog({
  terms,
  products,
  yards,
  currency,
  save,
}: {
  terms: WinterTermsInput
  products: Option[]
  yards: Option[]
  currency: string
  save: (input: WinterTermsInput) => Promise<Outcome>
}) {
  const weekdays = [1, 2, 3, 4, 5]
  return (
    <DialogForm
      label="Change the terms"
      title="Terms of the winter"
      schema="winterTermsSchema"
      start={() => ({
        ...terms,
        productId: terms.productId ?? ('' as never),
        crews: yards.map(
          ({ value }) =>
            terms.crews.find(({ yardId }) => yardId === value) ?? {
              yardId: value,
              people: 1,
              minutes: 240,
              days: weekdays,
            },
        ),
      })}
      action={save}
      submit="Save"
      done="The campaign follows the new terms."
    >
      <FieldRow>
        <ChoiceEntry
          name="productId"
          label="Antifreeze poured"
          options={[{ value: '', label: 'Not chosen' }, ...products]}
        />
        <TextEntry name="riskPercent" label="Accepted risk of a machine" unit="%" inputMode="decimal" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="marginC" label="Margin below the design low" unit="°C" inputMode="decimal" />
        <TextEntry
          name="runOnPercent"
          label="Run on after clean colour"
          unit="% of the zone"
          inputMode="decimal"
        />
        <TextEntry name="alarmC" label="Alarm within" unit="°C of freezing" inputMode="decimal" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="hourCost" label="An hour of a technician" unit={currency} inputMode="decimal" />
        <TextEntry
          name="protectorCost"
          label="A use of a screw-on protector"
          unit={currency}
          inputMode="decimal"
        />
      </FieldRow>
      <RadioEntry name="refillable" label="Protectors are refilled from your own cans" options={yesNo} />
      {yards.map(({ label }, at) => (
        <FieldRow key={label}>
          <TextEntry name={`crews.${at}.people`} label={`People in ${label}`} inputMode="decimal" />
          <TextEntry
            name={`crews.${at}.minutes`}
            label={`Minutes each a day in ${label}`}
            inputMode="numeric"
          />
        </FieldRow>
      ))}
      <TextEntry
        name="weatherUrl"
        label="Address of the weather service"
        optional
        placeholder="http://localhost:4010/outlook"
      />
    </DialogForm>
  )
}
