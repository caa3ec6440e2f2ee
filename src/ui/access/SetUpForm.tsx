'use client'

import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { useFormContext } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import type { SetUpInput } from '@/core/house'
import type { Outcome } from '@/core/problem'
import { metricUnits } from '@/core/units'
import { FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { FormPart } from '../forms/FormPart'
import { UnitEntries, TimeZoneEntry } from '../settings'

type Props = { action: (input: SetUpInput) => Promise<Outcome>; timeZones: string[] }

/** First start: proves who has the console, then company, yard and coordinator in one go. */
export function SetUpForm({ action, timeZones }: Props) {
  const router = useRouter()
  const [values] = useState<SetUpInput>(() => ({
    code: '',
    company: { name: '', timeZone: '', currency: 'EUR', dateOrder: 'dmy', units: metricUnits },
    yard: { id: uuid(), name: '' },
    coordinator: { id: uuid(), name: '', signInName: '', password: '' },
  }))
  return (
    <EntryForm
      schema="setUpSchema"
      values={values}
      action={action}
      onDone={() => {
        router.replace('/')
        router.refresh()
      }}
      submit="Set up the company"
    >
      <FormPart title="1 Code" about="Atelier printed it in the console where it was started.">
        <FieldRow>
          <TextEntry name="code" label="Code from the console" autoFocus />
        </FieldRow>
      </FormPart>
      <FormPart
        title="2 Company"
        about="The time zone decides what “today” is; the units are how figures are shown."
      >
        <DeviceTimeZone />
        <FieldRow>
          <TextEntry name="company.name" label="Company name" autoComplete="organization" />
          <TimeZoneEntry name="company.timeZone" timeZones={timeZones} />
          <TextEntry name="company.currency" label="Currency" hint="Three letters, such as EUR" />
        </FieldRow>
        <UnitEntries prefix="company.units" />
      </FormPart>
      <FormPart title="3 First yard" about="A place machines are kept. More can be added later.">
        <FieldRow>
          <TextEntry name="yard.name" label="Yard name" placeholder="Harbour yard" />
        </FieldRow>
      </FormPart>
      <FormPart
        title="4 First coordinator"
        about="You: the person who may change everything and let others sign in."
      >
        <FieldRow>
          <TextEntry name="coordinator.name" label="Your name" autoComplete="name" />
          <TextEntry name="coordinator.signInName" label="Sign-in name" autoComplete="username" />
          <TextEntry
            name="coordinator.password"
            label="Password"
            type="password"
            autoComplete="new-password"
            hint="At least 10 characters; a short sentence works well"
          />
        </FieldRow>
      </FormPart>
    </EntryForm>
  )
}

/** Starts with the device's own time zone, which only the browser knows. */
function DeviceTimeZone() {
  const { getValues, resetField } = useFormContext<SetUpInput>()
  useEffect(() => {
    // As what the form starts with: nobody has typed it.
    if (getValues('company.timeZone') === '')
      resetField('company.timeZone', {
        defaultValue: Intl.DateTimeFormat().resolvedOptions().timeZone,
      })
  }, [getValues, resetField])
  return null
}
