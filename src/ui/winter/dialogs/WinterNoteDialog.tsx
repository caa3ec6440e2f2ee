'use client'

import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import { methodNames, winterNoteNames, zoneNames, type WinterNoteInput, type Zone } from '@/core/winter'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../../frame/Button'
import { useToast } from '../../feedback/Toasts'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, RadioEntry, TextEntry } from '../../forms/entries'
import { yesNo } from './choices'

/** What happened to a machine, told by hand. */
export function WinterNoteDialog({
  machineId,
  number,
  zones,
  today,
  save,
}: {
  machineId: string
  number: string
  zones: Zone[]
  today: string
  save: (input: WinterNoteInput) => Promise<Outcome>
}) {
  return (
    <DialogForm
      label="Tell what happened"
      title={`${number}: what happened`}
      schema="winterNoteSchema"
      start={(): WinterNoteInput => ({
        id: uuid(),
        machineId,
        kind: 'water',
        zone: '',
        method: '',
        day: today,
        measuredC: '' as never,
        passed: 'true' as never,
        litres: '' as never,
        words: '',
      })}
      action={save}
      submit="Note it"
      done="Noted."
    >
      <ChoiceEntry name="kind" label="What" options={options(winterNoteNames)} />
      <FieldRow>
        <ChoiceEntry
          name="zone"
          label="Zone"
          options={[
            { value: '', label: 'The whole machine' },
            ...zones.map((zone) => ({ value: zone, label: zoneNames[zone] })),
          ]}
        />
        <ChoiceEntry
          name="method"
          label="Method"
          options={[{ value: '', label: '–' }, ...options(methodNames)]}
        />
        <TextEntry name="day" label="Day" type="date" />
      </FieldRow>
      <FieldRow>
        <TextEntry name="measuredC" label="Measured" unit="°C" optional />
        <TextEntry name="litres" label="Put in" unit="L" inputMode="decimal" optional />
      </FieldRow>
      <RadioEntry name="passed" label="Did the proof pass?" options={yesNo} />
      <TextEntry name="words" label="In words" optional />
    </DialogForm>
  )
}

/** The evening's routine of a machine that works on, with one tap. */
export function EveningButton({
  machineId,
  number,
  today,
  save,
}: {
  machineId: string
  number: string
  today: string
  save: (input: WinterNoteInput) => Promise<Outcome>
}) {
  const router = useRouter()
  const toast = useToast()
  const [id] = useState(() => uuid())
  return (
    <Button
      variant="outlined"
      aria-label={`Done tonight: ${number}`}
      onClick={async () => {
        const outcome = await save({
          id,
          machineId,
          kind: 'evening',
          zone: '',
          method: '',
          day: today,
          measuredC: null,
          passed: false,
          litres: null,
          words: '',
        }).catch(() => null)
        if (outcome?.ok) toast(`${number}: confirmed for ${showDay(today, today)}.`)
        else toast(outcome ? problemWords(outcome.problem) : 'Atelier could not be reached.')
        router.refresh()
      }}
    >
      Done tonight
    </Button>
  )
}
