'use client'

import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { useState } from 'react'
import { v7 as uuid } from 'uuid'
import type { CampaignBookingInput } from '@/core/plan'
import { type Outcome } from '@/core/problem'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, RadioEntry } from '../../forms/entries'
import { type Option } from '../../forms/FieldFrame'
import { Button } from '../../frame/Button'
import { yesNo } from './choices'

const notBooked = 'Not booked'

/** Books a yard's order of work in one go. */
export function BookCampaign({
  yard,
  waiting,
  technicians,
  save,
}: {
  yard: { id: string; name: string }
  /** How many machines wait and are not booked. */
  waiting: number
  technicians: Option[]
  save: (input: CampaignBookingInput) => Promise<Outcome<{ booked: number; left: string[] }>>
}) {
  /** What could not be booked, each with why: told until it is read. */
  const [left, setLeft] = useState<string[]>([])
  return (
    <>
      <DialogForm
        label={`Book all ${waiting}`}
        title={`Book the order of work of ${yard.name}`}
        schema="campaignBookingSchema"
        start={(): CampaignBookingInput => ({
          id: uuid(),
          yardId: yard.id,
          leadId: '',
          withDue: 'true' as never,
        })}
        action={async (input) => {
          const outcome = await save(input)
          if (outcome.ok) setLeft(outcome.data.left)
          return outcome
        }}
        submit="Book them"
        done="Booked on their days, with their fluid reserved."
      >
        <p className="second">
          One winter visit for every machine that waits, on the day that the order has for it. Fluid is
          reserved; days and people can be changed on each visit.
        </p>
        <ChoiceEntry
          name="leadId"
          label="Technician"
          options={[{ value: '', label: 'Whoever has most time on each day' }, ...technicians]}
        />
        <RadioEntry name="withDue" label="Take along what is due on them?" options={yesNo} />
      </DialogForm>
      <Dialog
        open={left.length > 0}
        onClose={() => setLeft([])}
        maxWidth="sm"
        fullWidth
        aria-label={notBooked}
      >
        <DialogTitle>{notBooked}</DialogTitle>
        <DialogContent>
          <p>The others are. These wait until what stops them is settled, then book the order once more.</p>
          <ul className="line-list">
            {left.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </DialogContent>
        <DialogActions>
          <Button variant="contained" onClick={() => setLeft([])}>
            Close
          </Button>
        </DialogActions>
      </Dialog>
    </>
  )
}
