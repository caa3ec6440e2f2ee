'use client'

import { dateOrders } from '@/core/calendar'
import { fieldName } from '@/core/fleet'
import type { CompanyInput } from '@/core/house'
import type { Outcome } from '@/core/problem'
import { useToast } from '../feedback/Toasts'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { FormPart } from '../forms/FormPart'
import { TimeZoneEntry } from './TimeZoneEntry'
import { UnitEntries } from './UnitEntries'

type Props = { company: CompanyInput; timeZones: string[]; action: (input: CompanyInput) => Promise<Outcome> }

export function CompanyForm({ company, timeZones, action }: Props) {
  const toast = useToast()
  return (
    <EntryForm
      key={company.version}
      schema="companySchema"
      values={company}
      action={action}
      onDone={() => toast('The settings are saved.')}
      submit="Save settings"
      fieldName={fieldName}
    >
      <FormPart
        title="Company"
        about="The time zone decides what “today” is, and on which day a reading or a visit falls."
      >
        <FieldRow>
          <TextEntry name="name" label="Company name" />
          <TimeZoneEntry name="timeZone" timeZones={timeZones} />
          <TextEntry name="currency" label="Currency" hint="Three letters, such as EUR" />
          <ChoiceEntry
            name="dateOrder"
            label="Days are written"
            options={Object.entries(dateOrders).map(([value, label]) => ({ value, label }))}
          />
        </FieldRow>
      </FormPart>
      <FormPart
        title="Notice"
        about="The last responsible day of a service is the earliest day its limit is likely reached, less the time its missing parts take to come, less this notice."
      >
        <FieldRow>
          <TextEntry name="noticeDays" label="Notice a crew needs" inputMode="numeric" unit="days" />
        </FieldRow>
      </FormPart>
      <FormPart
        title="Early check"
        about="After a service somebody looks at the pump again once it has worked its first hours: weep holes and caps dry, oil clear. Early failures show themselves then."
      >
        <FieldRow>
          <TextEntry
            name="earlyCheckHours"
            label="Hours until the early check"
            inputMode="decimal"
            unit="h"
          />
        </FieldRow>
      </FormPart>
      <FormPart
        title="Units"
        about="How figures are shown. What was typed is kept as typed. Torque is always shown in N·m, in-lb and ft-lb together."
      >
        <UnitEntries prefix="units" />
      </FormPart>
    </EntryForm>
  )
}
