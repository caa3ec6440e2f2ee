'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import type { NewMachineInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import type { UnitPreferences } from '@/core/units'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import type { Option } from '../forms/FieldFrame'
import { FormPart } from '../forms/FormPart'
import { ButtonLink } from '../frame/ButtonLink'
import { blankMachine, MachineFields } from './MachineFields'
import { MeterFields } from './MeterFields'
import { DutyFields, ModelEntry, OpeningFields } from './PumpFields'

type Props = {
  yards: Option[]
  models: Option[]
  units: UnitPreferences
  today: string
  nextPumpNumber: string
  action: (input: NewMachineInput) => Promise<Outcome>
}

type Pump = NonNullable<NewMachineInput['pump']>

/** A machine with its meter and, if it has one, its pump: one form, saved all at once. */
export function NewMachineForm({ yards, models, units, today, nextPumpNumber, action }: Props) {
  const router = useRouter()
  const toast = useToast()
  const blankPump = (): Pump => ({
    id: uuid(),
    number: nextPumpNumber,
    modelId: '',
    serial: '',
    usageScale: 'h',
    openingKind: 'known',
    openingUsage: '' as never,
    takenOverOn: today,
    note: '',
    slot: 'main pump',
    share: 100,
    shareBasis: 'own',
  })
  const [values] = useState<NewMachineInput>(() => ({
    ...blankMachine(uuid(), yards.length === 1 ? yards[0]!.value : '', units),
    meter: {
      id: uuid(),
      name: 'Engine hours',
      kind: 'engine',
      digits: 5,
      decimals: 1,
      readingIntervalDays: 7,
      firstTyped: '',
      firstDay: today,
    },
    pump: blankPump(),
  }))
  return (
    <EntryForm
      schema="newMachineSchema"
      values={values}
      action={action}
      onDone={(_result, typed) => {
        const number = typed.number.trim().toUpperCase()
        toast(`${number} is in the fleet.`)
        router.push(`/fleet/${encodeURIComponent(number)}`)
      }}
      submit="Add machine"
      cancel={<ButtonLink href="/fleet">Cancel</ButtonLink>}
    >
      <MachineFields yards={yards} autoFocus />
      <FormPart title="Meter" about="Its main counter. More meters can be added on the machine’s page.">
        <MeterFields prefix="meter." />
        <FieldRow>
          <TextEntry
            name="meter.firstTyped"
            label="It shows"
            inputMode="decimal"
            optional
            hint="The first reading"
          />
          <TextEntry name="meter.firstDay" label="Read on" type="date" />
        </FieldRow>
      </FormPart>
      <PumpPart models={models} blank={blankPump} />
    </EntryForm>
  )
}

function PumpPart({ models, blank }: { models: Option[]; blank: () => Pump }) {
  const { setValue } = useFormContext<NewMachineInput>()
  const pump = useWatch<NewMachineInput>({ name: 'pump' })
  if (!pump) {
    return (
      <FormPart title="Pump" about="No pump for now; one can be fitted on the machine’s page.">
        <div>
          <Button variant="outlined" onClick={() => setValue('pump', blank(), { shouldDirty: true })}>
            Add its pump here
          </Button>
        </div>
      </FormPart>
    )
  }
  return (
    <FormPart title="Pump" about="Its hours and its record stay with it when it moves to another machine.">
      <FieldRow>
        <TextEntry name="pump.number" label="Pump number" />
        <ModelEntry name="pump.modelId" models={models} />
        <TextEntry name="pump.serial" label="Serial number" optional />
        <TextEntry name="pump.slot" label="Place on the machine" optional />
      </FieldRow>
      <OpeningFields prefix="pump." />
      <DutyFields prefix="pump." />
      <div>
        <Button variant="text" onClick={() => setValue('pump', null, { shouldDirty: true })}>
          Leave the pump out for now
        </Button>
      </div>
    </FormPart>
  )
}
