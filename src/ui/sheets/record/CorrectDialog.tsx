'use client'

import FormHelperText from '@mui/material/FormHelperText'
import { useFormContext, useWatch } from 'react-hook-form'
import { v7 as uuid } from 'uuid'
import type { Outcome } from '@/core/problem'
import type { Correctable, CorrectionInput } from '@/core/sheets'
import { endReasons } from '@/core/wear'
import { DialogForm } from '../../forms/DialogForm'
import { ChoiceEntry, options, TextEntry } from '../../forms/entries'

type Values = {
  id: string
  sheetId: string
  thing: string
  about: Correctable['about'] | ''
  of: string
  text: string
  quantity: string
  assemblyId: string
  position: string
  endReason: string
  reason: string
}

type Props = {
  sheetId: string
  things: Correctable[]
  correct: (input: CorrectionInput) => Promise<Outcome>
}

/** Corrects a signed sheet: what is wrong, what is right, and why; as an entry of its own. */
export function CorrectDialog({ sheetId, things, correct }: Props) {
  return (
    <DialogForm<Values>
      label="Correct"
      title="Correct this sheet"
      schema="correctionSchema"
      start={() => ({
        id: uuid(),
        sheetId,
        thing: '',
        about: '',
        of: '',
        text: '',
        quantity: '',
        assemblyId: '',
        position: '',
        endReason: '',
        reason: '',
      })}
      action={({ thing: _thing, ...input }) => correct(input as unknown as CorrectionInput)}
      submit="Add the correction"
      done="The correction is on the record."
    >
      <CorrectionFields things={things} />
    </DialogForm>
  )
}

function CorrectionFields({ things }: { things: Correctable[] }) {
  const { setValue, formState } = useFormContext<Values>()
  const about = useWatch<Values>({ name: 'about' }) as Values['about']
  const choose = (index: string) => {
    const thing = things[Number(index)]
    setValue('about', index === '' ? '' : (thing?.about ?? ''))
    setValue('of', thing?.of ?? '')
    setValue('assemblyId', thing && 'assemblyId' in thing ? thing.assemblyId : '')
    setValue('position', thing && 'position' in thing ? thing.position : '')
    setValue('endReason', thing?.about === 'endReason' ? thing.endReason : '')
    setValue('quantity', thing?.about === 'part' ? String(thing.quantity) : '')
  }
  return (
    <>
      <p className="second">
        What was signed stays readable. The correction stands beside it, with your name; what the wrong entry
        had done to stock and lives is put right with it.
      </p>
      <div
        onChange={(event) =>
          (event.target as unknown as HTMLSelectElement).tagName === 'SELECT' &&
          choose((event.target as unknown as HTMLSelectElement).value)
        }
      >
        <ChoiceEntry
          name="thing"
          label="What is wrong"
          placeholder="Choose an entry"
          options={things.map((thing, index) => ({ value: String(index), label: thing.label }))}
        />
      </div>
      {formState.errors.about && (
        <FormHelperText error role="alert">
          {formState.errors.about.message}
        </FormHelperText>
      )}
      {about === 'words' && <TextEntry name="text" label="What is right" multiline />}
      {about === 'part' && <TextEntry name="quantity" label="How much was really used" inputMode="decimal" />}
      {about === 'endReason' && (
        <ChoiceEntry name="endReason" label="Why it really came out" options={options(endReasons)} />
      )}
      {about === 'notRenewed' && (
        <p>
          Its former life runs on as if it had never been taken out. Correct the part used as well, if one was
          noted.
        </p>
      )}
      <TextEntry name="reason" label="Why it is corrected" />
    </>
  )
}
