import plain from 'joi'

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

/** Each read once: as text Joi would read them anew for every kind of schema. */
const templates = Object.fromEntries(
  Object.entries(plainWords).map(([code, words]) => [code, plain.expression(words)]),
)

/**
 * Joi with our words for what is wrong: every schema is made with it. The words belong to the kinds of schema;
 * handed to each check instead, Joi would copy all of them at each field that has a word of its own.
 */
export const Joi = plain.extend({ type: /./, messages: templates as never }) as plain.Root
