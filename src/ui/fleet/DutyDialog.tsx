'use client'

import { v7 as uuid } from 'uuid'
import { fieldName, type DutyInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { DutyFields } from './PumpFields'

type Props = {
  assembly: { id: string; number: string; version: number }
  now: { meterId: string; share: number; basis: 'own' | 'assumed' | 'measured' }
  meters: Option[]
  today: string
  time: string
  save: (input: DutyInput) => Promise<Outcome>
}

/** Says from when on another meter, or another share of it, counts a pump. */
export function DutyDialog({ assembly, now, meters, today, time, save }: Props) {
  return (
    <DialogForm<DutyInput>
      label="Change how it is counted"
      look="text"
      title={`How ${assembly.number} is counted`}
      schema="dutySchema"
      start={() => ({
        id: uuid(),
        assemblyId: assembly.id,
        version: assembly.version,
        day: today,
        time,
        meterId: now.meterId,
        share: Math.round(now.share * 1000) / 10,
        shareBasis: now.basis,
        reason: '',
      })}
      action={save}
      submit="Count it so from then on"
      done="It is counted so from that day on; earlier hours stay as they are."
      fieldName={fieldName}
    >
      <ChoiceEntry name="meterId" label="Counted by" options={meters} />
      <DutyFields />
      <FieldRow>
        <TextEntry name="day" label="From" type="date" />
        <TextEntry name="time" label="Time" type="time" />
      </FieldRow>
      <TextEntry name="reason" label="Measured or judged by" />
    </DialogForm>
  )
}
