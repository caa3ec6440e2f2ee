'use client'

import Dialog from '@mui/material/Dialog'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import type { MoveInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { useToast } from '../feedback/Toasts'
import { FieldRow, TextEntry } from '../forms/entries'
import { EntryForm } from '../forms/EntryForm'
import { PlaceFields, type PlaceChoices } from './PlaceFields'

type Props = {
  assembly: { id: string; number: string; version: number; usageScale: 'h' | 'strokes' }
  fitted: boolean
  /** Where it could go: asked for when the dialog opens. */
  places: () => Promise<Outcome<PlaceChoices>>
  today: string
  time: string
  move: (input: MoveInput) => Promise<Outcome<{ doubted: string[] }>>
  undo: (input: { assemblyId: string; fittingId: string }) => Promise<Outcome>
}

/** Moves an assembly to another machine or to the shelf, from an instant on. */
export function MoveDialog({ assembly, fitted, places, today, time, move, undo }: Props) {
  const [values, setValues] = useState<MoveInput | null>(null)
  const [choices, setChoices] = useState<PlaceChoices | null>(null)
  const toast = useToast()
  const open = async () => {
    const outcome = await places().catch(() => null)
    if (!outcome?.ok)
      return toast(outcome?.problem.message ?? 'Atelier could not be reached. Try again in a moment.')
    setChoices(outcome.data)
    setValues({
      id: uuid(),
      assemblyId: assembly.id,
      version: assembly.version,
      day: today,
      time,
      reason: '',
      offTyped: '',
      onTyped: '',
      place: fitted
        ? { where: 'shelf', yardId: outcome.data.yards[0]?.value ?? '', bin: '' }
        : { where: 'machine', machineId: '', slot: '', meterId: '', share: 100, shareBasis: 'own' },
    })
  }
  const done = (moved: MoveInput, doubted: string[]) => {
    setValues(null)
    const doubt =
      doubted.length > 0
        ? ` The reading of ${doubted.join(' and ')} is in doubt: settle it on the machine’s page.`
        : ''
    toast(`${assembly.number} has moved; its hours and its record went with it.${doubt}`, async () => {
      const outcome = await undo({ assemblyId: assembly.id, fittingId: moved.id })
      toast(outcome.ok ? `${assembly.number} is back where it was.` : outcome.problem.message)
    })
  }
  return (
    <>
      <Button variant="outlined" onClick={() => void open()}>
        {fitted ? 'Move or take off' : 'Fit to a machine'}
      </Button>
      <Dialog
        open={values !== null}
        onClose={() => setValues(null)}
        maxWidth="sm"
        fullWidth
        aria-labelledby="move-title"
      >
        <DialogTitle id="move-title">Move {assembly.number}</DialogTitle>
        <DialogContent>
          {values && choices && (
            <EntryForm
              schema="moveSchema"
              values={values}
              action={move}
              onDone={({ doubted }) => done(values, doubted)}
              submit={`Move ${assembly.number}`}
              cancel={
                <Button variant="outlined" onClick={() => setValues(null)}>
                  Cancel
                </Button>
              }
            >
              <PlaceFields choices={choices} />
              <FieldRow>
                <TextEntry name="day" label="Moved on" type="date" />
                <TextEntry name="time" label="Time" type="time" />
              </FieldRow>
              <MoveReadings fitted={fitted} />
              <TextEntry name="reason" label="Why" optional />
            </EntryForm>
          )}
        </DialogContent>
      </Dialog>
    </>
  )
}

/** What the meters showed as it moved: the hours of each stay then end on a reading, not between two. */
function MoveReadings({ fitted }: { fitted: boolean }) {
  const onto = useWatch({ name: 'place.where' }) === 'machine'
  return (
    <FieldRow>
      {fitted && (
        <TextEntry
          name="offTyped"
          label="Meter it leaves showed"
          inputMode="decimal"
          optional
          hint="Kept as a reading of that moment"
        />
      )}
      {onto && (
        <TextEntry
          name="onTyped"
          label="Meter that counts it now showed"
          inputMode="decimal"
          optional
          hint="Kept as a reading of that moment"
        />
      )}
    </FieldRow>
  )
}
