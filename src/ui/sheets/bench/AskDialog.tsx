'use client'

import { useState, type ReactNode } from 'react'
import { BenchDialog } from './BenchDialog'
import { FieldFrame, SelectInput, TextInput } from '../../forms/FieldFrame'

type Field = {
  name: string
  label: string
  start?: string
  lines?: number
  options?: string[]
  optional?: boolean
}

type Props = {
  title: string
  intro?: ReactNode
  fields: Field[]
  submit: string
  onClose: () => void
  /** Answers with the sentence that stands in the way, or null. */
  send: (values: Record<string, string>) => Promise<string | null>
}

/** A few words asked for at the bench, with fields and buttons large enough for gloves. */
export function AskDialog({ title, intro, fields, submit, onClose, send }: Props) {
  const [values, setValues] = useState<Record<string, string>>(() =>
    Object.fromEntries(fields.map((field) => [field.name, field.start ?? field.options?.[0] ?? ''])),
  )
  const [error, setError] = useState<{ field: string; words: string } | null>(null)
  const finish = async () => {
    const blank = fields.find((field) => !field.optional && values[field.name]?.trim() === '')
    if (blank) {
      setError({ field: blank.name, words: 'Fill this in.' })
      return
    }
    const refused = await send(
      Object.fromEntries(Object.entries(values).map(([name, value]) => [name, value.trim()])),
    )
    if (refused) setError({ field: fields.at(-1)!.name, words: refused })
    else onClose()
  }
  return (
    <BenchDialog title={title} size="xs" onClose={onClose} submit={{ words: submit, run: finish }}>
      {intro}
      {fields.map((field, index) => (
        <FieldFrame
          key={field.name}
          id={`ask-${field.name}`}
          label={field.label}
          optional={field.optional}
          error={error?.field === field.name ? error.words : ''}
        >
          {field.options ? (
            <SelectInput
              id={`ask-${field.name}`}
              options={field.options.map((option) => ({ value: option, label: option }))}
              value={values[field.name]}
              onChange={(event) => setValues({ ...values, [field.name]: event.target.value })}
            />
          ) : (
            <TextInput
              id={`ask-${field.name}`}
              value={values[field.name]}
              onChange={(event) => setValues({ ...values, [field.name]: event.target.value })}
              autoFocus={index === 0}
              multiline={field.lines !== undefined}
              minRows={field.lines}
            />
          )}
        </FieldFrame>
      ))}
    </BenchDialog>
  )
}
