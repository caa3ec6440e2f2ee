'use client'

import { useRouter } from 'next/navigation'
import { fieldName, type MachineInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import type { UnitPreferences } from '@/core/units'
import { useToast } from '../feedback/Toasts'
import { EntryForm } from '../forms/EntryForm'
import type { Option } from '../forms/FieldFrame'
import { ButtonLink } from '../frame/ButtonLink'
import { MachineFields, machineValues } from './MachineFields'

type Props = {
  machine: MachineInput
  yards: Option[]
  units: UnitPreferences
  action: (input: MachineInput) => Promise<Outcome>
}

export function EditMachineForm({ machine, yards, units, action }: Props) {
  const router = useRouter()
  const toast = useToast()
  const values = {
    ...machineValues(machine, units),
    id: machine.id,
    version: machine.version,
  } as MachineInput
  return (
    <EntryForm
      schema="machineSchema"
      values={values}
      action={action}
      onDone={(_result, typed) => {
        const number = typed.number.trim().toUpperCase()
        toast(`${number} is saved.`)
        router.push(`/fleet/${encodeURIComponent(number)}`)
      }}
      submit="Save machine"
      cancel={<ButtonLink href={`/fleet/${encodeURIComponent(machine.number)}`}>Cancel</ButtonLink>}
      fieldName={fieldName}
      fromRow={(row) => machineValues(row, units)}
    >
      <MachineFields yards={yards} />
    </EntryForm>
  )
}
