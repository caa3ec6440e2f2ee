'use client'

import { useRouter } from 'next/navigation'
import { v7 as uuid } from 'uuid'
import type { BookingInput } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import type { ChosenTask } from '@/core/composing'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

export type Booking = {
  technicians: Option[]
  suggestedLead: string
  book: (input: BookingInput) => Promise<Outcome<{ number: string }>>
}

type Props = { pump: { id: string; number: string }; tasks: ChosenTask[]; booking: Booking; today: string }

/** Books just what was composed, with the ways that were chosen. */
export function BookComposed({ pump, tasks, booking, today }: Props) {
  const router = useRouter()
  return (
    <DialogForm
      label="Book this visit"
      look="contained"
      title={`Book ${tasks.length === 1 ? 'this service' : `these ${tasks.length} services`} on ${pump.number}`}
      schema="bookingSchema"
      start={(): BookingInput => ({
        id: uuid(),
        items: tasks.map(({ task, positions, path }) => ({
          assemblyId: pump.id,
          task,
          positions,
          path: path ?? null,
        })),
        day: today,
        startTime: '',
        leadId: booking.suggestedLead,
        note: '',
      })}
      action={async (input) => {
        const outcome = await booking.book(input)
        if (outcome.ok) router.push(`/plan/${input.id}`)
        return outcome
      }}
      submit="Book it"
      done="The visit is booked."
    >
      <FieldRow>
        <TextEntry name="day" label="Day" type="date" autoFocus />
        <TextEntry name="startTime" label="Start" type="time" optional />
        <ChoiceEntry
          name="leadId"
          label="Technician"
          options={booking.technicians}
          placeholder="Choose a technician"
        />
      </FieldRow>
      <TextEntry name="note" label="Note" optional />
    </DialogForm>
  )
}
