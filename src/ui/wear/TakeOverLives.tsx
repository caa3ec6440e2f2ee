'use client'

import type { Outcome } from '@/core/problem'
import type { TakeOverInput, StartingLife } from '@/core/wear'
import { DialogForm } from '../forms/DialogForm'
import { ChoiceEntry, TextEntry } from '../forms/entries'

type Props = {
  assemblyId: string
  number: string
  lives: StartingLife[]
  unit: string
  save: (input: TakeOverInput) => Promise<Outcome>
}

/** What is known of each part a pump was taken over with; the rest stays marked as assumed. */
export function TakeOverLives({ assemblyId, number, lives, unit, save }: Props) {
  return (
    <DialogForm<TakeOverInput>
      label="Taken over with"
      title={`What had run on the parts of ${number} when it was taken over?`}
      schema="takeOverSchema"
      start={() => ({
        assemblyId,
        lines: lives.map(({ lifeId, hours, day, assumed }) => ({
          lifeId,
          hours: String(hours) as never,
          day: day ?? '',
          assumed: (assumed ? 'assumed' : 'known') as never,
        })),
      })}
      action={save}
      submit="Save"
      done="Saved. Their clocks go by it."
      fieldName={(field) => {
        const [, index] = field.split('.')
        return index === undefined ? field : (lives[Number(index)]?.name ?? field)
      }}
    >
      <p className="second">
        Parts renewed since then are not listed. Enter what the binder or the seller knows; leave the rest as
        assumed.
      </p>
      {lives.map((life, index) => (
        <fieldset key={life.lifeId} className="take-over-line">
          <legend>{life.name}</legend>
          <TextEntry name={`lines.${index}.hours`} label="Run" unit={unit} inputMode="decimal" />
          <TextEntry name={`lines.${index}.day`} label="Fitted on" type="date" optional />
          <ChoiceEntry
            name={`lines.${index}.assumed`}
            label="This is"
            options={[
              { value: 'known', label: 'known' },
              { value: 'assumed', label: 'assumed' },
            ]}
          />
        </fieldset>
      ))}
    </DialogForm>
  )
}
