'use client'

import { treatmentWords } from '@/core/models'
import type { PracticeInput, PracticeView, Treats } from '@/core/practices'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { TextEntry } from '../forms/entries'

type Props = {
  practice: PracticeView
  /** What the chosen way puts on, with the usual figures. */
  treats: Treats
  choose: ((input: PracticeInput) => Promise<Outcome>) | null
}

/** What the chosen way puts on a thread: the usual figures, until somebody reads them off the label. */
export function ProductLine({ practice, treats, choose }: Props) {
  const { chosen, key, choices } = practice
  const own = chosen?.product ?? null
  const holds = { ...treats, ...own }
  return (
    <div className="stack-tight">
      <p className="second">
        {treatmentWords({
          kind: holds.kind,
          product: holds.product,
          amount: holds.amount,
          surface: '',
          setsMinutes: holds.setsMinutes,
          curesMinutes: holds.curesMinutes,
          takes: holds.takesMl > 0 ? { quantity: holds.takesMl, unit: 'mL', part: null } : null,
        })}
        {own ? ', as on its label' : ': usual figures, nobody has read its label yet'}
      </p>
      {choose && (
        <DialogForm
          label="From its label"
          look="text"
          title={`${practice.name}: what stands on the label`}
          schema="practiceSchema"
          start={(): PracticeInput => ({
            practice: key,
            modelId: null,
            choice: chosen?.choice ?? choices[0]!.key,
            reason: chosen?.reason ?? '',
            product: {
              product: holds.product,
              amount: holds.amount,
              setsMinutes: holds.setsMinutes,
              curesMinutes: holds.curesMinutes,
              takesMl: holds.takesMl,
            },
            version: chosen?.version ?? 0,
          })}
          action={choose}
          submit="These hold"
          done={`${practice.name}: its product is noted.`}
        >
          <p>Sheets take amount and times from here; pressure waits for the cure.</p>
          <TextEntry name="product.product" label="Product" optional />
          <TextEntry name="product.amount" label="How much on one" />
          <TextEntry name="product.takesMl" label="About how many mL on one" inputMode="decimal" />
          <TextEntry name="product.setsMinutes" label="Sets in, minutes" inputMode="numeric" />
          <TextEntry name="product.curesMinutes" label="Cured after, minutes" inputMode="numeric" />
        </DialogForm>
      )}
    </div>
  )
}
