'use client'

import { bypassKinds, driveKinds, machineKinds, storageKinds, type MachineInput } from '@/core/fleet'
import type { UnitPreferences } from '@/core/units'
import { ChoiceEntry, FieldRow, options, QuantityEntry, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { FormPart } from '../forms/FormPart'

/** Everything about a machine itself, the same when it is added and when it is edited. */
export function MachineFields({ yards, autoFocus = false }: { yards: Option[]; autoFocus?: boolean }) {
  return (
    <>
      <FormPart title="Machine" about="What is painted on its side, and where it is kept between jobs.">
        <FieldRow>
          <TextEntry name="number" label="Number" placeholder="T-04" autoFocus={autoFocus} />
          <TextEntry name="name" label="Name" placeholder="silo trailer" />
          <ChoiceEntry name="kind" label="Kind" options={options(machineKinds)} />
        </FieldRow>
        <FieldRow>
          <ChoiceEntry name="yardId" label="Yard" options={yards} placeholder="Choose a yard" />
          <TextEntry name="bay" label="Bay" optional />
          <TextEntry name="crew" label="Crew" optional />
          <ChoiceEntry
            name="storage"
            label="Storage"
            options={options(storageKinds)}
            hint="Decides its risk in frost"
          />
          <TextEntry name="inServiceSince" label="In service since" type="date" optional />
        </FieldRow>
      </FormPart>
      <FormPart
        title="Engine and water circuit"
        about="Basics that winter work and diagnosis will need. Leave blank what is not known."
      >
        <FieldRow>
          <ChoiceEntry name="drive" label="Driven by" options={options(driveKinds)} />
          <TextEntry name="driveName" label="Engine or motor" optional />
          <QuantityEntry name="drivePower" label="Power" dimension="power" optional />
        </FieldRow>
        <FieldRow>
          <QuantityEntry name="workingPressure" label="Working pressure" dimension="pressure" optional />
          <QuantityEntry name="flow" label="Flow" dimension="flow" optional />
          <QuantityEntry name="tankVolume" label="Tank" dimension="volume" optional />
        </FieldRow>
        <FieldRow>
          <QuantityEntry name="hoseLength" label="Hose length" dimension="length" optional />
          <QuantityEntry name="hoseBore" label="Hose bore" dimension="length" optional />
          <ChoiceEntry name="bypass" label="By-pass line" options={options(bypassKinds)} />
        </FieldRow>
        <TextEntry name="note" label="Note" multiline optional />
      </FormPart>
    </>
  )
}

/** A blank machine, its quantities in the company's units. */
export function blankMachine(id: string, yardId: string, units: UnitPreferences): MachineInput {
  const blank = (unit: string) => ({ value: '', unit }) as never
  return {
    id,
    number: '',
    name: '',
    kind: 'trailer',
    yardId,
    bay: '',
    crew: '',
    storage: 'outdoors',
    inServiceSince: '',
    drive: 'diesel',
    driveName: '',
    drivePower: blank('kW'),
    workingPressure: blank(units.pressure),
    flow: blank(units.flow),
    hoseLength: blank(units.length),
    hoseBore: blank(units.length === 'ft' ? 'in' : 'mm'),
    tankVolume: blank(units.volume),
    bypass: 'tank',
    note: '',
  }
}

/** A stored machine as the form holds it: nothing known becomes an empty field in the company's unit. */
export function machineValues(row: Record<string, unknown>, units: UnitPreferences): Partial<MachineInput> {
  const blank = blankMachine('', '', units)
  return Object.fromEntries(
    Object.keys(blank).map((field) => [field, row[field] ?? blank[field as keyof MachineInput]]),
  )
}
