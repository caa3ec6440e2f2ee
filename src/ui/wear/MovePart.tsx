'use client'

import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import type { Outcome } from '@/core/problem'
import { endReasons, type MovePartInput, type PositionLives } from '@/core/wear'
import { inSentence } from '@/core/units'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, options, RadioEntry, TextEntry } from '../forms/entries'

type Props = {
  assemblyId: string
  position: string
  found: PositionLives
  today: string
  move: (input: MovePartInput) => Promise<Outcome>
}

/** Notes that the part of this position went to another bore, with the hours it has. */
export function MovePart({ assemblyId, position, found, today, move }: Props) {
  return (
    <DialogForm<MovePartInput>
      label="Moved to another bore"
      title={`Where did the part of ${inSentence(found.name)} go?`}
      schema="movePartSchema"
      start={() => ({
        id: uuid(),
        assemblyId,
        from: position,
        to: '',
        day: today,
        other: 'swap',
        endReason: '',
        note: '',
      })}
      action={move}
      submit="Note the move"
      done="Noted. Its hours went with it."
    >
      <MoveFields found={found} />
    </DialogForm>
  )
}

function MoveFields({ found }: { found: PositionLives }) {
  const other = useWatch({ name: 'other' }) as MovePartInput['other']
  return (
    <>
      <FieldRow>
        <ChoiceEntry
          name="to"
          label="It went to"
          options={found.others.map(({ key, name }) => ({ value: key, label: name }))}
          placeholder="Choose the bore"
        />
        <TextEntry name="day" label="On" type="date" />
      </FieldRow>
      <RadioEntry
        name="other"
        label="And the part that sat there?"
        options={[
          { value: 'swap', label: 'It came here: they changed places' },
          { value: 'out', label: 'It is done with; a new one went in here' },
        ]}
      />
      {other === 'out' && (
        <ChoiceEntry
          name="endReason"
          label="Why it came out"
          options={options(endReasons)}
          placeholder="Choose why"
        />
      )}
      <TextEntry name="note" label="Note" optional />
    </>
  )
}
