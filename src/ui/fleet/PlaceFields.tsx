'use client'

import { useFormContext, useWatch } from 'react-hook-form'
import { ChoiceEntry, FieldRow, RadioEntry, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { DutyFields } from './PumpFields'

export type PlaceChoices = {
  machines: Option[]
  /** Meters of each machine, by its id. */
  meters: Record<string, Option[]>
  yards: Option[]
}

const blankMachinePlace = {
  where: 'machine',
  machineId: '',
  slot: '',
  meterId: '',
  share: 100,
  shareBasis: 'own',
}

/** Where an assembly goes: a machine and the meter that counts it there, or a shelf. */
export function PlaceFields({ choices }: { choices: PlaceChoices }) {
  const { setValue } = useFormContext()
  const where = useWatch({ name: 'place.where' }) as string
  const machineId = useWatch({ name: 'place.machineId' }) as string | undefined
  const meters = (machineId && choices.meters[machineId]) || []
  return (
    <>
      <PlaceChoice
        onChange={(next) =>
          setValue(
            'place',
            next === 'shelf'
              ? { where: 'shelf', yardId: choices.yards[0]?.value ?? '', bin: '' }
              : blankMachinePlace,
            { shouldDirty: true },
          )
        }
      />
      {where === 'shelf' ? (
        <FieldRow>
          <ChoiceEntry name="place.yardId" label="Yard" options={choices.yards} placeholder="Choose a yard" />
          <TextEntry name="place.bin" label="Bin or shelf" optional />
        </FieldRow>
      ) : (
        <>
          <FieldRow>
            <ChoiceEntry
              name="place.machineId"
              label="Machine"
              options={choices.machines}
              placeholder="Choose a machine"
            />
            <ChoiceEntry
              name="place.meterId"
              label="Counted by"
              options={meters}
              placeholder={machineId ? 'Choose a meter' : 'Choose a machine first'}
            />
            <TextEntry name="place.slot" label="Place on the machine" optional />
          </FieldRow>
          <DutyFields prefix="place." />
        </>
      )}
    </>
  )
}

function PlaceChoice({ onChange }: { onChange: (where: string) => void }) {
  return (
    // The choice swaps the whole place, so that no field of the other kind stays behind.
    <div onChange={(event) => onChange((event.target as HTMLInputElement).value)}>
      <RadioEntry
        name="place.where"
        label="Where is it?"
        options={[
          { value: 'machine', label: 'Fitted to a machine' },
          { value: 'shelf', label: 'On the shelf' },
        ]}
      />
    </div>
  )
}
