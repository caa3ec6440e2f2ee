'use client'

import { signOutcomes, type SettleSignInput } from '@/core/inspection'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { options, RadioEntry, TextEntry } from '../forms/entries'

type Props = {
  sign: { id: string; version: number }
  label: string
  look?: 'outlined' | 'text'
  settle: (input: SettleSignInput) => Promise<Outcome>
}

/** How a sign ended. */
export function SettleSign({ sign, label, look = 'outlined', settle }: Props) {
  return (
    <DialogForm<SettleSignInput>
      label="Settle"
      look={look}
      title={`Settle: ${label}`}
      schema="settleSignSchema"
      start={() => ({ id: sign.id, version: sign.version, outcome: '' as never, words: '' })}
      action={settle}
      submit="Settle it"
      done="Settled. What it brought forward goes by its own limit again."
    >
      <RadioEntry name="outcome" label="How did it end?" options={options(signOutcomes)} />
      <TextEntry name="words" label="What was found or done" />
    </DialogForm>
  )
}
