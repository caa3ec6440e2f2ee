'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormGroup from '@mui/material/FormGroup'
import { useController, useFieldArray, useFormContext } from 'react-hook-form'
import { weekdayNames, type CrewInput, type PlanTermsInput } from '@/core/plan'
import { qualificationNames, qualifications } from '@/core/models'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

/** When one technician works, where from, and what for. */
export function CrewDialog({
  name,
  start,
  yards,
  save,
}: {
  name: string
  start: CrewInput
  yards: Option[]
  save: (input: CrewInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label="Change"
      title={`When ${name} works`}
      schema="crewSchema"
      start={() => start}
      action={save}
      submit="Save"
      done="Planning goes by it from now on."
    >
      <Ticks
        name="days"
        legend="Working days"
        options={weekdayNames.map((label, at) => ({ value: at + 1, label }))}
      />
      <FieldRow>
        <TextEntry name="minutes" label="Work on such a day" unit="min" inputMode="numeric" />
        <ChoiceEntry name="yardId" label="Starts from" placeholder="no yard of their own" options={yards} />
      </FieldRow>
      <Ticks
        name="skills"
        legend="Qualified for, by local codes"
        options={qualifications.map((value) => ({
          value,
          label: qualificationNames[value].replace(/^qualified for /, ''),
        }))}
      />
      <Spans name="leave" legend="Away" add="Add days away" />
    </DialogForm>
  )
}

/** What planning goes by: costs, the share that stays free, benches, ways, closed days. */
export function PlanTermsDialog({
  terms,
  yards,
  currency,
  save,
}: {
  terms: PlanTermsInput
  yards: Option[]
  currency: string
  save: (input: PlanTermsInput) => Promise<Outcome>
}) {
  const pairs = yards.flatMap((from, at) => yards.slice(at + 1).map((to) => [from, to] as const))
  return (
    <DialogForm
      label="Change what planning goes by"
      title="What planning goes by"
      schema="planTermsSchema"
      start={(): PlanTermsInput => ({
        ...terms,
        benches: yards.map(({ value }) => ({
          yardId: value,
          places: terms.benches.find(({ yardId }) => yardId === value)?.places ?? ('' as never),
        })),
        travel: pairs.map(([from, to]) => ({
          from: from.value,
          to: to.value,
          minutes:
            terms.travel.find(
              (each) =>
                (each.from === from.value && each.to === to.value) ||
                (each.from === to.value && each.to === from.value),
            )?.minutes ?? 0,
        })),
      })}
      action={save}
      submit="Save"
      done="Planning goes by it from now on."
    >
      <FieldRow>
        <TextEntry name="hourCost" label="An hour of work" unit={currency} inputMode="decimal" />
        <TextEntry name="visitCost" label="A visit besides" unit={currency} inputMode="decimal" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="downtimeCost" label="A day the machine stands" unit={currency} inputMode="decimal" />
        <TextEntry name="moveCost" label="Moving what people were told" unit={currency} inputMode="decimal" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="freePercent" label="Stays free for breakdowns" unit="%" inputMode="decimal" />
        <TextEntry name="frozenDays" label="Nothing is moved within" unit="days" inputMode="numeric" />
      </FieldRow>
      {yards.map(({ value, label }, at) => (
        <TextEntry
          key={value}
          name={`benches.${at}.places`}
          label={`Bench places in ${label}`}
          hint="Visits at once; blank for no limit"
          inputMode="numeric"
          optional
        />
      ))}
      {pairs.map(([from, to], at) => (
        <TextEntry
          key={from.value + to.value}
          name={`travel.${at}.minutes`}
          label={`${from.label} to ${to.label}, one way`}
          unit="min"
          inputMode="numeric"
        />
      ))}
      <Spans name="closed" legend="Closed days" add="Add closed days" />
    </DialogForm>
  )
}

/** Boxes to tick, kept as a list. */
function Ticks({
  name,
  legend,
  options,
}: {
  name: string
  legend: string
  options: { value: string | number; label: string }[]
}) {
  const { control } = useFormContext()
  const { field } = useController({ name, control })
  const chosen = (field.value ?? []) as (string | number)[]
  return (
    <fieldset className="field">
      <legend>{legend}</legend>
      <FormGroup row>
        {options.map(({ value, label }) => (
          <FormControlLabel
            key={value}
            label={label}
            control={
              <Checkbox
                size="small"
                checked={chosen.includes(value)}
                onChange={({ target }) =>
                  field.onChange(
                    options
                      .map((each) => each.value)
                      .filter((each) => (each === value ? target.checked : chosen.includes(each))),
                  )
                }
              />
            }
          />
        ))}
      </FormGroup>
    </fieldset>
  )
}

/** Stretches of days. */
function Spans({ name, legend, add }: { name: string; legend: string; add: string }) {
  const { control } = useFormContext()
  const { fields, append, remove } = useFieldArray({ control, name })
  return (
    <fieldset className="field">
      <legend>
        {legend} <span className="second">· optional</span>
      </legend>
      {fields.map((field, at) => (
        <FieldRow key={field.id}>
          <TextEntry name={`${name}.${at}.from`} label="From" about={`line ${at + 1}`} type="date" />
          <TextEntry name={`${name}.${at}.to`} label="To" about={`line ${at + 1}`} type="date" />
          <Button onClick={() => remove(at)} aria-label={`Take line ${at + 1} away`}>
            Take away
          </Button>
        </FieldRow>
      ))}
      <Button variant="outlined" onClick={() => append({ from: '', to: '' })}>
        {add}
      </Button>
    </fieldset>
  )
}
