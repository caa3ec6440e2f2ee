'use client'

import { v7 as uuid } from 'uuid'
import type { CampaignBookingInput } from '@/core/plan'
import { type Outcome } from '@/core/problem'
import { useToast } from '../../feedback/Toasts'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, RadioEntry } from '../../forms/entries'
import { type Option } from '../../forms/FieldFrame'
import { yesNo } from './choices'

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
  const toast = useToast()
  return (
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
        if (outcome.ok && outcome.data.left.length > 0) toast(`Left: ${outcome.data.left.join('; ')}`)
        return outcome
      }}
      submit="Book them"
      done="Each machine is booked on its day, with its fluid reserved."
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
  )
}
