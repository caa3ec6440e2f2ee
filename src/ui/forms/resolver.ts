import type { Schema } from 'joi'
import type { FieldErrors, FieldValues, Resolver } from 'react-hook-form'
import { checkOptions, fieldMessages } from '@/core/problem'

/**
 * Checks a form with the core schema its service uses. What is handed on is what was typed: the
 * service checks and converts it from scratch, so nothing is converted twice.
 */
export function schemaResolver<Values extends FieldValues>(schema: Schema): Resolver<Values> {
  return (values) => {
    const { error } = schema.validate(values, checkOptions)
    if (!error) return { values, errors: {} }
    const errors: Record<string, unknown> = {}
    for (const [path, message] of Object.entries(fieldMessages(error)))
      place(errors, path.split('.'), message)
    return { values: {}, errors: errors as FieldErrors<Values> }
  }
}

function place(errors: Record<string, unknown>, path: string[], message: string): void {
  const [head = '', ...rest] = path
  if (rest.length === 0) {
    errors[head] = { type: 'schema', message }
    return
  }
  const inner = (errors[head] ??= {}) as Record<string, unknown>
  place(inner, rest, message)
}
