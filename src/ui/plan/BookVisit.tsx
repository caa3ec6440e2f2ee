'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import FormHelperText from '@mui/material/FormHelperText'
import { useRouter } from 'next/navigation'
import { useController } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import { bookingSchema, type BookingInput } from '@/core/planning'
import type { Outcome } from '@/core/problem/outcome'
import type { ClockView, WearView } from '@/core/wear/views'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'
import { leftWords } from '../wear/words'

export type BookableClock = ClockView & {
  assemblyId: string
  unit: WearView['unit']
  booked: string | null
}

type Props = {
  clocks: BookableClock[]
  technicians: Option[]
  today: string
  book: (input: BookingInput) => Promise<Outcome<{ number: string }>>
}

type Item = BookingInput['items'][number]

const itemOf = ({ assemblyId, task, positions }: BookableClock): Item => ({ assemblyId, task, positions })
const sameItem = (a: Item, b: Item) =>
  a.assemblyId === b.assemblyId && a.task === b.task && a.positions[0] === b.positions[0]

/** Books what is due on one machine: services, a day, a technician. What is due is chosen already. */
export function BookVisit({ clocks, technicians, today, book }: Props) {
  const router = useRouter()
  const free = clocks.filter((clock) => clock.booked === null)
  return (
    <DialogForm
      label="Book a visit"
      look="contained"
      title="Book a visit"
      schema={bookingSchema}
      start={(): BookingInput => ({
        id: uuid(),
        items: free.filter((clock) => clock.state !== 'healthy').map(itemOf),
        day: today,
        startTime: '',
        leadId: '',
        note: '',
      })}
      action={async (input) => {
        const outcome = await book(input)
        if (outcome.ok) router.push(`/plan/${input.id}`)
        return outcome
      }}
      submit="Book it"
      done="The visit is booked."
    >
      <ServiceChoice clocks={free} today={today} />
      <FieldRow>
        <TextEntry name="day" label="Day" type="date" />
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

function ServiceChoice({ clocks, today }: { clocks: BookableClock[]; today: string }) {
  const { field, fieldState } = useController<BookingInput, 'items'>({ name: 'items' })
  const chosen = field.value
  const error = fieldState.error as { message?: string; root?: { message?: string } } | undefined
  const message = error?.message ?? error?.root?.message
  return (
    <fieldset className="field radio-field" name="items">
      <legend>Services</legend>
      <div className="choices">
        {clocks.map((clock) => {
          const item = itemOf(clock)
          const name = clock.where ? `${clock.name}, ${clock.where}` : clock.name
          return (
            <FormControlLabel
              key={`${clock.assemblyId} ${clock.task} ${clock.positions[0]}`}
              control={
                <Checkbox
                  size="small"
                  checked={chosen.some((each) => sameItem(each, item))}
                  onChange={(event) =>
                    field.onChange(
                      event.target.checked
                        ? [...chosen, item]
                        : chosen.filter((each) => !sameItem(each, item)),
                    )
                  }
                />
              }
              label={
                <>
                  {name} <span className="second">{leftWords(clock, clock.unit, today)}</span>
                </>
              }
            />
          )
        })}
      </div>
      {message && (
        <FormHelperText error role="alert">
          {message}
        </FormHelperText>
      )}
    </fieldset>
  )
}
