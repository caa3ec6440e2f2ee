import type { Schema, ValidationError, ValidationOptions } from 'joi'
import { invalid } from './problem'

export const checkOptions: ValidationOptions = {
  abortEarly: false,
  allowUnknown: false,
  convert: true,
  errors: { wrap: { label: false } },
}

/**
 * Checks input against a schema and returns the cleaned value.
 *
 * @param schema a Joi schema from some `core/<slice>/schema.ts`
 * @param input anything: a form's values, a file's row, a request's body
 * @returns the value with defaults filled in, text trimmed and numbers converted
 * @throws a problem of kind `invalid` with one plain sentence per field path
 */
export function check<T>(schema: Schema<T>, input: unknown): T {
  // Nothing at all is no input either: a request may hold anything.
  const wanted = input === undefined ? schema.required() : schema
  const { value, error } = wanted.validate(input, checkOptions)
  if (error) throw invalid(fieldMessages(error))
  return value as T
}

/** The first message for each path of a Joi error. */
export function fieldMessages(error: ValidationError): Record<string, string> {
  const fields: Record<string, string> = {}
  for (const detail of error.details) {
    const path = detail.path.join('.')
    fields[path] ??= detail.message
  }
  return fields
}
