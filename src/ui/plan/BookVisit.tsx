'use client'

import { useRouter } from 'next/navigation'
import { v7 as uuid } from 'uuid'
import { bookingSchema, type BookingInput, type BookableClock } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { itemOf, ServiceChoice } from './ServiceChoice'

type Props = {
  clocks: BookableClock[]
  technicians: Option[]
  today: string
  /** Who has least to do on that day. */
  suggestedLead: string
  /** The service somebody came to book; the form is open then. */
  wanted?: string
  look?: 'contained' | 'outlined'
  book: (input: BookingInput) => Promise<Outcome<{ number: string }>>
}

/** Books what is due on one machine: services, a day, a technician. What is due is chosen already. */
export function BookVisit({ clocks, technicians, today, suggestedLead, wanted, look, book }: Props) {
  const router = useRouter()
  const free = clocks.filter((clock) => clock.booked === null)
  return (
    <DialogForm
      label="Book a visit"
      look={look ?? 'contained'}
      title="Book a visit"
      schema={bookingSchema}
      start={(): BookingInput => ({
        id: uuid(),
        items: free.filter((clock) => clock.state !== 'healthy' || clock.task === wanted).map(itemOf),
        day: today,
        startTime: '',
        leadId: suggestedLead,
        note: '',
      })}
      action={async (input) => {
        const outcome = await book(input)
        if (outcome.ok) router.push(`/plan/${input.id}`)
        return outcome
      }}
      openNow={wanted !== undefined}
      submit="Book it"
      done="The visit is booked."
    >
      <ServiceChoice clocks={free} today={today} />
      <FieldRow>
        <TextEntry name="day" label="Day" type="date" autoFocus />
        <TextEntry name="startTime" label="Start" type="time" optional />
        <ChoiceEntry
          name="leadId"
          label="Technician"
          options={technicians}
          placeholder="Choose a technician"
        />
      </FieldRow>
      <TextEntry name="note" label="Note" optional />
    </DialogForm>
  )
}
