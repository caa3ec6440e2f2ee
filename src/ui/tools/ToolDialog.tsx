'use client'

import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { fieldName } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { toolKinds, type ToolInput, type ToolView } from '@/core/tools'
import { unitsOf } from '@/core/units'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

type Props = { tool?: ToolView; yards: Option[]; save: (input: ToolInput) => Promise<Outcome> }

type Typed = Omit<ToolInput, 'rangeFrom' | 'rangeTo' | 'leverMm' | 'serves' | 'count'> & {
  count: string
  rangeFrom: string
  rangeTo: string
  leverMm: string
  serves: string
}

const typed = (value: number | null) => (value === null ? '' : String(value))

/** A wrench with its range and calibration, or a special tool with the names that models ask for it by. */
export function ToolDialog({ tool, yards, save }: Props) {
  return (
    <DialogForm
      label={tool ? 'Edit' : 'Add a tool'}
      look={tool ? 'outlined' : 'contained'}
      title={tool ? `Edit ${tool.number}` : 'Add a tool'}
      schema="toolSchema"
      start={(): Typed =>
        tool
          ? {
              id: tool.id,
              version: tool.version,
              number: tool.number,
              name: tool.name,
              kind: tool.kind,
              count: String(tool.count),
              rangeFrom: typed(tool.rangeFrom),
              rangeTo: typed(tool.rangeTo),
              rangeUnit: tool.rangeUnit,
              leverMm: typed(tool.leverMm),
              calibrationDue: tool.calibrationDue ?? '',
              yardId: tool.yardId ?? '',
              place: tool.place,
              serves: tool.serves.join(', '),
              note: tool.note,
            }
          : {
              id: uuid(),
              number: '',
              name: '',
              kind: 'torqueWrench',
              count: '1',
              rangeFrom: '',
              rangeTo: '',
              rangeUnit: 'N·m',
              leverMm: '',
              calibrationDue: '',
              yardId: '',
              place: '',
              serves: '',
              note: '',
            }
      }
      action={(values) => save(values as unknown as ToolInput)}
      submit="Save tool"
      done="The tool is saved."
      fieldName={fieldName}
    >
      <FieldRow>
        <TextEntry name="number" label="Number" autoFocus={!tool} placeholder="W-5" />
        <TextEntry name="name" label="Name" />
        <ChoiceEntry name="kind" label="Kind" options={options(toolKinds)} />
      </FieldRow>
      <KindFields />
      <FieldRow>
        <ChoiceEntry
          name="yardId"
          label="Yard"
          options={[{ value: '', label: 'goes round' }, ...yards]}
          optional
        />
        <TextEntry name="place" label="Place" optional placeholder="bench drawer 1" />
        <TextEntry name="count" label="How many" inputMode="numeric" />
      </FieldRow>
      <TextEntry name="note" label="Note" multiline optional />
    </DialogForm>
  )
}

function KindFields() {
  const kind = useWatch({ name: 'kind' }) as ToolInput['kind']
  if (kind !== 'torqueWrench')
    return (
      <TextEntry
        name="serves"
        label="Serves as"
        hint="What pump models call it, with commas: Slide hammer, M10"
        optional
      />
    )
  return (
    <>
      <FieldRow>
        <TextEntry name="rangeFrom" label="Measures from" inputMode="decimal" />
        <TextEntry name="rangeTo" label="to" inputMode="decimal" />
        <ChoiceEntry
          name="rangeUnit"
          label="Unit of its scale"
          options={unitsOf('torque').map((unit) => ({ value: unit, label: unit }))}
        />
      </FieldRow>
      <FieldRow>
        <TextEntry name="calibrationDue" label="Calibration due" type="date" optional />
        <TextEntry
          name="leverMm"
          label="Its length"
          unit="mm"
          inputMode="decimal"
          hint="drive to middle of the grip; for a crow-foot"
          optional
        />
      </FieldRow>
    </>
  )
}
