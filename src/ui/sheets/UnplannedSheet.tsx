'use client'

import { useRouter } from 'next/navigation'
import { v7 as uuid } from 'uuid'
import type { Outcome } from '@/core/problem'
import type { UnplannedSheetInput } from '@/core/sheets'
import { DialogForm } from '../forms/DialogForm'
import { TextEntry } from '../forms/entries'
import { ServiceChoice } from '../plan'
import type { BookableClock } from '@/core/plan'

type Props = {
  clocks: BookableClock[]
  today: string
  start: (input: UnplannedSheetInput) => Promise<Outcome<{ id: string }>>
}

/** A breakdown: what happened, what is done about it, and straight to the bench. */
export function UnplannedSheet({ clocks, today, start }: Props) {
  const router = useRouter()
  return (
    <DialogForm
      label="Breakdown"
      title="Open an unplanned sheet"
      schema="unplannedSheetSchema"
      start={(): UnplannedSheetInput => ({ id: uuid(), items: [], trouble: '' })}
      action={async (input) => {
        const outcome = await start(input)
        if (outcome.ok) router.push(`/sheets/${outcome.data.id}`)
        return outcome
      }}
      submit="Open the sheet"
      done="The sheet is open."
    >
      <TextEntry
        name="trouble"
        label="What happened"
        hint="Water from a weep hole, pressure low, knocking …"
      />
      <ServiceChoice clocks={clocks} today={today} />
    </DialogForm>
  )
}
