import Joi from 'joi'
import { invalid } from './problem'

/**
 * Joi's error codes in plain words. A schema overrides one where the field can say it better.
 * The label is left out: every message is shown beside its own field.
 */
const plainWords: Record<string, string> = {
  'any.required': 'Fill this in.',
  'any.only': 'Choose one of the values offered.',
  'any.unknown': 'This is not expected here.',
  'string.base': 'Enter text.',
  'string.empty': 'Fill this in.',
  'string.min': 'Enter at least {#limit} characters.',
  'string.max': 'At most {#limit} characters; this has {if(#value == null, "more", length(#value))}.',
  'string.pattern.base': 'This has characters that cannot be used here.',
  'string.guid': 'This is not a known reference.',
  'string.isoDate': 'This is no day: type one, or pick it from the calendar.',
  'number.base': 'Enter a number.',
  'number.unsafe': 'This number is too large.',
  'number.integer': 'Enter a whole number.',
  'number.min': 'Enter {#limit} or more.',
  'number.max': 'Enter {#limit} or less.',
  'number.greater': 'Enter more than {#limit}.',
  'number.positive': 'Enter more than 0.',
  'boolean.base': 'Answer yes or no.',
  'object.base': 'Fill in this part.',
  'object.unknown': 'This is not expected here.',
  'array.base': 'Enter a list.',
  'array.max': 'At most {#limit} of these.',
}

// Read once: Joi would read each of the sentences again for every check.
const messages = Object.fromEntries(
  Object.entries(plainWords).map(([code, words]) => [code, Joi.expression(words)]),
) as unknown as Joi.LanguageMessages

export const checkOptions: Joi.ValidationOptions = {
  abortEarly: false,
  allowUnknown: false,
  convert: true,
  messages,
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
export function check<T>(schema: Joi.Schema<T>, input: unknown): T {
  // Nothing at all is no input either: a request may hold anything.
  const wanted = input === undefined ? schema.required() : schema
  const { value, error } = wanted.validate(input, checkOptions)
  if (error) throw invalid(fieldMessages(error))
  return value as T
}

/** The first message for each path of a Joi error. */
export function fieldMessages(error: Joi.ValidationError): Record<string, string> {
  const fields: Record<string, string> = {}
  for (const detail of error.details) {
    const path = detail.path.join('.')
    fields[path] ??= detail.message
  }
  return fields
}
