'use client'

import type { ClockStartInput } from '@/core/wear'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { RadioEntry } from '../forms/entries'

type Props = {
  assemblyId: string
  number: string
  opening: string
  start: (input: ClockStartInput) => Promise<Outcome>
}

export function StartClocks({ assemblyId, number, opening, start }: Props) {
  return (
    <DialogForm
      label="Start its clocks"
      look="contained"
      title={`Start the clocks of ${number}`}
      schema="clockStartSchema"
      start={(): ClockStartInput => ({ assemblyId, basis: 'pump' })}
      action={start}
      submit="Start the clocks"
      done={`The clocks of ${number} run.`}
    >
      <RadioEntry
        name="basis"
        label="How old are its parts?"
        options={[
          { value: 'pump', label: `As old as the pump: ${opening} when it was taken over` },
          { value: 'takeOver', label: 'Not known: count from the take-over' },
        ]}
        hint="Parts that you know were renewed are entered next, one renewal at a time."
      />
    </DialogForm>
  )
}
