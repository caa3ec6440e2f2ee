'use client'

import { v7 as uuid } from 'uuid'
import { showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { showAmount, type KeepOldInput, type OldPartLine } from '@/core/stores'
import type { Outcome } from '@/core/problem'
import { DialogForm } from '../forms/DialogForm'
import { FieldRow, RadioEntry, TextEntry } from '../forms/entries'
import { Link } from '../frame/Link'

type End = (input: { id: string; ending: string }) => Promise<Outcome>

/** Old parts in their labelled bags: until the job is closed, or until a claim is settled. */
export function OldParts({ parts, today, end }: { parts: OldPartLine[]; today: string; end: End | null }) {
  return (
    <ul className="line-list">
      {parts.map((part) => (
        <li key={part.id} className={part.endedOn ? 'receding' : undefined}>
          <span className="grow">
            <span className="strong">Bag {part.number}</span> {showAmount(part.quantity, 'piece')} ×{' '}
            {part.name}{' '}
            <span className="second">
              {[
                part.place,
                `since ${showDay(part.since, today)}`,
                part.until === 'claim' ? 'until the claim is settled' : 'until the job is closed',
                part.reason,
                part.endedOn && `ended ${showDay(part.endedOn, today)}: ${part.ending}`,
              ]
                .filter(Boolean)
                .join(', ')}
            </span>
          </span>
          <Link href={`/sheets/${part.sheetId}`} className="nowrap">
            sheet {visitNumber(part.sheetNumber)}
          </Link>
          {end && !part.endedOn && !part.sheetOpen && (
            <DialogForm
              label="Let go"
              look="text"
              title={`Bag ${part.number} need not be kept any longer`}
              schema="endOldSchema"
              start={() => ({ id: part.id, ending: '' })}
              action={end}
              submit="Let go"
              done="The bag can go."
            >
              <TextEntry name="ending" label="What became of it" autoFocus />
            </DialogForm>
          )}
        </li>
      ))}
    </ul>
  )
}

/** An old part goes into a bag with a label. */
export function KeepOldDialog({
  sheetId,
  keep,
}: {
  sheetId: string
  keep: (input: KeepOldInput) => Promise<Outcome<{ number: number }>>
}) {
  return (
    <DialogForm
      label="Keep an old part"
      title="Keep an old part"
      schema="keepOldSchema"
      start={(): KeepOldInput => ({
        id: uuid(),
        sheetId,
        name: '',
        place: '',
        quantity: 1,
        until: 'job',
        reason: '',
      })}
      action={keep}
      submit="Keep it"
      done="Kept. The number of its bag stands in the list: write it on the label."
    >
      <FieldRow>
        <TextEntry name="name" label="What it is" autoFocus />
        <TextEntry name="quantity" label="How many" inputMode="numeric" />
      </FieldRow>
      <TextEntry
        name="place"
        label="Where it sat"
        hint="Pump and position, as it stands on the sheet"
        optional
      />
      <RadioEntry
        name="until"
        label="Until"
        options={[
          { value: 'job', label: 'the job is closed' },
          { value: 'claim', label: 'a claim is settled' },
        ]}
      />
      <TextEntry name="reason" label="Why" optional />
    </DialogForm>
  )
}
