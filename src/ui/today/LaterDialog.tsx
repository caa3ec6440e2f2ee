'use client'

import { v7 as uuid } from 'uuid'
import { addDays } from '@/core/calendar'
import type { HandInput, SnoozeInput } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import type { Standing } from '@/core/today'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, FieldRow, TextEntry } from '../forms/entries'
import type { Option } from '../forms/FieldFrame'

export type MarkActions = {
  snooze: (input: SnoozeInput) => Promise<Outcome>
  handOn: (input: HandInput) => Promise<Outcome>
  clearMark: (id: string) => Promise<Outcome>
}

type Props = {
  /** What it says of itself. */
  label: string
  /** What the row stands for, as it is now: each comes back before its day when something new or worse comes up. */
  marked: Standing[]
  today: string
  /** Said beside the day, so that nobody puts it off too far: "act by 18 Oct". */
  hint?: string
  people: Option[]
  actions: MarkActions
}

/** Puts a row of Today off with a reason, or hands it to somebody. */
export function LaterButtons({ label, marked, today, hint, people, actions }: Props) {
  const each = () => {
    const [first, ...also] = marked.map((one) => ({ id: uuid(), ...one }))
    return { ...first!, also }
  }
  return (
    <span className="later">
      <DialogForm<SnoozeInput>
        label="Later"
        look="text"
        title={`Put off: ${label}`}
        schema="snoozeSchema"
        start={() => ({ ...each(), until: addDays(today, 1), reason: '' })}
        action={actions.snooze}
        submit="Put it off"
        done="It comes back on that day, or before if something new or worse comes up."
      >
        <FieldRow>
          <TextEntry name="until" label="Until" type="date" hint={hint} />
          <TextEntry name="reason" label="Why it can wait" />
        </FieldRow>
      </DialogForm>
      <DialogForm<HandInput>
        label="Hand on"
        look="text"
        title={`Hand on: ${label}`}
        schema="handSchema"
        start={() => ({ ...each(), toId: '', note: '' })}
        action={actions.handOn}
        submit="Hand it on"
        done="It stands on the list with their name."
      >
        <FieldRow>
          <ChoiceEntry name="toId" label="To" options={people} placeholder="Choose somebody" />
          <TextEntry name="note" label="Word to them" optional />
        </FieldRow>
      </DialogForm>
    </span>
  )
}
