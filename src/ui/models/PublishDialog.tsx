'use client'

import Joi from 'joi'
import type { Outcome } from '@/core/problem/outcome'
import { DialogForm } from '../forms/DialogForm'
import { TextEntry } from '../forms/entries'

type Props = {
  modelId: string
  next: number
  publish: (input: { modelId: string; text: string }) => Promise<Outcome<unknown>>
}

const schema = Joi.object({
  data: Joi.string().max(900_000).required().messages({
    'string.empty': 'Paste the model’s JSON data.',
    'string.max': 'This is too long for a pump model.',
  }),
})

/** Publishes a model's data as its next version; what is wrong with it is named by its path. */
export function PublishDialog({ modelId, next, publish }: Props) {
  return (
    <DialogForm
      label={next === 1 ? 'Publish its data' : `Publish version ${next}`}
      look="contained"
      title={`Publish version ${next}`}
      schema={schema}
      start={() => ({ data: '' })}
      action={({ data }) => publish({ modelId, text: data })}
      submit={`Publish version ${next}`}
      done={`Version ${next} is published. The pumps of this model go by it.`}
    >
      <p>
        A published version is never changed; a correction is the next one. The pumps of this model go over to
        it at once, and their record says so. Figures must come from the maker’s manual.
      </p>
      <div className="code-input">
        <TextEntry name="data" label="Model data, as JSON" multiline />
      </div>
    </DialogForm>
  )
}
