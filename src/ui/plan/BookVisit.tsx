'use client'

import { useRouter } from 'next/navigation'
import { v7 as uuid } from 'uuid'
import type { BookingInput, BookableClock } from '@/core/plan'
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
  /** A visit that makes the machine safe for winter, or brings it back; other services go along. */
  winter?: { kind: 'lay' | 'return'; machineId: string; day: string; until: string }
  book: (input: BookingInput) => Promise<Outcome<{ number: string }>>
}

/** Books what is due on one machine: services, a day, a technician. What is due is chosen already. */
export function BookVisit({ clocks, technicians, today, suggestedLead, wanted, look, winter, book }: Props) {
  const router = useRouter()
  const free = clocks.filter((clock) => clock.booked === null)
  const title =
    winter === undefined
      ? 'Book a visit'
      : winter.kind === 'lay'
        ? 'Book the winter visit'
        : 'Book the spring visit'
  // While it stands laid up, days run on: what they end is done while it is open anyway.
  const runsOut = (clock: BookableClock) =>
    winter !== undefined && clock.aboutDay !== null && clock.aboutDay <= winter.until
  return (
    <DialogForm
      label={title}
      look={look ?? 'contained'}
      title={title}
      schema="bookingSchema"
      start={(): BookingInput => ({
        id: uuid(),
        items: free
          .filter((clock) => clock.state !== 'healthy' || clock.task === wanted || runsOut(clock))
          .map(itemOf),
        ...(winter && { winter: winter.kind, machineId: winter.machineId }),
        day: winter?.day ?? today,
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
